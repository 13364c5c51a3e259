<?php

declare(strict_types=1);

namespace UpperPane\Core\Recurrence;

/** How often a rule comes round (RFC 5545, 3.3.10). */
enum Frequency: string
{
    case Yearly = 'YEARLY';
    case Monthly = 'MONTHLY';
    case Weekly = 'WEEKLY';
    case Daily = 'DAILY';
    case Hourly = 'HOURLY';
    case Minutely = 'MINUTELY';
    case Secondly = 'SECONDLY';

    /** Seconds of one round on the clock; null where it is counted in days or more. */
    public function seconds(): ?int
    {
        return match ($this) {
            self::Hourly => 3600,
            self::Minutely => 60,
            self::Secondly => 1,
            default => null,
        };
    }
}
