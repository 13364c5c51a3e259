<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Units\WallClock;

/** A date or a time of a calendar, on the clock on which it is meant. */
final readonly class CalendarTime
{
    /** Unix s; of a date its midnight on the clock of the reader. */
    public int $utc;

    /** @param int $local s on the clock */
    public function __construct(public int $local, public WallClock $clock, public bool $isDate)
    {
        $this->utc = $clock->utcOrBefore($local);
    }
}
