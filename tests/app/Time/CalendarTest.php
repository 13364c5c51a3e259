<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Time;

use PHPUnit\Framework\TestCase;
use UpperPane\App\Time\CalendarReader;
use UpperPane\Core\Document\CalendarRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Time\Schedule\CalendarText;
use UpperPane\Core\Time\Schedule\Schedule;

/** Calendars of others brought in as bookings, and ours out and in again. */
final class CalendarTest extends TestCase
{
    public function testWhatIsWrittenComesBackAsItWas(): void
    {
        $document = ['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'Cais, Saltgate; "week"', 'timezone' => 'Europe/Lisbon', 'bookings' => [
            [
                'id' => 'a', 'name' => str_repeat('Partida às oito, já; ', 8), 'plays' => ['playlist' => 'round'], 'zone' => 'foot', 'rank' => 'takeover', 'start' => '2026-06-01T08:00:00',
                'end' => '2026-06-01T09:30:00', 'rrule' => 'FREQ=WEEKLY;BYDAY=MO,WE', 'exdates' => ['2026-06-03T08:00:00'], 'rdates' => ['2026-06-06T10:00:00'],
                'from' => '2026-05-01T00:00:00', 'until' => '2026-12-01T00:00:00', 'created' => '2026-05-01T10:00:00Z',
            ],
            ['id' => 'b', 'name' => 'Night', 'plays' => ['media' => 'quay'], 'rank' => 'everyday', 'start' => '2026-06-01T22:00:00', 'end' => '2026-06-02T06:00:00', 'rrule' => 'FREQ=DAILY'],
        ]];
        $text = CalendarText::of(Schedule::fromArray($document), 'Europe/Lisbon');
        foreach (explode("\r\n", $text) as $line) {
            self::assertLessThanOrEqual(75, strlen($line), 'RFC 5545, 3.1');
            self::assertTrue(mb_check_encoding($line, 'UTF-8'), $line);
        }
        $read = CalendarReader::read($text, 'Europe/Lisbon', ['layout' => 'x']);
        $trimmed = static fn (mixed $value): mixed => is_string($value) ? trim($value) : $value;
        $want = array_map(static fn (array $booking): array => array_map($trimmed, array_diff_key($booking, ['id' => 1])), $document['bookings']);
        self::assertEquals($want, $read['bookings']);
        self::assertSame([], $read['notes']);
    }

    public function testAWholeDayMeansTheStartsThatItLeavesOut(): void
    {
        $document = ['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'bookings' => [[
            'id' => 'a', 'plays' => ['layout' => 'x'], 'rank' => 'everyday', 'start' => '2026-06-01T08:00:00', 'end' => '2026-06-01T09:00:00',
            'rrule' => 'FREQ=DAILY;BYHOUR=8,20', 'exdates' => ['2026-06-03'],
        ]]];
        self::assertStringContainsString("EXDATE;TZID=Atlantic/Azores:20260603T080000,20260603T200000\r\n", CalendarText::of(Schedule::fromArray($document), 'Atlantic/Azores'));
    }

    /** One event that cannot be read is told and never loses the others; when it was made is no reason. */
    public function testOddValuesAreToldAndTheOthersKept(): void
    {
        $event = static fn (string $uid, string ...$lines): string => "BEGIN:VEVENT\nUID:$uid\nSUMMARY:$uid\n" . implode("\n", $lines) . "\nEND:VEVENT\n";
        $start = 'DTSTART:20260601T080000';
        foreach (['99999999T999999', 'P', 'abc', '00000000T000000', "P99999999999999D", '-P1D', '2026-11-27T08:00:00', 'PT', '20260230T000000', str_repeat('9', 300)] as $odd) {
            foreach (['', ';VALUE=DATE', ';TZID=Nowhere/None', ';VALUE=PERIOD'] as $how) {
                $read = self::read($event('made', $start, 'DURATION:PT1H', "CREATED$how:$odd") . $event('long', $start, "DURATION$how:$odd") . $event('odd', "DTSTART$how:$odd", 'DURATION:PT1H'));
                self::assertSame('made', $read['bookings'][0]['name'], "$how $odd");
                self::assertSame('2026-06-01T09:00:00', $read['bookings'][0]['end'], "$how $odd");
                self::assertGreaterThanOrEqual(2, count($read['bookings']) + count($read['notes']), "$how $odd");
                self::assertJson(json_encode($read, JSON_THROW_ON_ERROR));
            }
        }
        foreach (["BEGIN:VCALENDAR\nDESCRIPTION:\xE9\nEND:VCALENDAR\n", "BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART;ENCODING=QUOTED-PRINTABLE:2026\nEND:VEVENT\nEND:VCALENDAR\n"] as $wrong) {
            try {
                CalendarReader::read($wrong, 'UTC', ['layout' => 'x']);
                self::fail('It was read.');
            } catch (CalendarRefused $e) {
                self::assertSame([Reason::CalendarSyntax, '/calendar'], [$e->reason, $e->path]);
            }
        }
    }

    public function testMovedOccurrencesOfASeriesThatStandsAnywhere(): void
    {
        $moved = static fn (int $n): string => "BEGIN:VEVENT\nUID:u\nSUMMARY:m\nDTSTART:20260602T100000\nDTEND:20260602T110000\n"
            . 'RECURRENCE-ID:' . gmdate('Ymd', 1_780_272_000 + $n * 86_400) . "T080000\nEND:VEVENT\n";
        $series = "BEGIN:VEVENT\nUID:u\nSUMMARY:s\nDTSTART:20260601T080000\nDTEND:20260601T090000\nRRULE:FREQ=DAILY\nEND:VEVENT\n";
        $read = self::read($moved(0) . $series . implode('', array_map($moved, range(1, 1500))));
        self::assertCount(1501, $read['bookings'][1]['exdates']);
        self::assertSame('2026-06-01T08:00:00', $read['bookings'][1]['exdates'][0]);
        self::assertArrayNotHasKey('exdates', $read['bookings'][0]);
    }

    public function testFloatingAllDayUtcAndOtherZones(): void
    {
        $read = self::read(
            "BEGIN:VEVENT\nUID:1\nSUMMARY:Floating\nDTSTART:20260601T080000\nDURATION:PT90M\nEND:VEVENT\n"
            . "BEGIN:VEVENT\nUID:2\nSUMMARY:All day\nDTSTART;VALUE=DATE:20261225\nEND:VEVENT\n"
            . "BEGIN:VEVENT\nUID:3\nSUMMARY:Utc\nDTSTART:20260601T080000Z\nDTEND:20260601T090000Z\nEND:VEVENT\n"
            . "BEGIN:VEVENT\nUID:4\nSUMMARY:There\nDTSTART;TZID=America/New_York:20260601T080000\nDTEND;TZID=America/New_York:20260601T090000\nRRULE:FREQ=DAILY\nEND:VEVENT\n"
            . "BEGIN:VEVENT\nUID:5\nSUMMARY:Renamed\nDTSTART;TZID=Our office:20260601T080000\nDTEND;TZID=Our office:20260601T090000\nEND:VEVENT\n"
            . "BEGIN:VTIMEZONE\nTZID:Our office\nX-LIC-LOCATION:Atlantic/Azores\nBEGIN:STANDARD\nDTSTART:20251026T010000\nTZOFFSETFROM:+0000\nTZOFFSETTO:-0100\nEND:STANDARD\nEND:VTIMEZONE\n",
        );
        self::assertSame([
            ['2026-06-01T08:00:00', '2026-06-01T09:30:00', 'dated'], ['2026-12-25T00:00:00', '2026-12-26T00:00:00', 'dated'], ['2026-06-01T09:00:00', '2026-06-01T10:00:00', 'dated'],
            ['2026-06-01T13:00:00', '2026-06-01T14:00:00', 'everyday'], ['2026-06-01T09:00:00', '2026-06-01T10:00:00', 'dated'],
        ], array_map(static fn (array $one): array => [$one['start'], $one['end'], $one['rank']], $read['bookings']));
        self::assertContains('"There" is in the time of America/New_York: it begins at the same instant, and comes again by the clock of Europe/Lisbon.', $read['notes']);
        self::assertContains('The time zone "Our office" is not known by that name; it is taken for Atlantic/Azores.', $read['notes']);
    }

    public function testAMovedOccurrenceStandsInThePlaceOfItsOwn(): void
    {
        $read = self::read(
            "BEGIN:VEVENT\nUID:1\nSUMMARY:Series\nDTSTART;TZID=Europe/Lisbon:20260601T080000\nDTEND;TZID=Europe/Lisbon:20260601T090000\nRRULE:FREQ=DAILY;COUNT=5\nEND:VEVENT\n"
            . "BEGIN:VEVENT\nUID:1\nSUMMARY:Moved\nRECURRENCE-ID;TZID=Europe/Lisbon:20260603T080000\n"
            . "DTSTART;TZID=Europe/Lisbon:20260603T110000\nDTEND;TZID=Europe/Lisbon:20260603T120000\nEND:VEVENT\n",
        );
        self::assertSame([['2026-06-03T08:00:00'], '2026-06-03T11:00:00'], [$read['bookings'][0]['exdates'], $read['bookings'][1]['start']]);
    }

    public function testWhatCannotBeTakenIsToldAndTheRestIs(): void
    {
        $read = self::read(
            "BEGIN:VEVENT\nUID:1\nSUMMARY:Backwards\nDTSTART:20260601T080000\nDTEND:20260601T070000\nEND:VEVENT\n"
            . "BEGIN:VEVENT\nUID:2\nSUMMARY:Never\nDTSTART:20260601T080000\nDTEND:20260601T090000\nRRULE:FREQ=SOMETIMES\nEND:VEVENT\n"
            . "BEGIN:VEVENT\nUID:3\nSUMMARY:Started not\nEND:VEVENT\nBEGIN:VEVENT\nUID:4\nDTSTART:20260601T080000\nDTEND:20260601T090000\nEND:VEVENT\n",
        );
        self::assertSame(['Event 4'], array_column($read['bookings'], 'name'));
        self::assertCount(3, $read['notes']);
        foreach (['', 'not a calendar', "BEGIN:VCARD\nEND:VCARD\n"] as $text) {
            try {
                CalendarReader::read($text, 'UTC', ['layout' => 'x']);
                self::fail('It was read.');
            } catch (Refused $e) {
                self::assertSame('calendar.syntax', $e->reason->value);
            }
        }
    }

    public function testFiveThousandEventsAreReadAndMoreAreRefused(): void
    {
        $events = static fn (int $count): string => implode('', array_map(
            static fn (int $n): string => "BEGIN:VEVENT\nUID:$n\nSUMMARY:N $n\nDTSTART;TZID=Europe/Lisbon:20260601T080000\nDTEND;TZID=Europe/Lisbon:20260601T090000\nRRULE:FREQ=DAILY\nEND:VEVENT\n",
            range(1, $count),
        ));
        self::assertCount(5000, self::read($events(5000))['bookings']);
        $this->expectExceptionMessage('The calendar has 5,001 events; a schedule has at most 5,000.');
        self::read($events(5001));
    }

    /** @return array{bookings: list<array<string, mixed>>, notes: list<string>} */
    private static function read(string $events): array
    {
        return CalendarReader::read("BEGIN:VCALENDAR\nVERSION:2.0\n{$events}END:VCALENDAR\n", 'Europe/Lisbon', ['layout' => 'x']);
    }
}
