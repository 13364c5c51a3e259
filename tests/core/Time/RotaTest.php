<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Core\Time\Validity;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

/**
 * Items that come and go: the running one ends, then the next due one follows.
 *
 * @phpstan-import-type Doc from Make
 */
final class RotaTest extends TestCase
{
    public function testTheRunningItemEndsThenTheNextDueOneFollows(): void
    {
        // The month begins at 00:00:00 with A. B may play from 00:00:12 on, C until 00:00:45.
        $items = [
            Make::picture('A', durationMs: 10_000),
            Make::picture('B', durationMs: 10_000, valid: ['from' => '2026-06-01T00:00:12']),
            Make::picture('C', durationMs: 10_000, valid: ['until' => '2026-06-01T00:00:45']),
        ];
        self::assertSame(
            ['00:00 A', '00:10 C', '00:20 A', '00:30 B', '00:40 C', '00:50 A', '01:00 B', '01:10 A'],
            self::told($items, '2026-06-01T00:00:00Z', 80),
        );
    }

    public function testAnItemThatIsNoLongerDueIsNotCutAndTheListGoesOnBehindIt(): void
    {
        $items = [
            Make::picture('A', durationMs: 10_000),
            Make::picture('B', durationMs: 10_000, valid: ['until' => '2026-06-01T00:00:15']),
            Make::picture('C', durationMs: 10_000),
        ];
        self::assertSame(['00:00 A', '00:10 B', '00:20 C', '00:30 A', '00:40 C'], self::told($items, '2026-06-01T00:00:00Z', 50));
    }

    public function testNothingIsShownWhileNothingIsDueAndItBeginsAtOnce(): void
    {
        $items = [Make::picture('A', durationMs: 10_000, valid: ['hours' => [['08:00', '08:01'], ['09:00', '09:01']]])];
        self::assertSame(
            ['00:00 A', '00:10 A', '00:20 A', '00:30 A', '00:40 A', '00:50 A'],
            self::told($items, '2026-06-01T08:00:00Z', 3_590),
        );
        self::assertSame(['00:05 A'], array_slice(self::told($items, '2026-06-01T08:59:55Z', 30), 0, 1));
    }

    public function testWhatNeverEndsGoesOnUntilItIsNoLongerDue(): void
    {
        $items = [
            Make::picture('A', durationMs: 10_000),
            ['lasts' => 'endless', 'valid' => ['until' => '2026-06-01T00:01:07']] + Make::film('F'),
            Make::picture('B', durationMs: 10_000, valid: ['from' => '2026-06-01T00:00:30']),
        ];
        self::assertSame(['00:00 A', '00:10 F', '01:07 B', '01:17 A', '01:27 B'], self::told($items, '2026-06-01T00:00:00Z', 95));
    }

    public function testFollowersChangeWithTheirLeaderAlsoWhereItemsComeAndGo(): void
    {
        $layout = Make::composed(Make::layout([
            Make::zone('side', 0, 0, 9, 9, [Make::picture('a'), Make::picture('b', valid: ['from' => '2026-06-01T00:00:12']), Make::picture('c')], follows: 'main'),
            Make::zone('main', 0, 0, 9, 9, [Make::film('A', 15_000), Make::film('B', 20_000, valid: ['from' => '2026-06-01T00:00:12']), Make::film('C', 10_000)]),
        ]));
        $from = Instant::parse('2026-06-01T00:00:00Z')->ms;
        [$side, $main] = Timeline::of($layout, $from, $from + 100_000)['zones'];
        self::assertSame(['A', 'B', 'C', 'A', 'B', 'C', 'A'], array_column($main['segments'], 'item'));
        self::assertSame(['a', 'b', 'c', 'a', 'b', 'c', 'a'], array_column($side['segments'], 'item'));
        self::assertSame(array_column($main['segments'], 'from'), array_column($side['segments'], 'from'));
    }

