<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

/** Which booking goes before which where several are due (computation.md, 5). */
enum Rank: string
{
    case Takeover = 'takeover';
    case Dated = 'dated';
    case Weekly = 'weekly';
    case Everyday = 'everyday';

    /** The higher goes first. */
    public function weight(): int
    {
        return match ($this) {
            self::Takeover => 3,
            self::Dated => 2,
            self::Weekly => 1,
            self::Everyday => 0,
        };
    }
}
