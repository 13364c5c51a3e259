<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

final class ShownAtTest extends TestCase
{
    public function testTheRunSheetAgreesWithShownAtAtEveryInstant(): void
    {
        $random = Make::random(2026);
        for ($i = 0; $i < Make::rounds(60); $i++) {
            $layout = Make::composed(Make::randomLayout($random));
            $anchor = $random->getInt(0, 1) * $random->getInt(0, 2_000_000_000_000);
            $shownAt = Make::shownAt($layout, $anchor);
            $sheet = json_decode((string) json_encode(Make::runSheet($layout, $anchor)), true);
            for ($n = 0; $n < 40; $n++) {
                $at = $anchor + $random->getInt(-20_000, 60_000);
                $want = json_decode((string) json_encode($shownAt->at($at)->toArray()), true)['things'];
                self::assertSameThings($want, SheetReader::things($sheet, $at), "round $i at $at");
            }
        }
    }

    public function testTheRunSheetAgreesWithShownAtWhereItemsComeAndGo(): void
    {
        $random = Make::random(2610);
        $surroundings = new Surroundings('Europe/Lisbon');
        $from = Instant::parse('2026-10-24T00:00:00Z')->ms;
        $turns = 0;
        for ($i = 0; $i < Make::rounds(40); $i++) {
            $layout = Make::composed(Make::comingAndGoing($random));
            $shownAt = Make::shownAt($layout, 0, $surroundings);
            $sheet = json_decode((string) json_encode(Make::runSheet($layout, 0, $surroundings, $from, $from + 3 * 86_400_000)), true);
            $turns += max(0, ...array_map(static fn (array $layer): int => count($layer['turns'] ?? []), $sheet['layers']));
            for ($n = 0; $n < 40; $n++) {
                $at = $random->getInt($from + 60_000, $from + 3 * 86_400_000);
                self::assertSameThings($shownAt->at($at)->toArray()['things'], SheetReader::things($sheet, $at), "round $i at " . Instant::ofMs($at));
            }
        }
        self::assertGreaterThan(100, $turns);
    }

    /**
     * To 0.02 px, for boxes are written to 0.01.
     *
     * @param list<array<string, mixed>> $want
     * @param list<array<string, mixed>> $found
     */
    public static function assertSameThings(array $want, array $found, string $when): void
    {
        $boxes = static fn (array $things): array => array_map(static fn (array $thing): array => [array_values($thing['rect']), array_values($thing['drawn'])], $things);
        $rest = static fn (array $things): array => json_decode((string) json_encode(array_map(static fn (array $thing): array => array_diff_key($thing, ['rect' => 1, 'drawn' => 1]), $things)), true);
        self::assertEquals($rest($want), $rest($found), $when);
        self::assertEqualsWithDelta($boxes($want), $boxes($found), 0.02, $when);
    }

    public function testTheRunSheetAgreesWithShownAtWhereRowsComeAndGo(): void
    {
        $random = Make::random(81);
        $from = Instant::parse('2026-06-01T00:00:00Z')->ms;
        $things = 0;
        for ($i = 0; $i < Make::rounds(30); $i++) {
            $surroundings = (new Surroundings('Europe/Lisbon', new Typewriter(), atMs: $from))->fed(Make::randomFeeds($random, $from));
            $layout = Make::composed(Make::tellingLayout($random), null, $surroundings);
            $sheet = Make::runSheet($layout, 0, $surroundings, $from - 1000, $from + 200_000);
            $shownAt = Make::shownAt($layout, 0, $surroundings);
            for ($n = 0; $n < 60; $n++) {
                $at = $from + $random->getInt(0, 180_000);
                $want = $shownAt->at($at)->toArray()['things'];
                // Where running text is by now, DrawnTest holds.
                self::assertSameThings(self::withoutRunning($want), self::withoutRunning(SheetReader::things($sheet, $at)), "round $i at " . Instant::ofMs($at));
                $things += count($want);
            }
        }
        self::assertGreaterThan(5000, $things);
    }

    /**
     * @param list<array<string, mixed>> $things
     * @return list<array<string, mixed>>
     */
    private static function withoutRunning(array $things): array
    {
        return array_map(static fn (array $thing): array => $thing['kind'] === 'ticker' ? ['drawn' => $thing['rect']] + array_diff_key($thing, ['ticker' => 1]) : $thing, $things);
    }

