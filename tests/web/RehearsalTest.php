<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalDays;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** A rehearsal reads the days that the core tells, and lays its pictures out at even steps. */
final class RehearsalTest extends TestCase
{
    public function testATypedTimeIsTheInstantThatTheClockOnTheWallShowsFirst(): void
    {
        [$calls, $want] = [[], []];
        $europe = ['2026-03-29', '2026-10-25'];
        $nights = ['Europe/Lisbon' => $europe, 'Atlantic/Azores' => $europe, 'Australia/Lord_Howe' => ['2026-04-05', '2026-10-04'], 'Asia/Kolkata' => ['2026-10-25']];
        foreach ($nights as $zone => $dates) {
            $clock = WallClock::in($zone);
            foreach ($dates as $date) {
                $midnight = LocalTime::parse("{$date}T00:00:00")->seconds;
                $days = LocalDays::of($clock, 1000 * $clock->utcOrBefore($midnight - 86_400), 1000 * $clock->utcOrBefore($midnight + 2 * 86_400));
                for ($second = 0; $second < 86_400; $second += 421) {
                    $calls[] = ['instantAt', [$days, $date, $second]];
                    $utc = $clock->utc($midnight + $second);
                    // The Azores show midnight twice: a day begins with the first.
                    $want[] = $utc === null ? null : $utc * 1000;
                }
            }
        }
        $found = (new Module('Playback/rehearsal.ts'))->calls($calls);
        foreach ($want as $index => $ms) {
            self::assertSame($ms, $found[$index], sprintf('%s %d s', $calls[$index][1][1], $calls[$index][1][2]));
        }
        self::assertGreaterThan(5, count(array_filter($want, static fn (?int $ms): bool => $ms === null)), 'some times do not exist');
        self::assertNull((new Module('Playback/rehearsal.ts'))->call('instantAt', [], '2026-10-25', 0));
    }

    public function testADayIsAsManyPicturesAsThereIsRoomForAtWholeSteps(): void
    {
        $from = Instant::parse('2026-10-25T00:00:00Z')->ms;
        $hours = static fn (int $hours): int => $hours * 3_600_000;
        $rehearsal = new Module('Playback/rehearsal.ts');
        foreach ([[24, 24, 24, 3_600_000], [24, 20, 12, 7_200_000], [25, 24, 13, 7_200_000], [3, 12, 12, 900_000], [24, 1, 1, 86_400_000]] as [$long, $room, $count, $step]) {
            $times = $rehearsal->call('pictureTimes', $from, $from + $hours($long), $room);
            self::assertIsArray($times);
            self::assertSame([$count, $from, $from + $step * ($count - 1)], [count($times), $times[0], $times[$count - 1]], "$long h with room for $room");
        }
        self::assertCount(10, (array) $rehearsal->call('pictureTimes', 0, 10_000, 12), 'ten seconds, second by second');
    }
}
