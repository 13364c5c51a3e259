<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Recurrence\Rule;

/** Which booking goes before which where several are due (computation.md, 5). */
enum Rank: string
{
    case Takeover = 'takeover';
    case Dated = 'dated';
    case Weekly = 'weekly';
    case Everyday = 'everyday';

    /** What happens on a date goes before what comes every week, and that before what comes every day. */
    public static function of(?Rule $rule): self
    {
        return match (true) {
            $rule === null => self::Dated,
            (string) $rule === 'FREQ=DAILY' => self::Everyday,
            default => self::Weekly,
        };
    }

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
