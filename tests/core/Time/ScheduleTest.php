<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Time\Schedule\Play;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Schedule\ScheduleChecks;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

/** What really plays, by bookings, ranks and standby. */
final class ScheduleTest extends TestCase
{
    private const DAY = ['plays' => ['layout' => 'day'], 'rank' => 'everyday', 'start' => '2026-01-01T06:00:00', 'end' => '2026-01-01T22:00:00', 'rrule' => 'FREQ=DAILY'];

    public function testTheHigherRankGoesBeforeAndTheStandbyFillsTheRest(): void
    {
        $schedule = self::schedule([
            ['id' => 'storm', 'plays' => ['media' => 'storm.png'], 'rank' => 'takeover', 'start' => '2026-06-03T18:00:00', 'end' => '2026-06-03T18:30:00'],
            ['id' => 'feast', 'plays' => ['layout' => 'feast'], 'rank' => 'dated', 'start' => '2026-06-03T17:30:00', 'end' => '2026-06-03T23:00:00'],
            ['id' => 'evening', 'plays' => ['playlist' => 'evening'], 'rank' => 'weekly', 'start' => '2026-06-03T17:00:00', 'end' => '2026-06-03T19:00:00', 'rrule' => 'FREQ=WEEKLY;BYDAY=WE'],
            ['id' => 'day'] + self::DAY,
        ]);
        self::assertSame([
            '00:00 night', '06:00 day', '17:00 evening', '17:30 feast', '18:00 storm', '18:30 feast', '23:00 night',
        ], self::told($schedule, 'UTC', '2026-06-03T00:00:00Z', '2026-06-04T00:00:00Z'));
        self::assertSame(['00:00 night', '06:00 day', '17:00 evening', '19:00 day', '22:00 night'], self::told($schedule, 'UTC', '2026-06-10T00:00:00Z', '2026-06-11T00:00:00Z'));
    }

    public function testWithinARankTheLaterMadeGoesBeforeAndThenTheLaterListed(): void
    {
        $two = static fn (array $a, array $b): array => [['id' => 'day'] + $a + self::DAY, ['id' => 'other', 'plays' => ['layout' => 'other']] + $b + self::DAY];
        foreach (
            [
                'other' => $two([], []),
                'day' => $two(['created' => '2026-01-02T00:00:00Z'], ['created' => '2026-01-01T00:00:00Z']),
            ] as $first => $bookings
        ) {
            self::assertSame(["00:00 night", "06:00 $first", '22:00 night'], self::told(self::schedule($bookings), 'UTC', '2026-06-03T00:00:00Z', '2026-06-04T00:00:00Z'));
        }
    }

    public function testADayIsTwentyThreeOrTwentyFiveHoursOnTheOddNightsHereAndOnTheOtherIsland(): void
    {
        $schedule = self::schedule([[
            'id' => 'watch', 'plays' => ['layout' => 'watch'], 'rank' => 'everyday', 'start' => '2026-01-01T22:00:00', 'end' => '2026-01-02T06:00:00', 'rrule' => 'FREQ=DAILY',
        ]]);
        foreach (['Europe/Lisbon' => 0, 'Atlantic/Azores' => 1] as $zone => $behind) {
            // Both change at 01:00 UTC (zdump): from UTC+1 or UTC+0 in summer to an hour less.
            $long = self::plays($schedule, $zone, '2026-10-24T12:00:00Z', '2026-10-25T12:00:00Z')[1];
            self::assertSame([sprintf('2026-10-24T%02d:00:00Z', 21 + $behind), sprintf('2026-10-25T%02d:00:00Z', 6 + $behind), 9 * 3_600_000], [
                (string) Instant::ofMs($long->fromMs), (string) Instant::ofMs($long->toMs), $long->toMs - $long->fromMs,
            ]);
            $short = self::plays($schedule, $zone, '2026-03-28T12:00:00Z', '2026-03-29T12:00:00Z')[1];
            self::assertSame(7 * 3_600_000, $short->toMs - $short->fromMs);
        }
    }

