<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Overlay;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Overlay\NowAndNext;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Standing;
use UpperPane\Core\Time\OpeningHours;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

/** Until when something stands that is put up in a hurry, by the clock of the display; and where overlays are shown now and next. */
final class StandingTest extends TestCase
{
    /** @return iterable<string, array{string, array<string, mixed>, string, string}> zone, what is said, now, until; changes of clocks as the IANA time zone database has them */
    public static function ends(): iterable
    {
        yield 'minutes' => ['Europe/Lisbon', ['for_min' => 15], '2026-06-01T10:00:00.500Z', '2026-06-01T10:15:00.500Z'];
        yield 'an instant' => ['Europe/Lisbon', ['until' => '2026-06-01T10:30:00Z'], '2026-06-01T10:00:00Z', '2026-06-01T10:30:00Z'];
        yield 'a date and time there' => ['Atlantic/Azores', ['until' => '2026-06-01T10:30:00'], '2026-06-01T10:00:00Z', '2026-06-01T10:30:00Z'];
        yield 'the same time an hour to the east' => ['Europe/Lisbon', ['until' => '2026-06-01T11:30:00'], '2026-06-01T10:00:00Z', '2026-06-01T10:30:00Z'];
        yield 'a time of today' => ['Atlantic/Azores', ['until' => '23:00'], '2026-06-01T22:30:00Z', '2026-06-01T23:00:00Z'];
        yield 'over today an hour to the east' => ['Europe/Lisbon', ['until' => '23:00'], '2026-06-01T22:30:00Z', '2026-06-02T22:00:00Z'];
        yield 'just now is over' => ['UTC', ['until' => '10:00'], '2026-06-01T10:00:00Z', '2026-06-02T10:00:00Z'];
        yield 'midnight' => ['UTC', ['until' => '00:00'], '2026-12-31T10:00:00Z', '2027-01-01T00:00:00Z'];
        yield 'left out by the clock' => ['Europe/Lisbon', ['until' => '01:30'], '2026-03-29T00:10:00Z', '2026-03-29T01:30:00Z'];
        yield 'shown twice, the first' => ['Europe/Lisbon', ['until' => '01:30'], '2026-10-25T00:10:00Z', '2026-10-25T00:30:00Z'];
        yield 'shown twice, the second' => ['Europe/Lisbon', ['until' => '01:30'], '2026-10-25T00:40:00Z', '2026-10-25T01:30:00Z'];
    }

    /** @param array<string, mixed> $said */
    #[DataProvider('ends')]
    public function testUntil(string $zone, array $said, string $now, string $until): void
    {
        $standing = Standing::fromNode(Node::root($said), WallClock::in($zone), Instant::parse($now)->ms);
        self::assertSame($until, (string) Instant::ofMs($standing->untilMs));
        self::assertSame(['bookings' => [['start' => (string) Instant::parse($now), 'end' => $until]]], $standing->when());
    }

    public function testUntilClosingTimeIsKnownWhereSomebodySaysIt(): void
    {
        [$said, $clock, $now] = [Node::root(['until' => 'closing']), WallClock::in('Europe/Lisbon'), Instant::parse('2026-06-01T10:00:00Z')->ms];
        $hours = static fn (array ...$windows): OpeningHours => OpeningHours::fromNode(Node::root($windows));
        self::assertSame('2026-06-01T18:00:00Z', (string) Instant::ofMs(Standing::fromNode($said, $clock, $now, $hours(['hours' => ['08:00', '19:00']]))->untilMs));
        foreach (['nobody says when' => null, 'never comes' => $hours(['hours' => ['00:00', '24:00']])] as $why => $none) {
            try {
                Standing::fromNode($said, $clock, $now, $none);
                self::fail('It was taken.');
            } catch (Refused $e) {
                self::assertSame('/until', $e->path);
                self::assertStringContainsString($why, $e->getMessage());
            }
        }
    }