    public function testEachMonthBeginsAnewAtItsFirstLocalMidnight(): void
    {
        $items = [
            Make::picture('A', durationMs: 7_000, valid: ['days' => ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']]),
            Make::picture('B', durationMs: 7_000, valid: ['hours' => [['00:00', '24:00']]]),
        ];
        $layout = Make::composed(Make::layout([Make::zone('z', 0, 0, 9, 9, $items)]));
        $midnight = Instant::parse('2026-06-30T23:00:00Z')->ms;
        $segments = Timeline::of($layout, $midnight - 20_000, $midnight + 20_000, 0, 'Europe/Lisbon')['zones'][0]['segments'];
        $at = array_search((string) Instant::ofMs($midnight), array_column($segments, 'from'), true);
        self::assertIsInt($at);
        self::assertSame(['A', 0], [$segments[$at]['item'], $segments[$at]['offset_ms']]);
    }

    /** The property: slots are never cut but at the end of a month, and what begins is due when it begins. */
    public function testNothingJumpsInTheMiddle(): void
    {
        $random = Make::random(12);
        $clock = WallClock::in('Europe/Lisbon');
        $from = Instant::parse('2026-10-24T20:00:00Z')->ms;
        $slots = 0;
        for ($round = 0; $round < Make::rounds(25); $round++) {
            $document = Make::comingAndGoing($random);
            foreach ($document['elements'] as &$element) {
                unset($element['follows']);
            }
            unset($element);
            $layout = Make::composed($document);
            $valid = [];
            foreach ($layout->zones as $id => $zone) {
                foreach ($zone->playlist->enabled() as $item) {
                    $valid[$id][$item->id] = [$item->valid, $zone->lengthMs($item)];
                }
            }
            foreach (Timeline::of($layout, $from, $from + 2 * 3_600_000, 0, 'Europe/Lisbon')['zones'] as $zone) {
                foreach (array_slice($zone['segments'], 1, -1) as $segment) {
                    [$validity, $length] = $valid[$zone['id']][$segment['item']];
                    $begin = Instant::parse($segment['from'])->ms;
                    $wrong = match (true) {
                        $segment['offset_ms'] !== 0 => 'begins in the middle',
                        $validity !== null && !$validity->isDue($clock, (int) floor($begin / 1000)) => 'is not due',
                        $length !== null && Instant::parse($segment['to'])->ms - $begin !== $length => 'is cut',
                        default => null,
                    };
                    if ($wrong !== null) {
                        self::fail(json_encode($segment) . " $wrong");
                    }
                    $slots++;
                }
            }
        }
        self::assertGreaterThan(10_000, $slots);
    }

    public function testHoursAreThoseOnTheWallOnTheOddNightsToo(): void
    {
        $clock = WallClock::in('Europe/Lisbon');
        $due = static fn (array $valid, string $at): bool => Validity::fromNode(Node::root($valid))->isDue($clock, intdiv(Instant::parse($at)->ms, 1000));
        $night = ['days' => ['SA'], 'hours' => [['22:00', '06:00']]];
        self::assertSame([false, true, true, false], [
            $due($night, '2026-10-24T20:59:59Z'), $due($night, '2026-10-24T21:00:00Z'), $due($night, '2026-10-25T05:59:59Z'), $due($night, '2026-10-25T06:00:00Z'),
        ], 'the window of Saturday goes on into Sunday');
        self::assertFalse($due($night, '2026-10-24T03:00:00Z'), 'that of Friday does not');
        // 01:30 is shown twice on 25 October 2026, at 00:30 and at 01:30 UTC (zdump).
        $twice = ['hours' => [['01:30', '02:30']]];
        self::assertSame([true, false, true], [$due($twice, '2026-10-25T00:30:00Z'), $due($twice, '2026-10-25T01:15:00Z'), $due($twice, '2026-10-25T01:30:00Z')]);
        $edges = Validity::fromNode(Node::root($twice))->edges($clock, 1_792_886_400, 1_792_900_800);
        foreach (['2026-10-25T00:30:00Z', '2026-10-25T01:00:00Z', '2026-10-25T01:30:00Z', '2026-10-25T02:30:00Z'] as $edge) {
            self::assertContains(intdiv(Instant::parse($edge)->ms, 1000), $edges, $edge);
        }
        // 01:30 is left out on 29 March 2026.
        self::assertTrue($due(['hours' => [['00:30', '01:30']]], '2026-03-29T00:59:59Z'));
        self::assertFalse($due(['hours' => [['00:30', '01:30']]], '2026-03-29T01:00:00Z'), 'it is 02:00 then');
    }

    /**
     * @param list<Doc> $items
     * @return list<string> minutes and seconds since the beginning, and the item that begins then
     */
    private static function told(array $items, string $from, int $seconds): array
    {
        $begin = Instant::parse($from)->ms;
        $segments = Timeline::of(Make::composed(Make::layout([Make::zone('z', 0, 0, 9, 9, $items)])), $begin, $begin + $seconds * 1000)['zones'][0]['segments'];

        return array_map(static fn (array $segment): string => gmdate('i:s', intdiv(Instant::parse($segment['from'])->ms - $begin, 1000)) . ' ' . $segment['item'], $segments);
    }
}