    /** Within an occurrence it comes and goes with its rows, to the ms, and its loops count from the start of the occurrence all the same. */
    public function testABookingIsDueOnlyWhileItsRowsAreChosen(): void
    {
        $when = ['rows' => ['source' => 's', 'where' => [['field' => 'from', 'is' => 'upcoming', 'to_min' => 60]]]];
        $schedule = self::schedule([['id' => 'soon', 'when' => $when] + self::DAY, ['id' => 'none', 'when' => ['at_most' => 0] + $when, 'rank' => 'everyday'] + self::DAY]);
        $feeds = Make::fed([['from' => '2026-06-03T07:30:00.250Z'], ['from' => '2026-06-03T08:00:00Z'], ['from' => '2026-06-03T12:00:00Z']]);
        $fed = Composer::over(null, (new Surroundings())->fed($feeds))->schedule($schedule);
        $pieces = self::plays($fed, 'UTC', '2026-06-03T05:00:00Z', '2026-06-03T13:00:00Z');
        self::assertSame([
            ['05:00:00', null],
            ['06:00:00', 'none'],
            ['06:30:00.250', 'soon'],
            ['08:00:00', 'none'],
            ['11:00:00', 'soon'],
            ['12:00:00', 'none'],
        ], array_map(static fn (Play $play): array => [substr((string) Instant::ofMs($play->fromMs), 11, -1), $play->booking?->id], $pieces));
        self::assertSame('2026-06-03T06:00:00Z', (string) Instant::ofMs($pieces[4]->anchorMs));
        self::assertTrue($fed->looksAtData());

        // A source that is not there: found by checks, refused where that is asked for; a condition that nobody has worked out holds nothing back.
        $other = self::schedule([['id' => 'soon', 'when' => ['rows' => ['source' => 'other']]] + self::DAY]);
        $clock = WallClock::in('UTC');
        $found = ScheduleChecks::run(Composer::over(null, (new Surroundings())->fed($feeds))->schedule($other), $clock, 1_780_000_000_000, 1_780_600_000_000);
        self::assertContains('data.unknown', array_map(static fn (Finding $one): string => $one->code, $found->all));
        self::assertSame('soon', Plays::at($other, $clock, Instant::parse('2026-06-03T09:00:00Z')->ms)->booking?->id);
        try {
            Composer::over(null, (new Surroundings())->fed(Make::fed([], isStrict: true)))->schedule($other);
            self::fail('It was not refused.');
        } catch (Refused $e) {
            self::assertSame('/bookings/0/when/rows/source', $e->path);
        }
        // As many changes as that nobody can be told.
        $many = Make::fed(array_map(static fn (int $n): array => ['from' => (string) Instant::ofMs(1_780_000_000_000 + 4 * $n)], range(1, 200_000)));
        $flicker = self::schedule([['id' => 'f', 'when' => ['rows' => ['source' => 's', 'where' => [['field' => 'from', 'is' => 'upcoming', 'to_min' => 0.00003]]]]] + self::DAY]);
        $this->expectException(Refused::class);
        Plays::of(Composer::over(null, (new Surroundings())->fed($many))->schedule($flicker), $clock, 1_779_900_000_000, 1_780_100_000_000);
    }

