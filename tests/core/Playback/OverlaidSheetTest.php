<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Playback\Overlaid;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Overlay\OverlayDocuments;
use UpperPane\Tests\Core\Overlay\RandomOverlaid;
use UpperPane\Tests\Core\Typewriter;

/** What lies above is compiled like all else: the run sheet says at every instant what ShownAt says, and a player needs nobody to begin and end it. */
final class OverlaidSheetTest extends TestCase
{
    public function testTheRunSheetAgreesAtEveryInstant(): void
    {
        $random = Make::random(1603);
        $from = Instant::parse('2026-10-24T00:00:00Z')->ms;
        $to = $from + 2 * 86_400_000;
        $overlaid = $alone = 0;
        for ($i = 0; $i < Make::rounds(60); $i++) {
            $made = RandomOverlaid::of($random, $i % 3 > 0);
            if ($made === null) {
                continue;
            }
            [$programme, $around] = $made;
            $sheet = json_decode((string) json_encode(RunSheet::of($programme, $around, $from, $to)), true);
            $shownAt = ShownAt::of($programme, $around);
            for ($n = 0; $n < 60; $n++) {
                $at = $random->getInt($from + 60_000, $to - 1);
                $want = self::comparable($shownAt->at($at)->toArray()['things']);
                ShownAtTest::assertSameThings($want, self::comparable(SheetReader::things($sheet, $at)), "round $i at " . Instant::ofMs($at));
                $over = array_filter($want, static fn (array $thing): bool => isset($thing['overlay']));
                $overlaid += count($over);
                $alone += $over !== [] && count($over) === count($want) ? 1 : 0;
            }
            // Behind the span nothing that has an end is left standing.
            $behind = array_filter(SheetReader::things($sheet, $to + 3_600_000), static fn (array $thing): bool => isset($thing['overlay']));
            self::assertSame([], array_filter($behind, static fn (array $thing): bool => in_array($thing['overlay'], $made[2], true)), "round $i");
        }
        self::assertGreaterThan(3000, $overlaid);
        self::assertGreaterThan(100, $alone);
    }

    /** The same span parted, walked by its changes and looked up instant by instant is one and the same. */
    public function testNothingChangesBetweenTwoChanges(): void
    {
        $random = Make::random(1604);
        $from = Instant::parse('2026-10-24T00:00:00Z')->ms;
        $changes = 0;
        for ($i = 0; $i < Make::rounds(10); $i++) {
            $made = RandomOverlaid::of($random, false);
            if ($made === null) {
                continue;
            }
            $shownAt = ShownAt::of($made[0], $made[1]);
            for ($n = 0, $at = $from + $random->getInt(0, 80_000_000); $n < 12; $n++) {
                $next = $shownAt->nextChange($at);
                if ($next === PHP_INT_MAX) {
                    break;
                }
                $between = $random->getInt($at, min($next - 1, $at + 20_000_000));
                self::assertSame(self::named($shownAt, $at), self::named($shownAt, $between), "round $i from " . Instant::ofMs($at) . ' at ' . Instant::ofMs($between));
                $at = $next;
                $changes++;
            }
        }
        self::assertGreaterThan(60, $changes);
    }

    /** All of it is drawn on the raster of the display; what plays is as large as it was made, for how it fits is told by that. */
    public function testWhatPlaysKeepsItsOwnCanvas(): void
    {
        $plays = Programme::endless(Composer::over()->layout(Layout::fromArray(Make::layout([], 640, 480))), 'UTC');
        $overlays = Overlays::of(Overlay::fromArray(OverlayDocuments::mark()));
        $programme = Overlaid::of($plays, $overlays, Composer::over(), Size::px(1920, 1080))->programme;
        self::assertTrue($programme->own()->equals(Size::px(640, 480)));
        self::assertTrue($programme->canvas()->equals(Size::px(1920, 1080)));
    }

    /** After every third of two items, for a season: a round is written, not each time that it comes. */
    public function testWhatComesAfterItemsIsWrittenAsARound(): void
    {
        $base = Make::layout([Make::zone('z', 0, 0, 1920, 1080, [Make::picture('a', durationMs: 7000), Make::picture('b', durationMs: 4000)])]);
        $alarm = Make::layout([], 100, 100, 'alarm');
        $after = OverlayDocuments::takeover(when: ['after' => ['every' => 3], 'lasts_ms' => 2500, 'until' => '2026-09-01T00:00:00']);
        $from = Instant::parse('2026-06-01T00:00:00Z')->ms;
        $sheet = RunSheet::of(RandomOverlaid::over($base, [$after], [$alarm])->programme, new Surroundings('UTC', new Typewriter()), $from, $from + 92 * 86_400_000);
        self::assertLessThan(8000, strlen((string) json_encode($sheet)));
        self::assertTrue($sheet['layers'][1]['alone']);
        // 33 s hold three rounds of 11 s: two times three items.
        self::assertContains(33_000, array_column($sheet['layers'][1]['loops'], 'period_ms'));
    }

    /**
     * Where running text is by now, DrawnTest holds; how long a layout of an overlay is seen is no place in an item.
     *
     * @param list<array<string, mixed>> $things
     * @return list<array<string, mixed>>
     */
    private static function comparable(array $things): array
    {
        return array_map(static fn (array $thing): array => array_diff_key(
            ($thing['kind'] === 'ticker' ? ['drawn' => $thing['rect']] : []) + $thing,
            ['ticker' => 1] + (isset($thing['overlay']) && !isset($thing['item']) ? ['offset_ms' => 1] : []),
        ), $things);
    }

    /** @return list<string> what overlays draw, and where what plays lies, but for items, which fade */
    private static function named(ShownAt $shownAt, int $at): array
    {
        $things = $shownAt->at($at)->things;
        $steady = array_filter($things, static fn ($thing): bool => $thing->part->item === null && in_array($thing->part->element, ['words', $thing->part->place['overlay'] ?? ''], true));

        return array_values(array_map(static fn ($thing): string => json_encode([$thing->part->element, $thing->part->place, $thing->part->rect->toArray()], JSON_THROW_ON_ERROR), $steady));
    }
}
