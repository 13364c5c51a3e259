<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Budget;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Playback\Programme;

/** What was filled in is drawn and played as the layout that it is. */
final readonly class FilledForm implements DesignForm
{
    public function __construct(private LayoutForm $layouts, private Designs $designs)
    {
    }

    public static function kind(): DesignKind
    {
        return DesignKind::Filled;
    }

    public static function rules(): bool
    {
        return false;
    }

    public function check(array $document): void
    {
        $this->designs->reaches($document);
        Budget::ofElements(count($this->drawn($document)->elements), '/template');
    }

    public function drawn(array $document, ?Size $raster = null): Composed
    {
        return $this->layouts->drawn($document, $raster);
    }

    public function plays(DesignLibrary $library, Display $display, array $documents): Programme
    {
        return $this->layouts->plays($library, $display, $documents);
    }
}