    /** The property: the pieces tile the span, and at any instant it is the first of the ranked bookings that is due. */
    public function testNoHoleNoOverlapAndAtAnyInstantTheFirstThatIsDue(): void
    {
        $random = Make::random(31);
        $when = static fn (int $i): array => ['rows' => ['source' => 's', 'where' => [['field' => 'from', 'is' => 'upcoming', 'to_min' => 60 + $i]]], 'at_least' => 2];
        foreach (['Europe/Lisbon', 'Atlantic/Azores', 'Australia/Lord_Howe'] as $zone) {
            $bookings = [];
            $leaving = array_map(static fn (): int => Instant::parse(['2026-10-23T00:00:00Z', '2026-03-27T00:00:00Z'][$random->getInt(0, 1)])->ms + $random->getInt(0, 4 * 86_400_000), range(1, 150));
            for ($i = 0; $i < 14; $i++) {
                $hour = $random->getInt(0, 23);
                $start = sprintf('2026-%02d-%02dT%02d:%02d:00', [3, 4, 9, 10][$random->getInt(0, 3)], $random->getInt(20, 30), $hour, 15 * $random->getInt(0, 3));
                $bookings[] = array_filter([
                    'id' => "b$i",
                    'plays' => ['layout' => "l$i"],
                    'rank' => ['takeover', 'dated', 'weekly', 'everyday'][$random->getInt(0, 3)],
                    'start' => $start,
                    'end' => gmdate('Y-m-d\TH:i:s', (int) strtotime("$start UTC") + 900 * $random->getInt(1, 60)),
                    'rrule' => ['FREQ=DAILY', 'FREQ=WEEKLY;BYDAY=SU,MO', 'FREQ=HOURLY;INTERVAL=5;BYDAY=SA,SU', null, 'FREQ=DAILY;COUNT=4', 'FREQ=MONTHLY;BYDAY=-1SU'][$random->getInt(0, 5)],
                    'exdates' => $random->getInt(0, 2) === 0 ? ['2026-10-25', '2026-04-05'] : null,
                    'until' => $random->getInt(0, 3) === 0 ? '2026-11-01T03:15:00' : null,
                    'when' => $random->getInt(0, 2) === 0 ? $when($i) : null,
                ], static fn (mixed $value): bool => $value !== null);
            }
            $feeds = Make::fed(array_map(static fn (int $ms): array => ['from' => (string) Instant::ofMs($ms)], $leaving));
            $schedule = Composer::over(null, (new Surroundings($zone))->fed($feeds))->schedule(self::schedule($bookings));
            $clock = WallClock::in($zone);
            foreach (['2026-10-23T00:00:00Z', '2026-03-27T00:00:00Z', '2026-04-03T00:00:00Z', '2026-10-02T00:00:00Z'] as $day) {
                $from = Instant::parse($day)->ms + 250;
                $to = $from + 4 * 86_400_000;
                $at = $from;
                $pieces = Plays::of($schedule, $clock, $from, $to)->pieces;
                foreach ($pieces as $piece) {
                    self::assertSame($at, $piece->fromMs);
                    self::assertGreaterThan($piece->fromMs, $piece->toMs);
                    $at = $piece->toMs;
                }
                self::assertSame($to, $at);
                for ($i = 0; $i < 60; $i++) {
                    $instant = $random->getInt($from, $to - 1);
                    $due = null;
                    foreach ($schedule->ranked() as $booking) {
                        $chosen = array_filter($leaving, static fn (int $ms): bool => $ms - (60 + (int) substr($booking->id, 1)) * 60_000 <= $instant && $instant < $ms);
                        if ($booking->when !== null && count($chosen) < 2) {
                            continue;
                        }
                        foreach ($booking->occurrences($clock, intdiv($instant, 1000), intdiv($instant, 1000) + 1) as [$begins, $ends]) {
                            if ($begins * 1000 <= $instant && $instant < $ends * 1000) {
                                $due ??= $booking->id;
                            }
                        }
                    }
                    $piece = array_values(array_filter($pieces, static fn (Play $play): bool => $play->fromMs <= $instant && $instant < $play->toMs))[0];
                    self::assertSame($due, $piece->booking?->id, "$zone " . Instant::ofMs($instant));
                    // Asked for the one instant alone it is the same, and its loop counts from the same start.
                    self::assertTrue($due === null || Plays::of($schedule, $clock, $from, $to)->hasTurn($due, $instant, $instant + 1));
                    $alone = Plays::at($schedule, $clock, $instant);
                    self::assertSame([$due, $piece->anchorMs, $piece->why()], [$alone->booking?->id, $alone->anchorMs, $alone->why()]);
                }
            }
        }
    }

    public function testALoopCountsFromTheStartOfItsOccurrenceAlsoAfterAnInterruption(): void
    {
        $schedule = self::schedule([
            ['id' => 'storm', 'plays' => ['media' => 'storm.png'], 'rank' => 'takeover', 'start' => '2026-06-03T12:00:00', 'end' => '2026-06-03T12:30:00'],
            ['id' => 'day'] + self::DAY,
        ]);
        $pieces = self::plays($schedule, 'UTC', '2026-06-03T09:00:00Z', '2026-06-03T13:00:00Z');
        $anchors = array_map(static fn (Play $play): string => (string) Instant::ofMs($play->anchorMs), $pieces);
        self::assertSame(['2026-06-03T06:00:00Z', '2026-06-03T12:00:00Z', '2026-06-03T06:00:00Z'], $anchors);
    }

    public function testAZoneOfTheStandingLayoutHasBookingsAndAStandbyOfItsOwn(): void
    {
        $schedule = self::schedule([
            ['id' => 'side', 'zone' => 'side'] + self::DAY,
            ['id' => 'day', 'plays' => ['layout' => 'hall']] + self::DAY,
        ], ['side' => ['standby' => ['playlist' => 'quiet']], 'foot' => []]);
        self::assertSame(['00:00 quiet', '06:00 day', '22:00 quiet'], self::told($schedule, 'UTC', '2026-06-03T00:00:00Z', '2026-06-04T00:00:00Z', 'side'));
        self::assertSame(['00:00 nothing'], self::told($schedule, 'UTC', '2026-06-03T00:00:00Z', '2026-06-04T00:00:00Z', 'foot'));
        self::assertSame(['00:00 night', '06:00 hall', '22:00 night'], self::told($schedule, 'UTC', '2026-06-03T00:00:00Z', '2026-06-04T00:00:00Z'));
    }

