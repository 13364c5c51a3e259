<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Document\Csv;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** What plays by a schedule in a span, on the whole display and in each zone that has bookings, as a table (CSV). */
final readonly class PlanText
{
    public const HEAD = ['display', 'zone', 'from', 'to', 'time zone', 'from UTC', 'to UTC', 'plays', 'booking', 'why'];

    /**
     * @param string $display its name; empty where the schedule stands on none
     * @param array<string, string> $names of what is booked, by its key
     * @param int $fromMs Unix ms
     */
    public static function of(Schedule $schedule, WallClock $clock, int $fromMs, int $toMs, string $display, array $names): string
    {
        $rows = [];
        foreach ([null, ...$schedule->zonesBooked()] as $zone) {
            foreach (Plays::of($schedule, $clock, $fromMs, $toMs, $zone)->pieces as $play) {
                $rows[] = [
                    $display,
                    $zone ?? '',
                    $clock->shown($play->fromMs),
                    $clock->shown($play->toMs),
                    $clock->timezone,
                    (string) Instant::ofMs($play->fromMs),
                    (string) Instant::ofMs($play->toMs),
                    $play->plays === null ? '' : $names[$play->plays->key()] ?? $play->plays->id,
                    $play->booking->name ?? '',
                    $zone !== null && $play->plays === null ? 'its own list' : $play->why(),
                ];
            }
        }

        return Csv::text(self::HEAD, $rows);
    }
}
