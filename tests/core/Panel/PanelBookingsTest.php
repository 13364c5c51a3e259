<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Panel;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Panel\PanelBookings;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** What panels put on a display are bookings before all others, and no other booking is touched. */
final class PanelBookingsTest extends TestCase
{
    private const OTHERS = [
        ['id' => 'daily', 'plays' => ['layout' => 'day'], 'rank' => 'everyday', 'start' => '2026-06-01T06:00:00', 'end' => '2026-06-01T22:00:00', 'rrule' => 'FREQ=DAILY'],
        ['id' => 'panel-show', 'plays' => ['layout' => 'show'], 'rank' => 'takeover', 'start' => '2026-06-01T11:00:00', 'end' => '2026-06-01T11:30:00', 'created' => '2026-05-01T00:00:00Z'],
    ];

    public function testItPlaysFromThePressOnUntilItsTimeIsOverOrAnotherKeyTakesItsPlace(): void
    {
        $put = PanelBookings::in(['bookings' => self::OTHERS])->with('Storm', Played::of('layout', 'storm'), null, WallClock::in('UTC'), 90, self::ms('2026-06-01T10:00:07'));
        // A booking that is called like one of a panel, and is none, stays: it is for the whole display, and has the name of a zone.
        self::assertSame(self::OTHERS, array_slice($put->bookings, 0, 2));
        self::assertSame(['day until 10:00:07', 'storm until 11:30:07', 'day until 12:00:00'], self::plays($put));
        $again = $put->with('Desk', Played::of('playlist', 'desk'), null, WallClock::in('UTC'), null, self::ms('2026-06-01T11:15:00'));
        self::assertSame(['day until 11:00:00', 'show until 11:15:00', 'desk until 12:00:00'], self::plays($again), 'what was put there before is put there no more');
        self::assertSame(self::OTHERS, $again->without(null)?->bookings);
        self::assertNull($again->without('main'));
    }

    public function testEachZoneHasItsOwnAndTheyAreToldAsTheyStand(): void
    {
        $clock = WallClock::in('Europe/Lisbon');
        $at = LocalTime::parse('2026-06-01T10:00:00');
        $put = PanelBookings::in([])->with('Storm', Played::of('layout', 'storm'), 'main', $clock, null, self::ms('2026-06-01T09:00:00'))
            ->with('Hours', Played::of('layout', 'hours'), 'side', $clock, 30, self::ms('2026-06-01T09:00:00'));
        self::assertSame([
            ['zone' => 'main', 'name' => 'Storm', 'plays' => ['layout' => 'storm'], 'since' => '2026-06-01T09:00:00Z', 'until' => null],
            ['zone' => 'side', 'name' => 'Hours', 'plays' => ['layout' => 'hours'], 'since' => '2026-06-01T09:00:00Z', 'until' => '2026-06-01T09:30:00Z'],
        ], $put->stand($at, $clock));
        $later = LocalTime::parse('2026-06-01T10:30:00');
        self::assertSame(['main'], array_column($put->stand($later, $clock), 'zone'));
        self::assertSame(['panel-main'], array_column($put->tidied($later)->bookings, 'id'));
        self::assertSame(['panel-side'], array_column($put->without('main')->bookings ?? [], 'id'));
    }

    /** A layout that was handed over by itself goes on around what is put on its zones, and stands alone again when nothing is left. */
    public function testWhatWasHandedOverBeforeGoesOnBelowAndIsKnownAfterwards(): void
    {
        $at = LocalTime::parse('2026-06-01T10:00:00');
        $put = PanelBookings::in(['bookings' => self::OTHERS])->under([Played::of('layout', 'map'), 'The map'], $at)
            ->with('Storm', Played::of('layout', 'storm'), 'main', WallClock::in('UTC'), 30, self::ms('2026-06-01T10:00:00'));
        self::assertSame(['day until 10:00:00', 'map until 11:00:00', 'show until 11:30:00', 'map until 12:00:00'], self::plays($put));
        $other = $put->under(null, LocalTime::parse('2026-06-01T10:05:00'));
        self::assertSame($put->bookings, $other->bookings);
        [$played, $name] = $put->before() ?? [null, null];
        self::assertSame(['layout:map', 'The map'], [$played?->key(), $name]);
        $left = ($put->without('main') ?? $put)->tidied($at);
        self::assertTrue($left->isEmpty());
        self::assertSame([self::OTHERS, null], [$left->bookings, $left->before()]);
    }

    /** In the night in which an hour is left out, at two o'clock by the tables of the IANA time zones, half an hour is half an hour. */
    public function testItStandsAsLongAsItIsToldAlsoWhereClocksAreChanged(): void
    {
        $clock = WallClock::in('Europe/Lisbon');
        $put = PanelBookings::in([])->with('Storm', Played::of('layout', 'storm'), null, $clock, 30, self::ms('2026-03-29T00:50:00'));
        self::assertSame(['2026-03-29T00:50:00', '2026-03-29T02:20:00'], [$put->bookings[0]['start'], $put->bookings[0]['end']]);
        self::assertSame('2026-03-29T01:20:00Z', $put->stand(LocalTime::parse('2026-03-29T02:10:00'), $clock)[0]['until']);
    }

    private static function ms(string $utc): int
    {
        return 1000 * (int) strtotime("$utc UTC");
    }

    /** @return list<string> what the whole display plays from 9 to 12 */
    private static function plays(PanelBookings $bookings): array
    {
        $schedule = Schedule::fromArray(['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'bookings' => $bookings->bookings]);
        $from = 1000 * LocalTime::parse('2026-06-01T09:00:00')->seconds;
        $pieces = Plays::of($schedule, WallClock::in('UTC'), $from, $from + 3 * 3_600_000)->pieces;

        return array_map(static fn ($one): string => sprintf('%s until %s', $one->plays->id ?? '-', gmdate('H:i:s', intdiv($one->toMs, 1000))), $pieces);
    }
}
