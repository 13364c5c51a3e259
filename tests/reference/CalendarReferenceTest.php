<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Time\Schedule\CalendarText;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** A schedule written as iCalendar, read back by python's icalendar and dateutil (Debian) with the time zone that stands in the file. */
final class CalendarReferenceTest extends TestCase
{
    public function testOthersReadTheSameInstants(): void
    {
        $booking = static fn (string $id, string $start, string $end, mixed ...$more): array => [
            'id' => $id, 'name' => "Booking $id, ü; é", 'plays' => ['layout' => 'x'], 'rank' => 'weekly', 'start' => $start, 'end' => $end,
        ] + $more;
        $document = ['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'Week', 'timezone' => 'UTC', 'bookings' => [
            $booking('once', '2026-10-24T22:00:00', '2026-10-25T06:00:00'),
            $booking('daily', '2026-10-01T08:00:00', '2026-10-01T20:00:00', rrule: 'FREQ=DAILY', exdates: ['2026-10-26', '2026-10-28T08:00:00'], rdates: ['2026-10-26T10:00:00']),
            $booking('night', '2026-03-20T00:30:00', '2026-03-20T01:15:00', rrule: 'FREQ=DAILY;UNTIL=20261101T120000'),
            $booking('weekly', '2026-03-02T17:00:00', '2026-03-02T19:00:00', rrule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,FR;COUNT=40'),
            $booking('last', '2026-01-25T09:00:00', '2026-01-25T11:00:00', rrule: 'FREQ=MONTHLY;BYDAY=-1SU'),
        ]];
        $schedule = Schedule::fromArray($document);
        foreach (['Europe/Lisbon', 'Atlantic/Azores', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kolkata', 'UTC'] as $zone) {
            $file = (string) tempnam(sys_get_temp_dir(), 'ics');
            file_put_contents($file, CalendarText::of($schedule, $zone));
            $read = json_decode((string) shell_exec('/usr/bin/python3 ' . escapeshellarg(__DIR__ . '/recurrence/read_calendar.py') . " $file 2026-02-01T00:00:00Z 2027-02-01T00:00:00Z"), true);
            unlink($file);
            self::assertIsArray($read, $zone);
            $clock = WallClock::in($zone);
            $written = static fn (int $utc): string => gmdate('Y-m-d\TH:i:s\Z', $utc);
            $from = LocalTime::parse('2026-02-01T00:00')->seconds;
            foreach ($schedule->bookings as $one) {
                $ours = array_map(
                    static fn (array $span): array => [$written($span[0]), $written($span[1])],
                    array_values(array_filter($one->occurrences($clock, $from, LocalTime::parse('2027-02-01T00:00')->seconds), static fn (array $span): bool => $span[0] >= $from)),
                );
                self::assertNotEmpty($ours, "$zone $one->id");
                self::assertSame($ours, $read["$one->id@s"], "$zone $one->id");
            }
        }
    }
}