    public function testFromAndUntilCutWhatIsShown(): void
    {
        $schedule = self::schedule([['id' => 'day', 'from' => '2026-06-03T08:00:00', 'until' => '2026-06-04T20:00:00'] + self::DAY]);
        self::assertSame(
            ['00:00 night', '08:00 day', '22:00 night', '06:00 day', '20:00 night'],
            self::told($schedule, 'UTC', '2026-06-02T00:00:00Z', '2026-06-06T00:00:00Z'),
        );
    }

    public function testWhatIsLostIsToldAndTheCureBringsItBack(): void
    {
        $booking = ['id' => 'tide', 'name' => 'Tide tables', 'start' => '2026-01-01T01:15:00', 'end' => '2026-01-01T01:45:00', 'rrule' => 'FREQ=DAILY', 'rank' => 'weekly'] + self::DAY;
        $lost = self::found(self::schedule([$booking]), 'Europe/Lisbon', 'booking.skipped');
        self::assertCount(1, $lost);
        self::assertSame('"Tide tables" is lost on 2026-03-29: the clocks of Europe/Lisbon leave out 01:15 that night.', $lost[0]->message);
        self::assertSame(['label' => 'Begin at 02:15 that night', 'booking' => 'tide', 'set' => ['rdates' => ['2026-03-29T02:15:00']]], $lost[0]->cure()?->toArray());
        $cured = self::schedule([['rdates' => ['2026-03-29T02:15:00']] + $booking]);
        self::assertSame(['00:00 night', '02:15 day', '02:45 night'], self::told($cured, 'Europe/Lisbon', '2026-03-29T00:00:00Z', '2026-03-29T12:00:00Z'));
        self::assertSame([], self::found(self::schedule([$booking]), 'Asia/Kolkata', 'booking.skipped'), 'no clock is changed there');
    }

