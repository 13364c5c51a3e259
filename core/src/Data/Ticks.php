<?php

declare(strict_types=1);

namespace UpperPane\Core\Data;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;

/** Where an axis is marked: at multiples of 1, 2 or 5 times a power of ten. */
final readonly class Ticks
{
    /** More marks than that nobody can read. */
    public const MOST = 1_000;

    /**
     * @param int $count how many are wanted, about
     * @return list<int|float>
     * @throws DocumentRefused where the range is empty, or no marks are wanted
     */
    public static function of(float $from, float $to, int $count): array
    {
        self::hold($from, $to, $count);
        [$factor, $power] = self::step($from, $to, $count);
        $ticks = [];
        // Multiples are counted in whole steps; below 1 by dividing, since a power of ten below 1 is no double.
        $steps = static fn (float $value): float => $power < 0 ? $value * 10 ** -$power / $factor : $value / ($factor * 10 ** $power);
        for ($n = (int) ceil(self::tidy($steps($from))), $last = (int) floor(self::tidy($steps($to))); $n <= $last; $n++) {
            $tick = $power < 0 ? $n * $factor / 10 ** -$power : $n * $factor * 10 ** $power;
            $ticks[] = self::whole(self::tidy($tick));
        }

        return $ticks;
    }

    /**
     * An axis that is open on a side reaches outwards to a mark.
     *
     * @return array{float, float} from, to
     * @throws DocumentRefused
     */
    public static function axis(?float $from, ?float $to, float $least, float $greatest, int $count): array
    {
        [$begin, $end] = [$from ?? min(0.0, $least), $to ?? $greatest];
        if ($begin >= $end) {
            // All values are one and the same, or lie outside of the side that is stated.
            $to === null ? $end = $begin + 1.0 : $begin = $end - 1.0;
        }
        [$factor, $power] = self::step($begin, $end, $count);
        $step = $factor * 10.0 ** $power;

        return [$from ?? self::tidy(floor(self::tidy($begin / $step)) * $step), $to ?? self::tidy(ceil(self::tidy($end / $step)) * $step)];
    }

    /** @return array{int, int} 1, 2, 5 or 10, and the power of ten that it is taken of */
    private static function step(float $from, float $to, int $count): array
    {
        $step = ($to - $from) / $count;
        $power = (int) floor(log10($step));
        $rest = $step / 10.0 ** $power;

        return [$rest >= sqrt(50) ? 10 : ($rest >= sqrt(10) ? 5 : ($rest >= sqrt(2) ? 2 : 1)), $power];
    }

    /** @throws DocumentRefused */
    private static function hold(float $from, float $to, int $count): void
    {
        if (!is_finite($from) || !is_finite($to) || $from >= $to) {
            throw DocumentRefused::because(Reason::ValueRange, sprintf('An axis from %s to %s has no length; the second figure is above the first.', $from, $to), '/to');
        }
        if ($count < 1 || $count > self::MOST) {
            throw DocumentRefused::because(Reason::ValueRange, sprintf('An axis with %d ticks is none; 1 to %d are right.', $count, self::MOST), '/count');
        }
    }

    /** To 12 digits. */
    private static function tidy(float $value): float
    {
        return (float) sprintf('%.11e', $value);
    }

    private static function whole(float $value): int|float
    {
        return floor($value) === $value && abs($value) < 2 ** 53 ? (int) $value : $value;
    }
}
