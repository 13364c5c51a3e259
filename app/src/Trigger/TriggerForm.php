<?php

declare(strict_types=1);

namespace UpperPane\App\Trigger;

use UpperPane\App\Layout\DesignForm;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\DesignLibrary;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Trigger\Contents;
use UpperPane\Core\Trigger\TriggerMap;

final readonly class TriggerForm implements DesignForm
{
    public function __construct(private DesignLibrary $library)
    {
    }

    public static function kind(): DesignKind
    {
        return DesignKind::Trigger;
    }

    public static function rules(): bool
    {
        return false;
    }

    /** All that its states play is there, and has a length where that is meant; what is wrong with its ways is found, and does not keep it from being saved. */
    public function check(array $document): void
    {
        $map = TriggerMap::fromArray($document);
        $contents = new Contents($map, $this->library->composer($document), Size::px(1920, 1080));
        $contents->lasting();
        foreach ($map->states as $state) {
            $contents->shown($state, null);
        }
    }

    public function drawn(array $document, ?Size $raster = null): null
    {
        return null;
    }

    public function plays(DesignLibrary $library, Display $display, array $documents): Programme
    {
        throw new \LogicException('A map of triggers plays nothing by itself: it answers above what plays.');
    }
}
