<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Budget;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Playback\Programme;

final readonly class LayoutForm implements DesignForm
{
    public function __construct(private DesignLibrary $library, private PlaysRowByRow $rowByRow)
    {
    }

    public static function kind(): DesignKind
    {
        return DesignKind::Layout;
    }

    public static function rules(): bool
    {
        return false;
    }

    public function check(array $document): void
    {
        Budget::ofElements(count($this->drawn($document)->elements), '/elements');
    }

    public function drawn(array $document, ?Size $raster = null): Composed
    {
        $composer = $this->library->composer($document);
        $layout = $this->library->written($document, $composer);
        [$composer] = $this->rowByRow->composer($layout->id, $composer);
        $composed = $composer->layout($layout);

        return $raster === null ? $composed : $composed->for($raster);
    }

    public function plays(DesignLibrary $library, Display $display, array $documents): Programme
    {
        return Programme::endless($library->layout($documents[0])->for($display->raster()), $display->timezone);
    }
}
