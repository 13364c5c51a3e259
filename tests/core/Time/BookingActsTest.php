<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Time\Schedule\BookingActs;
use UpperPane\Core\Time\Schedule\BookingsTold;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Schedule\ScheduleChecks;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

/**
 * What hands do to the bookings of a schedule, and what is told of each occurrence.
 *
 * @phpstan-import-type Doc from Make
 */
final class BookingActsTest extends TestCase
{
    private const DAY = ['plays' => ['layout' => 'day'], 'rank' => 'weekly', 'start' => '2026-06-01T09:00:00', 'end' => '2026-06-01T10:00:00', 'rrule' => 'FREQ=WEEKLY'];

    public function testABookingIsMadeForADateUnderAnIdOfItsOwn(): void
    {
        $schedule = self::schedule(['id' => 'b2'] + self::DAY);
        [$made, $id] = self::done($schedule, ['do' => 'make', 'plays' => ['layout' => 'x'], 'zone' => 'side', 'start' => '2026-06-03T09:00:00', 'end' => '2026-06-03T10:00:00']);
        self::assertSame(['b3', 'b2'], [$id, $made->bookings[0]->id]);
        self::assertSame(
            ['plays' => ['layout' => 'x'], 'zone' => 'side', 'rank' => 'dated', 'created' => '2026-06-01T00:00:00Z', 'name' => 'Booking 3'],
            array_intersect_key($made->toArray()['bookings'][1], ['name' => 1, 'plays' => 1, 'zone' => 1, 'rank' => 1, 'created' => 1]),
        );
        self::refuses(Reason::ValueRange, $schedule, ['do' => 'make', 'plays' => ['layout' => 'x'], 'start' => '2026-06-03T09:00:00', 'end' => '2026-06-03T09:00:00']);
        self::refuses(Reason::FieldUnknown, $schedule, ['do' => 'make', 'plays' => ['layout' => 'x'], 'rank' => 'takeover', 'start' => '2026-06-03T09:00:00', 'end' => '2026-06-03T10:00:00']);
    }

    public function testWhatIsProposedLiesAhead(): void
    {
        $lisbon = Schedule::fromArray(['timezone' => 'Europe/Lisbon'] + self::schedule()->toArray());
        $proposed = static fn (array $more, string $now): array => [
            (string) ($made = BookingActs::done($lisbon, Node::root(['do' => 'make', 'plays' => ['layout' => 'x']] + $more), Instant::parse($now)->ms)[0]->bookings[0])->start,
            (string) $made->end,
        ];
        // In summer the clocks in Lisbon are an hour ahead of UTC.
        self::assertSame(['2026-07-01T15:00:00', '2026-07-01T16:00:00'], $proposed([], '2026-07-01T13:40:00Z'));
        self::assertSame(['2026-07-02T00:00:00', '2026-07-02T01:00:00'], $proposed(['day' => '2026-06-29'], '2026-07-01T22:10:00Z'), 'a day that is past');
        self::assertSame(['2026-07-02T09:00:00', '2026-07-02T10:00:00'], $proposed(['day' => '2026-07-02'], '2026-07-01T13:40:00Z'));
        self::refuses(Reason::ValueRange, $lisbon, ['do' => 'make', 'plays' => ['layout' => 'x'], 'day' => 'tomorrow']);
        self::refuses(Reason::FieldMissing, $lisbon, ['do' => 'make', 'plays' => ['layout' => 'x'], 'start' => '2026-01-01T09:00:00']);
    }

    public function testAnEndFollowsItsBeginningAndADayIsTakenWhole(): void
    {
        $times = static fn (array $booking, array $act): array => [
            (string) ($done = self::done(self::schedule(['id' => 'b'] + $booking + self::DAY), ['booking' => 'b'] + $act)[0]->bookings[0])->start,
            (string) $done->end,
        ];
        self::assertSame(['2026-06-02T23:30:00', '2026-06-03T00:30:00'], $times([], ['do' => 'begin', 'start' => '2026-06-02T23:30']));
        self::assertSame(['2026-06-01T00:00:00', '2026-06-02T00:00:00'], $times([], ['do' => 'whole']));
        self::assertSame(['2026-06-01T00:00:00', '2026-06-04T00:00:00'], $times(['end' => '2026-06-03T01:00:00'], ['do' => 'whole']), 'what goes over days stays so');
        self::assertSame(['2026-06-01T00:00:00', '2026-06-02T00:00:00'], $times(['start' => '2026-06-01T00:00:00', 'end' => '2026-06-02T00:00:00'], ['do' => 'whole']));
        self::refuses(Reason::RefUnknown, self::schedule(), ['do' => 'whole', 'booking' => 'gone']);
        self::refuses(Reason::RefUnknown, self::schedule(), ['do' => 'begin', 'booking' => 'gone', 'start' => '2026-06-02T23:30']);
    }

