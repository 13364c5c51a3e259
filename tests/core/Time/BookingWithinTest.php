<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Time\Schedule\BookingWithin;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Validity;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

/** What takes the place of something is due whenever it would be beside it. */
final class BookingWithinTest extends TestCase
{
    private const NOW = '2026-06-03T10:00:00';

    /** Held against the validity of an item, which is worked out in another way, at random instants of four weeks. */
    public function testItIsDueWheneverAnItemWouldBe(): void
    {
        $random = Make::random(23);
        $clock = WallClock::in('Europe/Lisbon');
        $now = LocalTime::parse(self::NOW);
        $due = [];
        for ($i = 0; $i < Make::rounds(120); $i++) {
            $time = static fn (): string => sprintf('%02d:%02d', $random->getInt(0, 23), 15 * $random->getInt(0, 3));
            [$from, $to] = [$time(), $time()];
            $days = array_values(array_filter(Rule::DAYS, static fn (): bool => $random->getInt(0, 1) === 1));
            $until = (string) LocalTime::ofSeconds($now->seconds + 900 * $random->getInt(1, 2000));
            $given = array_filter([
                'from' => $random->getInt(0, 2) === 0 ? (string) LocalTime::ofSeconds($now->seconds + 900 * $random->getInt(-400, 0)) : null,
                'until' => $random->getInt(0, 2) > 0 ? $until : null,
                'days' => $random->getInt(0, 1) === 1 && $days !== [] ? $days : null,
                'hours' => $random->getInt(0, 1) === 1 && $from !== $to ? [[$from, $to]] : null,
            ], static fn (mixed $one): bool => $one !== null);
            $validity = Validity::fromNode(Node::root($given + ['from' => self::NOW]));
            $booking = BookingWithin::of('b', 'Late boats', Played::of('layout', 'late'), Node::root($given), $now, 0);
            $schedule = Schedule::fromArray(['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S', 'timezone' => 'Europe/Lisbon', 'bookings' => [$booking]]);
            for ($n = 0; $n < 40; $n++) {
                $at = $clock->utcOrBefore($now->seconds) + 450 * $random->getInt(0, 5400);
                $isDue = Plays::at($schedule, $clock, 1000 * $at)->booking !== null;
                self::assertSame($validity->isDue($clock, $at), $isDue, json_encode([$given, $booking, gmdate('c', $at)]) ?: '');
                $due[(int) $isDue] = true;
            }
        }
        self::assertCount(2, $due);
    }

    /** @param array<string, mixed> $given */
    #[DataProvider('refusals')]
    public function testWhatNoBookingSays(array $given, string $path): void
    {
        try {
            BookingWithin::of('b', 'b', Played::of('layout', 'late'), Node::root($given), LocalTime::parse(self::NOW), 0);
        } catch (Refused $e) {
            self::assertSame($path, $e->path, $e->getMessage());

            return;
        }
        self::fail('It is booked.');
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function refusals(): iterable
    {
        yield 'over already' => [['until' => '2026-06-03T09:00:00'], '/until'];
        yield 'two windows' => [['hours' => [['08:00', '09:00'], ['10:00', '11:00']]], '/hours'];
        yield 'no such day' => [['days' => ['XX']], '/days/0'];
    }
}
