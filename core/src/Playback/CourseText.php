<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Document\Csv;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** All changes of a span on displays, each in its own time, as a table (CSV). */
final readonly class CourseText
{
    public const HEAD = ['display', 'zone', 'from', 'to', 'time zone', 'from UTC', 'to UTC', 'kind', 'plays', 'booking', 'why'];

    /** @param iterable<array{string, WallClock, Course}> $courses the name of the display, the clock on its wall, and what changes there */
    public static function of(iterable $courses): string
    {
        $rows = [];
        foreach ($courses as [$display, $clock, $course]) {
            foreach ($course->stretches as $one) {
                $rows[] = [
                    $display,
                    $one->zone ?? '',
                    $clock->shown($one->fromMs),
                    $clock->shown($one->toMs),
                    $clock->timezone,
                    (string) Instant::ofMs($one->fromMs),
                    (string) Instant::ofMs($one->toMs),
                    $one->kind,
                    $one->name,
                    $one->booking ?? '',
                    $one->why,
                ];
            }
        }

        return Csv::text(self::HEAD, $rows);
    }
}
