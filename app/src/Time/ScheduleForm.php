<?php

declare(strict_types=1);

namespace UpperPane\App\Time;

use UpperPane\App\Layout\DesignForm;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\DesignLibrary;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Time\Schedule\Schedule;

final readonly class ScheduleForm implements DesignForm
{
    public function __construct(private Schedules $schedules)
    {
    }

    public static function kind(): DesignKind
    {
        return DesignKind::Schedule;
    }

    public static function rules(): bool
    {
        return true;
    }

    public function check(array $document): void
    {
        $this->schedules->check($document);
    }

    public function drawn(array $document, ?Size $raster = null): null
    {
        return null;
    }

    public function plays(DesignLibrary $library, Display $display, array $documents): Programme
    {
        $found = array_map(Schedule::fromArray(...), $documents);
        $nearest = array_shift($found);

        return $this->schedules->programme($display, $nearest->together(...$found), $library);
    }
}