    public function testWhatNeverGetsItsTurnWhatClashesAndWhatStaysDarkIsTold(): void
    {
        $never = self::schedule([
            ['id' => 'noon', 'name' => 'Noon', 'start' => '2026-01-01T12:00:00', 'end' => '2026-01-01T13:00:00'] + self::DAY,
            ['id' => 'day', 'name' => 'Day', 'rank' => 'weekly'] + self::DAY,
        ]);
        self::assertSame('"Noon" never gets its turn: "Day" goes before it whenever it is due.', self::found($never, 'UTC', 'booking.never')[0]->message);

        $impossible = self::schedule([['id' => 'x', 'name' => 'Leap', 'rrule' => 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30'] + self::DAY]);
        self::assertSame('"Leap" never happens: its rule, FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30, falls on no day.', self::found($impossible, 'UTC', 'booking.never')[0]->message);

        $clash = self::schedule([
            ['id' => 'day', 'name' => 'Day'] + self::DAY,
            ['id' => 'late', 'name' => 'Late', 'start' => '2026-01-01T21:00:00', 'end' => '2026-01-01T23:30:00'] + self::DAY,
        ]);
        $found = self::found($clash, 'UTC', 'booking.clash');
        $message = '"Day" and "Late", both of rank everyday, are due together for 15 d 5 h, first on 2026-01-01 21:00; "Late" plays, for it was made later.';
        self::assertSame($message, $found[0]->message, '365 times an hour');
        self::assertSame(['day', 'late'], $found[0]->elements);

        $dark = Schedule::fromArray(['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'bookings' => [['id' => 'day'] + self::DAY]]);
        self::assertStringContainsString('and there is no standby', self::found($dark, 'UTC', 'schedule.gap')[0]->message);

        $sound = self::schedule([
            ['id' => 'day'] + self::DAY,
            ['id' => 'feast', 'rank' => 'dated', 'start' => '2026-06-03T17:30:00', 'end' => '2026-06-03T23:00:00', 'plays' => ['layout' => 'x']],
        ]);
        self::assertSame([], self::found($sound, 'UTC', ''), 'a dated booking before an everyday one is meant');
    }

    public function testABookingOfEverySecondIsAskedForInParts(): void
    {
        $schedule = self::schedule([['id' => 'x', 'start' => '1990-01-01T00:00:00', 'end' => '1990-01-01T00:00:01', 'rrule' => 'FREQ=SECONDLY;INTERVAL=2'] + self::DAY]);
        self::assertCount(60, self::plays($schedule, 'UTC', '2026-06-03T00:00:00Z', '2026-06-03T00:01:00Z'));
        $this->expectExceptionMessage('/bookings/0/rrule asks for 200,001 occurrences or more; 200,000 are the most. Ask for a shorter span');
        self::plays($schedule, 'UTC', '2026-01-01T00:00:00Z', '2027-01-01T00:00:00Z');
    }

    /** @return iterable<array{array<string, mixed>, string, string}> */
    public static function wrong(): iterable
    {
        yield [['end' => '2026-01-01T06:00:00'], '/bookings/0/end', 'which is not after its start'];
        yield [['end' => '2026-01-01T22:00:00Z'], '/bookings/0/end', 'is no local time'];
        yield [['start' => '2026-02-30T06:00:00'], '/bookings/0/start', 'is no local time'];
        yield [['rrule' => 'FREQ=DAILY;COUNT=0'], '/bookings/0/rrule', 'COUNT=0'];
        yield [['rank' => 'high'], '/bookings/0/rank', 'one of takeover, dated, weekly, everyday is right'];
        yield [['plays' => []], '/bookings/0/plays', 'names nothing'];
        yield [['plays' => ['layout' => 'a', 'media' => 'b']], '/bookings/0/plays', 'names layout and media'];
        yield [['exdates' => ['2026-13-01']], '/bookings/0/exdates/0', 'is no local time'];
        yield [['from' => '2026-06-01T00:00:00', 'until' => '2026-05-01T00:00:00'], '/bookings/0/until', 'is not after from'];
        yield [['created' => '2026-06-01'], '/bookings/0/created', 'is no instant'];
        yield [['colour' => 'red'], '/bookings/0/colour', 'is not a known field'];
    }

    /** @param array<string, mixed> $fields */
    #[DataProvider('wrong')]
    public function testABookingThatCannotBeIsRefusedWithItsPlace(array $fields, string $path, string $reason): void
    {
        try {
            self::schedule([['id' => 'day'] + $fields + self::DAY]);
            self::fail('It was read.');
        } catch (Refused $e) {
            self::assertSame($path, $e->path);
            self::assertStringContainsString($reason, $e->getMessage());
        }
    }

    public function testATimeZoneThatIsNoneAndTwoOfOneIdAreRefused(): void
    {
        foreach ([['timezone' => 'Mars/Olympus', 'bookings' => []], ['timezone' => 'UTC', 'bookings' => [['id' => 'a'] + self::DAY, ['id' => 'a'] + self::DAY]]] as $index => $fields) {
            try {
                Schedule::fromArray(['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S'] + $fields);
                self::fail('It was read.');
            } catch (Refused $e) {
                self::assertSame(['/timezone', '/bookings/1/id'][$index], $e->path);
            }
        }
    }

    /**
     * @param list<array<string, mixed>> $bookings
     * @param array<string, mixed> $zones
     */
    private static function schedule(array $bookings, array $zones = []): Schedule
    {
        return Schedule::fromArray([
            'format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'standby' => ['layout' => 'night'], 'bookings' => $bookings,
        ] + ($zones === [] ? [] : ['zones' => $zones]));
    }

    /** @return list<Play> */
    private static function plays(Schedule $schedule, string $zone, string $from, string $to, ?string $of = null): array
    {
        return Plays::of($schedule, WallClock::in($zone), Instant::parse($from)->ms, Instant::parse($to)->ms, $of)->pieces;
    }

    /** @return list<string> local time and what plays from then on */
    private static function told(Schedule $schedule, string $zone, string $from, string $to, ?string $of = null): array
    {
        $clock = WallClock::in($zone);

        return array_map(
            static fn (Play $play): string => gmdate('H:i', intdiv($clock->localMs($play->fromMs), 1000)) . ' ' . ($play->plays === null ? 'nothing' : str_replace('.png', '', $play->plays->id)),
            self::plays($schedule, $zone, $from, $to, $of),
        );
    }

    /** @return list<Finding> */
    private static function found(Schedule $schedule, string $zone, string $code): array
    {
        $findings = ScheduleChecks::run($schedule, WallClock::in($zone), Instant::parse('2026-01-01T00:00:00Z')->ms, Instant::parse('2027-01-01T00:00:00Z')->ms)->all;

        return array_values(array_filter($findings, static fn (Finding $finding): bool => $code === '' || $finding->code === $code));
    }
}
