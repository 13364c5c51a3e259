<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

/** What the number format of a cell makes of its number (ECMA-376, 18.8.30 and 18.8.31). A stretch of time, [h]:mm, stays a number of days. */
enum SheetFormat
{
    case Number;
    case Date;
    case Time;
    case Both;

    private const DAY_S = 86_400;

    /** The last day of the year 9999. */
    private const LATEST = 2_958_466;

    /** The formats that every workbook has; 27 to 36 and 50 to 58 are dates in East Asian ones. */
    public static function ofId(int $id): self
    {
        return match (true) {
            $id >= 14 && $id <= 17, $id >= 27 && $id <= 31, $id === 36, $id >= 50 && $id <= 58 => self::Date,
            $id >= 18 && $id <= 21, $id >= 32 && $id <= 35, $id === 45, $id === 47 => self::Time,
            $id === 22 => self::Both,
            default => self::Number,
        };
    }

    public static function ofCode(string $code): self
    {
        // Words in quotes, signs behind a backslash or an underscore, colours and conditions in brackets mean nothing here.
        $bare = strtolower((string) preg_replace(['/"[^"]*"?/', '/[\\\\_*]./us', '/\[(?![hms]+\])[^\]]*\]/i', '/;.*/s', '~am/pm|a/p~i', '/general/i'], ['', '', '', '', 'h', ''], $code));
        if (preg_match('/\[[hms]+\]/', $bare) === 1) {
            return self::Number;
        }
        preg_match_all('/y+|m+|d+|h+|s+/', $bare, $m);
        $letters = array_map(static fn (string $run): string => $run[0], $m[0]);
        $hasDate = $hasTime = false;
        foreach ($letters as $place => $letter) {
            // An m is a minute behind an hour or before a second.
            $isMinute = $letter === 'm' && strlen($m[0][$place]) < 3 && (($letters[$place - 1] ?? '') === 'h' || ($letters[$place + 1] ?? '') === 's');
            $isTime = $letter === 'h' || $letter === 's' || $isMinute;
            $hasTime = $hasTime || $isTime;
            $hasDate = $hasDate || !$isTime;
        }

        return $hasDate ? ($hasTime ? self::Both : self::Date) : ($hasTime ? self::Time : self::Number);
    }

    /**
     * @param float $number days since the last day of 1899, or the first of 1904
     * @return int|float|string
     */
    public function told(float $number, bool $isFrom1904): int|float|string
    {
        if ($this === self::Number || $number < 0 || $number >= self::LATEST) {
            return floor($number) === $number && abs($number) < 9e15 ? (int) $number : $number;
        }
        $seconds = (int) round($number * self::DAY_S);
        $time = gmdate('H:i:s', $seconds % self::DAY_S);
        if ($this === self::Time || ($number < 1.0 && $this === self::Both)) {
            return $time;
        }
        // A day is not rounded up where only it is told. The first two months of 1900 count a 29 February that was none before them.
        $day = $this === self::Date ? (int) floor($number) : intdiv($seconds, self::DAY_S);
        $day += $isFrom1904 ? 1_462 : ($day < 60 ? 1 : 0);
        $date = gmdate('Y-m-d', ($day - 25_569) * self::DAY_S);

        return $this === self::Date ? $date : "{$date}T$time";
    }
}
