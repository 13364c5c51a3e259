<?php

declare(strict_types=1);

namespace UpperPane\Core\Recurrence;

use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Integers;

/**
 * The seconds of a day on which a rule falls.
 *
 * Of a daily or rarer rule they are the same on every day; of a finer one they depend on where the day lies in its interval.
 */
final class RuleTimes
{
    /** @var array<int, list<int>> seconds of the day, by where the day's first round lies in the interval */
    private array $byPhase = [];

    /** @var list<int> rounds of a day that the BY parts let through; null for all */
    private readonly ?array $rounds;

    /** @var list<int> seconds within a round */
    private readonly array $within;

    private readonly int $unit;
    private readonly int $first;

    /** @param int $start DTSTART, s on the local clock */
    public function __construct(private readonly Rule $rule, int $start)
    {
        $unit = $rule->frequency->seconds();
        $this->unit = $unit ?? Calendar::DAY_S;
        $this->first = intdiv($start - Integers::mod($start, $this->unit), $this->unit);
        $ofDay = Integers::mod($start, Calendar::DAY_S);
        $hours = $unit === null ? ($rule->byHour ?: [intdiv($ofDay, 3600)]) : ($rule->byHour ?: range(0, 23));
        $minutes = $unit === null || $unit === 3600 ? ($rule->byMinute ?: [intdiv($ofDay, 60) % 60]) : ($rule->byMinute ?: range(0, 59));
        $seconds = $unit === 1 ? $rule->bySecond : ($rule->bySecond ?: [$ofDay % 60]);
        $limited = $rule->byHour !== [] || ($unit !== 3600 && $rule->byMinute !== []) || ($unit === 1 && $rule->bySecond !== []);
        [$this->rounds, $within] = match ($unit) {
            3600 => [$limited ? $hours : null, self::sums($minutes, 60, $seconds)],
            60 => [$limited ? self::sums($hours, 60, $minutes) : null, $seconds],
            1 => [$limited ? self::sums(self::sums($hours, 60, $minutes), 60, $seconds ?: range(0, 59)) : null, [0]],
            default => [[0], self::sums(self::sums($hours, 60, $minutes), 60, $seconds)],
        };
        $this->within = $unit === null ? $within : self::chosen($within, $rule->bySetPos);
    }

    /** @return list<int> seconds of that day, rising */
    public function on(int $day): array
    {
        if ($this->unit === Calendar::DAY_S) {
            return $this->within;
        }
        $phase = Integers::mod($this->first - $day * intdiv(Calendar::DAY_S, $this->unit), $this->rule->interval);

        return $this->byPhase[$phase] ??= $this->workedOut($phase);
    }

    /** Whether BYSETPOS is already done with, within the rounds of a day. */
    public function isChosen(): bool
    {
        return $this->unit !== Calendar::DAY_S;
    }

    /** Whether the rule falls on the same seconds of every day. */
    public function isDaily(): bool
    {
        return intdiv(Calendar::DAY_S, $this->unit) % $this->rule->interval === 0 || $this->unit === Calendar::DAY_S;
    }

    /**
     * @template T
     * @param list<T> $set
     * @param list<int> $positions from 1, or from -1 at the end; none for all
     * @return list<T>
     */
    public static function chosen(array $set, array $positions): array
    {
        if ($positions === []) {
            return $set;
        }
        $chosen = [];
        foreach ($positions as $position) {
            $index = $position > 0 ? $position - 1 : count($set) + $position;
            if (isset($set[$index])) {
                $chosen[$index] = $set[$index];
            }
        }
        ksort($chosen);

        return array_values($chosen);
    }

    /** @return list<int> */
    private function workedOut(int $phase): array
    {
        $count = intdiv(Calendar::DAY_S, $this->unit);
        $interval = $this->rule->interval;
        $rounds = [];
        if ($this->rounds !== null && count($this->rounds) <= intdiv($count, $interval) + 1) {
            foreach ($this->rounds as $round) {
                if ($round % $interval === $phase % $interval) {
                    $rounds[] = $round;
                }
            }
        } else {
            $let = $this->rounds === null ? null : array_flip($this->rounds);
            for ($round = $phase; $round < $count; $round += $interval) {
                if ($let === null || isset($let[$round])) {
                    $rounds[] = $round;
                }
            }
        }

        return self::sums($rounds, $this->unit, $this->within);
    }

    /**
     * @param list<int> $large
     * @param list<int> $small below $times
     * @return list<int> each of the large ones times that, with each of the small ones
     */
    private static function sums(array $large, int $times, array $small): array
    {
        $sums = [];
        foreach ($large as $one) {
            foreach ($small as $other) {
                $sums[] = $one * $times + $other;
            }
        }

        return $sums;
    }
}