    public function testTheTimelineAgreesWithShownAt(): void
    {
        $random = Make::random(8);
        $segments = 0;
        for ($i = 0; $i < Make::rounds(40); $i++) {
            $layout = Make::composed(Make::randomLayout($random, 2));
            $shown = Make::shownAt($layout);
            $from = $random->getInt(0, 100_000);
            foreach (Timeline::of($layout, $from, $from + 9000)['zones'] as $zone) {
                foreach ($zone['segments'] as $segment) {
                    $things = array_filter($shown->at(Instant::parse($segment['from'])->ms)->things, static fn ($thing): bool => $thing->part->element === $zone['id']);
                    // What comes lies above what goes.
                    $due = end($things);
                    self::assertNotFalse($due, "round $i, {$segment['item']}");
                    self::assertSame([$segment['item'], $segment['offset_ms']], [$due->part->item, $due->offsetMs], "round $i at {$segment['from']}");
                    $segments++;
                }
            }
        }
        self::assertGreaterThan(100, $segments);
    }

    public function testZonesCountFromTheWallClock(): void
    {
        $layout = Make::composed(Make::layout([Make::zone('a', 0, 0, 1600, 900, [Make::picture('i1'), Make::film('f1')])]));
        $at = fn (string $instant): array => Make::shownAt($layout)->at(Instant::parse($instant)->ms)->things[0]->toArray();

        self::assertSame(['i1', 0], [$at('1970-01-01T00:00:00Z')['item'], $at('1970-01-01T00:00:00Z')['offset_ms']]);
        self::assertSame(['i1', 9999], [$at('1970-01-01T00:00:34.999Z')['item'], $at('1970-01-01T00:00:34.999Z')['offset_ms']]);
        self::assertSame(['f1', 0], [$at('1970-01-01T00:00:35Z')['item'], $at('1970-01-01T00:00:35Z')['offset_ms']]);
    }

    public function testAFadeShowsBothItemsAndLiesInsideTheDuration(): void
    {
        $fading = Make::film('f1', transition: ['kind' => 'fade', 'ms' => 1000]);
        $layout = Make::composed(Make::layout([Make::zone('a', 0, 0, 1600, 900, [Make::picture('i1'), $fading])]));
        $shown = static fn (int $ms): array => array_map(
            static fn ($thing): array => [$thing->part->item, $thing->offsetMs, $thing->opacity],
            Make::shownAt($layout)->at($ms)->things,
        );

        self::assertSame([['i1', 9999, 1.0]], $shown(9_999));
        self::assertSame([['i1', 10_000, 1.0], ['f1', 250, 0.25]], $shown(10_250));
        self::assertSame([['f1', 1000, 1.0]], $shown(11_000));
    }

    public function testANestedLayoutIsFittedIntoItsZoneAndBeginsWithItsItem(): void
    {
        $inner = Make::layout([
            Make::zone('z', 0, 0, 500, 500, [Make::picture('a', 500, 500, 300), Make::picture('b', 500, 500, 300)]),
            ['id' => 'head', 'kind' => 'text', 'rect' => ['x' => 500, 'y' => 0, 'width' => 500, 'height' => 100], 'text' => 'Tides', 'style' => ['size_px' => 80]],
        ], 1000, 500, 'tides');
        $outer = Make::layout([Make::zone('main', 100, 50, 500, 300, [Make::picture('p', 500, 300, 1000), ['id' => 'n', 'layout' => ['ref' => 'tides']]])]);
        $layout = Make::composed($outer, Library::of([$inner]));

        self::assertSame(1600, $layout->loops['main']->periodMs);
        $things = array_map(static fn ($thing): array => $thing->toArray(), Make::shownAt($layout)->at(1600 * 1000 + 1350)->things);
        self::assertSame(['main', 'main/z', 'main/head'], array_column($things, 'element'));
        self::assertSame('b', $things[1]['item']);
        self::assertSame(50, $things[1]['offset_ms']);
        self::assertSame(['x' => 100, 'y' => 75, 'width' => 250, 'height' => 250], $things[1]['rect']);
        self::assertSame(40, $things[2]['style']['size_px']);
    }

    public function testLoopsMeetAfterTheirLeastCommonMultipleOrNeverWithinAYear(): void
    {
        $zones = static fn (int $a, int $b): Composed => Make::composed(Make::layout([
            Make::zone('a', 0, 0, 960, 1080, [Make::picture('i1', durationMs: $a)]),
            Make::zone('b', 960, 0, 960, 1080, [Make::picture('i1', durationMs: $b)]),
        ]));

        self::assertSame(90_000, $zones(45_000, 30_000)->meetsEveryMs());
        self::assertNull($zones(86_400_001, 86_400_000)->meetsEveryMs());
    }
}