    /** Whatever the clock does, a time of day is the next instant at which it shows that: held against the minutes one by one. */
    public function testATimeOfDayIsTheNextThatTheClockShows(): void
    {
        $random = Make::random(2230);
        foreach (['Europe/Lisbon' => '2026-10-24T12:00:00Z', 'Australia/Lord_Howe' => '2026-04-04T06:00:00Z', 'America/New_York' => '2026-10-31T20:00:00Z'] as $zone => $around) {
            $there = new \DateTimeZone($zone);
            for ($i = 0; $i < Make::rounds(40); $i++) {
                $now = Instant::parse($around)->ms + 60_000 * $random->getInt(0, 1440);
                $time = sprintf('%02d:%02d', $random->getInt(0, 3), $random->getInt(0, 59));
                for ($minute = $now + 60_000; (new \DateTimeImmutable('@' . intdiv($minute, 1000)))->setTimezone($there)->format('H:i') !== $time;) {
                    $minute += 60_000;
                }
                self::assertSame($minute, Standing::fromNode(Node::root(['until' => $time]), WallClock::in($zone), $now)->untilMs, "$zone $time at " . Instant::ofMs($now));
            }
        }
    }

    /** @return iterable<array{array<string, mixed>, string, string}> */
    public static function wrong(): iterable
    {
        yield [['until' => '2026-06-01T09:59:59Z'], '/until', 'it is 2026-06-01 11:00:00 (Europe/Lisbon) by now'];
        yield [['until' => '2026-06-01T10:59:59'], '/until', 'is over already'];
        yield [['until' => '2026-07-02T10:00:01Z'], '/until', 'more than 31 days'];
        yield [['for_min' => 44_641], '/for_min', 'more than 31 days'];
        yield [['for_min' => 0], '/for_min', ''];
        yield [['until' => '24:00'], '/until', ''];
        yield [['until' => 'closing'], '/until', ''];
        yield [[], '/until', ''];
    }

    /** @param array<string, mixed> $said */
    #[DataProvider('wrong')]
    public function testWhatIsOverOrTooLongOrNoTimeIsRefused(array $said, string $path, string $says): void
    {
        try {
            Standing::fromNode(Node::root($said), WallClock::in('Europe/Lisbon'), Instant::parse('2026-06-01T10:00:00Z')->ms);
            self::fail('It is taken.');
        } catch (Refused $e) {
            self::assertSame($path, $e->path);
            self::assertStringContainsString($says, $e->getMessage());
        }
    }

    /** Nine o'clock comes an hour later in the west: shown on some, next on others. */
    public function testNowAndNextInTwoZones(): void
    {
        $zones = ['Europe/Lisbon' => 3, 'Atlantic/Azores' => 2];
        $told = static fn (array $when, string $at): array => array_values((array) NowAndNext::of(
            Overlay::fromArray(OverlayDocuments::strip(when: $when)),
            $zones,
            Instant::parse($at)->ms,
        ));
        $ms = static fn (string $at): int => Instant::parse($at)->ms;
        $once = ['bookings' => [['start' => '2026-06-01T09:00:00', 'end' => '2026-06-01T10:00:00']]];
        self::assertSame([0, null, $ms('2026-06-01T08:00:00Z'), false], $told($once, '2026-06-01T07:00:00Z'));
        self::assertSame([3, $ms('2026-06-01T09:00:00Z'), $ms('2026-06-01T09:00:00Z'), false], $told($once, '2026-06-01T08:30:00Z'));
        self::assertSame([2, $ms('2026-06-01T10:00:00Z'), null, false], $told($once, '2026-06-01T09:30:00Z'));
        self::assertSame([0, null, null, true], $told($once, '2026-06-01T10:00:00Z'));
        self::assertSame([5, null, null, false], array_values((array) NowAndNext::of(Overlay::fromArray(OverlayDocuments::strip()), $zones, 0)), 'without end');
        self::assertFalse(NowAndNext::of(Overlay::fromArray(OverlayDocuments::strip()), [], 0)->isOver, 'it holds nowhere');
    }
}