    /** What happens on a date goes before what comes every week, and that before what comes every day, unless somebody says that it takes over. */
    public function testTheRankFollowsFromHowOftenItComes(): void
    {
        foreach (['FREQ=DAILY' => 'everyday', 'FREQ=WEEKLY;BYDAY=MO' => 'weekly', 'FREQ=DAILY;COUNT=3' => 'weekly', '' => 'dated'] as $rule => $rank) {
            $repeat = ['do' => 'repeat', 'booking' => 'b', 'rrule' => $rule === '' ? null : $rule];
            [$schedule, $id] = self::done(self::schedule(['id' => 'b'] + self::DAY), $repeat);
            self::assertSame(['b', $rank, $rule], [$id, $schedule->bookings[0]->rank->value, (string) $schedule->bookings[0]->rule]);
            self::assertSame('takeover', self::done(self::schedule(['id' => 'b', 'rank' => 'takeover'] + self::DAY), $repeat)[0]->bookings[0]->rank->value);
        }
        self::refuses(Reason::RruleWrong, self::schedule(['id' => 'b'] + self::DAY), ['do' => 'repeat', 'booking' => 'b', 'rrule' => 'FREQ=SOMETIMES']);
        self::refuses(Reason::RefUnknown, self::schedule(), ['do' => 'repeat', 'booking' => 'b', 'rrule' => null]);
    }

    /** A cure of a booking of its own is offered also where it stands together with the schedule of its place; of one of that place it is not. */
    public function testACureIsOfferedForItsOwnBookings(): void
    {
        $night = ['id' => 'tide', 'start' => '2026-01-01T01:15:00', 'end' => '2026-01-01T01:45:00', 'rrule' => 'FREQ=DAILY'] + self::DAY;
        $found = static fn (Schedule $schedule): array => array_values(array_filter(
            ScheduleChecks::run($schedule, WallClock::in('Europe/Lisbon'), Instant::parse('2026-03-01T00:00:00Z')->ms, Instant::parse('2026-05-01T00:00:00Z')->ms)->all,
            static fn (Finding $finding): bool => $finding->code === 'booking.skipped',
        ));
        $early = ['name' => 'Of the place', 'start' => '2026-01-01T01:00:00', 'end' => '2026-01-01T01:10:00'];
        [$own, $place] = [self::schedule($night), Schedule::fromArray(['id' => 'place'] + self::schedule($early + $night)->toArray())];
        $cures = array_map(static fn (Finding $finding): ?string => $finding->cure()?->label, $found($own->together($place)));
        self::assertSame(['Begin at 02:15 that night', null], $cures);
        [$cured] = self::done($own, ['do' => 'cure', 'fix' => $found($own)[0]->cure()?->toArray()]);
        self::assertSame([], $found($cured));
        self::refuses(Reason::RefUnknown, self::schedule(), ['do' => 'cure', 'fix' => ['label' => 'x', 'booking' => 'gone', 'set' => []]]);
    }

    /** Of two of one rank the later made one plays; the other says with whom it clashes, at those occurrences alone. */
    public function testWhichOccurrencesClashIsTold(): void
    {
        $schedule = self::schedule(
            ['id' => 'old', 'name' => 'Old', 'created' => '2026-01-01T00:00:00Z', 'rrule' => 'FREQ=DAILY'] + self::DAY,
            ['id' => 'new', 'name' => 'New', 'created' => '2026-02-01T00:00:00Z', 'start' => '2026-06-02T09:30:00', 'end' => '2026-06-02T11:00:00'] + self::DAY,
            ['id' => 'zone', 'name' => 'Zone', 'zone' => 'side', 'rrule' => 'FREQ=DAILY'] + self::DAY,
            ['id' => 'high', 'name' => 'High', 'rank' => 'dated', 'rrule' => 'FREQ=DAILY'] + self::DAY,
        );
        $clock = WallClock::in('UTC');
        [$from, $to] = [Instant::parse('2026-06-01T00:00:00Z')->ms, Instant::parse('2026-06-04T00:00:00Z')->ms];
        $plays = ['' => Plays::of($schedule, $clock, $from, $to), 'side' => Plays::of($schedule, $clock, $from, $to, 'side')];
        $told = array_column(BookingsTold::of($schedule, $plays, $clock, $from, $to), null, 'id');
        $of = static fn (string $id): array => array_map(static fn (array $one): array => [$one['start'], $one['turn'], $one['clash'] ?? null], $told[$id]['occurrences']);
        self::assertSame([['2026-06-01T09:00:00', false, null], ['2026-06-02T09:00:00', false, 'New'], ['2026-06-03T09:00:00', false, null]], $of('old'));
        self::assertSame([['2026-06-02T09:30:00', true, null]], $of('new'));
        self::assertSame([true, true, true], array_column($told['zone']['occurrences'], 'turn'));
    }

    /** @param Doc ...$bookings */
    private static function schedule(array ...$bookings): Schedule
    {
        return Schedule::fromArray(['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'bookings' => array_values($bookings)]);
    }

    /**
     * @param array<string, mixed> $act
     * @return array{Schedule, string}
     */
    private static function done(Schedule $schedule, array $act): array
    {
        return BookingActs::done($schedule, Node::root($act), Instant::parse('2026-06-01T00:00:00Z')->ms);
    }

    /** @param array<string, mixed> $act */
    private static function refuses(Reason $reason, Schedule $schedule, array $act): void
    {
        try {
            self::done($schedule, $act);
            self::fail('It was done.');
        } catch (Refused $e) {
            self::assertSame($reason, $e->reason);
        }
    }
}
