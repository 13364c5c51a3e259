<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

/** The days of a span as a clock on the wall counts them: 23, 24 or 25 hours each. */
final readonly class LocalDays
{
    /**
     * @param int $fromMs Unix ms
     * @return list<array{date: string, from: string, to: string, steps: list<array{int, int}>}> steps: from so many ms into the day the clock
     *     shows so many minutes since midnight, and goes on from there
     */
    public static function of(WallClock $clock, int $fromMs, int $toMs): array
    {
        $days = [];
        $first = LocalTime::ofSeconds($clock->local((int) floor($fromMs / 1000)))->day();
        $last = LocalTime::ofSeconds($clock->local((int) ceil($toMs / 1000) - 1))->day();
        for ($day = $first; $day <= $last; $day++) {
            $begin = $clock->utcOrBefore($day * Calendar::DAY_S);
            $end = $clock->utcOrBefore(($day + 1) * Calendar::DAY_S);
            $steps = [[0, intdiv($clock->local($begin) - $day * Calendar::DAY_S, 60)]];
            foreach ($clock->changes($begin + 1, $end) as $change) {
                $steps[] = [($change - $begin) * 1000, intdiv($clock->local($change) - $day * Calendar::DAY_S, 60)];
            }
            $days[] = [
                'date' => substr((string) LocalTime::ofSeconds($day * Calendar::DAY_S), 0, 10),
                'from' => (string) Instant::ofMs($begin * 1000),
                'to' => (string) Instant::ofMs($end * 1000),
                'steps' => $steps,
            ];
        }

        return $days;
    }
}
