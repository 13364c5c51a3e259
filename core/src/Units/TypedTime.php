<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;

/** How long something lasts, as people type it: `8`, `8.5`, `8,5 s`, `2m`, `1 h 5 min`, `0:08`, `1:02:03`. A figure alone is seconds. */
final readonly class TypedTime
{
    private const UNITS_MS = ['ms' => 1, 's' => 1000, 'sec' => 1000, 'm' => 60_000, 'min' => 60_000, 'h' => 3_600_000, 'd' => 86_400_000];
    private const LARGEST_MS = 1 << 40;

    /**
     * @return int ms, at least 1, halves rounded up
     * @throws DocumentRefused with what would be right
     */
    public static function ms(string $text, string $path = '/typed'): int
    {
        $typed = strtolower(trim(strtr($text, ',', '.')));
        $ms = self::byColons($typed) ?? self::byUnits($typed);
        if ($ms === null) {
            throw self::refused($text, 'that is no time', $path);
        }
        $whole = floor(round($ms, 3) + 0.5);
        if ($whole < 1 || $whole > self::LARGEST_MS) {
            throw self::refused($text, $whole < 1 ? 'nothing lasts so short' : 'that is longer than anything lasts', $path);
        }

        return (int) $whole;
    }

    /** `m:ss`, `h:mm:ss`: all but the first have two figures, below 60. */
    private static function byColons(string $typed): ?float
    {
        if (preg_match('/^(?:(\d{1,4}):)?(\d{1,4}):(\d{2}(?:\.\d+)?)$/D', $typed, $m, PREG_UNMATCHED_AS_NULL) !== 1) {
            return null;
        }
        [, $hours, $minutes, $seconds] = $m;
        if ((float) $seconds >= 60 || ($hours !== null && (strlen((string) $minutes) !== 2 || (int) $minutes >= 60))) {
            return null;
        }

        return (float) ((int) $hours * 3_600_000 + (int) $minutes * 60_000) + (float) $seconds * 1000;
    }

    /** Figures each with its unit, the larger one first; or one alone. */
    private static function byUnits(string $typed): ?float
    {
        if (preg_match('/^\d{0,9}(?:\.\d{1,6})?$/D', $typed) === 1 && $typed !== '' && $typed !== '.') {
            return (float) $typed * 1000;
        }
        if (preg_match('/^(?:\d{1,9}(?:\.\d{1,6})?\s*[a-z]+\s*)+$/D', $typed) !== 1) {
            return null;
        }
        preg_match_all('/(\d+(?:\.\d+)?)\s*([a-z]+)/', $typed, $found, PREG_SET_ORDER);
        [$ms, $before] = [0.0, PHP_INT_MAX];
        foreach ($found as [, $figure, $name]) {
            $unit = self::UNITS_MS[$name] ?? null;
            if ($unit === null || $unit >= $before) {
                return null;
            }
            $before = $unit;
            $ms += (float) $figure * $unit;
        }

        return $ms;
    }

    private static function refused(string $text, string $why, string $path): DocumentRefused
    {
        $shown = mb_strimwidth(trim($text), 0, 40, '...');

        return DocumentRefused::because(Reason::FigureSyntax, sprintf('%s: %s. 8, 8.5 s, 2m, 1 h 5 min and 0:08 are right.', $shown === '' ? 'Nothing is typed' : "\"$shown\"", $why), $path);
    }
}
