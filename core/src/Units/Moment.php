<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

/** Instants as data write them (RFC 3339), which is more than documents of our own do. */
final readonly class Moment
{
    private const PATTERN = '/^(\d{4})-(\d\d)-(\d\d)[Tt](\d\d):(\d\d):(\d\d)(?:\.(\d+))?([Zz]|[+-]\d\d:\d\d)$/D';

    /** Null for what is none. Digits beyond milliseconds are cut; a leap second is the second after it. */
    public static function ofRfc3339(string $text): ?Instant
    {
        if (strlen($text) < 20 || preg_match(self::PATTERN, $text, $m) !== 1) {
            return null;
        }
        [$year, $month, $day, $hour, $minute, $second] = [(int) $m[1], (int) $m[2], (int) $m[3], (int) $m[4], (int) $m[5], (int) $m[6]];
        $zone = $m[8];
        $offset = strtolower($zone) === 'z' ? 0 : ($zone[0] === '-' ? -60 : 60) * ((int) substr($zone, 1, 2) * 60 + (int) substr($zone, 4));
        if (!self::isDay($year, $month, $day) || $hour > 23 || $minute > 59 || $second > 60 || (int) substr($zone, 1, 2) > 23 || (int) substr($zone, 4) > 59) {
            return null;
        }
        $seconds = Calendar::day($year, $month, $day) * Calendar::DAY_S + $hour * 3600 + $minute * 60 + $second - $offset;

        return Instant::ofMs($seconds * 1000 + (int) str_pad(substr($m[7], 0, 3), 3, '0'));
    }

    /** Whether there is such a day, of the years 0 to 9999 of the Gregorian calendar. */
    public static function isDay(int $year, int $month, int $day): bool
    {
        // The year 0 is a leap year, as 400 is.
        return $month >= 1 && $month <= 12 && $day >= 1 && checkdate($month, $day, $year === 0 ? 400 : $year);
    }
}
