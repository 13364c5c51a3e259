<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

/** The Gregorian calendar in whole days since 1970-01-01 (day 0), in both directions. Weekdays: 0 Monday to 6 Sunday (ISO 8601). */
final readonly class Calendar
{
    public const DAY_S = 86_400;
    public const DAY_MS = 86_400_000;

    /** Days before each month of a common year. */
    private const BEFORE = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334, 365];

    public static function isLeap(int $year): bool
    {
        return $year % 4 === 0 && ($year % 100 !== 0 || $year % 400 === 0);
    }

    public static function daysInYear(int $year): int
    {
        return self::isLeap($year) ? 366 : 365;
    }

    /** @param int $month 1 to 12 */
    public static function daysInMonth(int $year, int $month): int
    {
        return self::BEFORE[$month] - self::BEFORE[$month - 1] + ($month === 2 && self::isLeap($year) ? 1 : 0);
    }

    /** Day number of the first of January. */
    public static function newYear(int $year): int
    {
        $before = $year - 1;

        return 365 * ($year - 1970) + intdiv($before, 4) - intdiv($before, 100) + intdiv($before, 400) - 477;
    }

    /** Day number of a date that exists. */
    public static function day(int $year, int $month, int $day): int
    {
        return self::newYear($year) + self::BEFORE[$month - 1] + ($month > 2 && self::isLeap($year) ? 1 : 0) + $day - 1;
    }

    /** The year that a day number lies in: 1 to 9999. */
    public static function year(int $day): int
    {
        $year = 1970 + (int) floor($day / 365.2425);
        while (self::newYear($year) > $day) {
            $year--;
        }
        while (self::newYear($year + 1) <= $day) {
            $year++;
        }

        return $year;
    }

    /** @return array{int, int, int} year, month, day of the month */
    public static function date(int $day): array
    {
        $year = self::year($day);
        $ofYear = $day - self::newYear($year);
        $leap = self::isLeap($year) ? 1 : 0;
        $month = min(12, intdiv($ofYear, 29) + 1);
        while ($ofYear < self::BEFORE[$month - 1] + ($month > 2 ? $leap : 0)) {
            $month--;
        }

        return [$year, $month, $ofYear - self::BEFORE[$month - 1] - ($month > 2 ? $leap : 0) + 1];
    }

    public static function weekday(int $day): int
    {
        return Integers::mod($day + 3, 7);
    }
}
