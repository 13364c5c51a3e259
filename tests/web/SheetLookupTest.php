<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Course;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/** The lookup that players, composer and thumbnails share (web/src/pane/sheet.ts) says what the core says. */
final class SheetLookupTest extends TestCase
{
    public function testTheBrowserLooksUpWhatTheCoreShows(): void
    {
        $random = Make::random(77);
        [$calls, $want] = [[], []];
        for ($i = 0; $i < 40; $i++) {
            $layout = Make::composed(Make::randomLayout($random));
            $anchor = $random->getInt(0, 1) * 1_790_000_000_000;
            [$sheet, $shown] = [Make::runSheet($layout, $anchor), Make::shownAt($layout, $anchor)];
            for ($n = 0; $n < 25; $n++) {
                $at = $anchor + $random->getInt(-9000, 90_000);
                $calls[] = ['dueAt', [$sheet, $at]];
                $want[] = json_decode((string) json_encode($shown->at($at)->toArray()['things']), true);
            }
        }
        self::assertSameThings($want, (new Module('pane/sheet.ts'))->calls($calls));
    }

    public function testTheBrowserLooksUpWhatTheCoreShowsWhereItemsComeAndGo(): void
    {
        $random = Make::random(80);
        $surroundings = new Surroundings('Europe/Lisbon');
        $from = Instant::parse('2026-10-24T00:00:00Z')->ms;
        [$calls, $want] = [[], []];
        for ($i = 0; $i < 12; $i++) {
            $layout = Make::composed(Make::comingAndGoing($random));
            [$sheet, $shown] = [Make::runSheet($layout, 0, $surroundings, $from, $from + 2 * 86_400_000), Make::shownAt($layout, 0, $surroundings)];
            for ($n = 0; $n < 12; $n++) {
                $at = $random->getInt($from + 60_000, $from + 2 * 86_400_000);
                $calls[] = ['dueAt', [$sheet, $at]];
                $want[] = json_decode((string) json_encode($shown->at($at)->toArray()['things']), true);
            }
        }
        self::assertSameThings($want, (new Module('pane/sheet.ts'))->calls($calls));
    }

    /**
     * @param list<list<array<string, mixed>>> $want things at each instant
     * @param list<mixed> $found what the browser draws then
     */
    private static function assertSameThings(array $want, array $found): void
    {
        foreach ($found as $index => $things) {
            $told = array_map(static fn (array $due): array => array_diff_key(array_replace($due['part'], $due['now'] ?? []), ['id' => 1, 'levels' => 1, 'offsets' => 1])
                + ($due['offset_ms'] === null ? [] : ['offset_ms' => $due['offset_ms']])
                + ($due['opacity'] < 1 ? ['opacity' => round($due['opacity'], 4)] : []), $things);
            $boxes = static fn (array $things): array => array_map(static fn (array $thing): array => [array_values($thing['rect']), array_values($thing['drawn'])], $things);
            $rest = static fn (array $things): array => array_map(static fn (array $thing): array => array_diff_key($thing, ['rect' => 1, 'drawn' => 1]), $things);
            self::assertEquals($rest($want[$index]), $rest($told));
            self::assertEqualsWithDelta($boxes($want[$index]), $boxes($told), 0.02);
        }
        self::assertCount(count($want), $found);
    }

    public function testClocksRunningTextAndFillingShapesGoOnInTheBrowserAsInTheCore(): void
    {
        $random = Make::random(79);
        $surroundings = new Surroundings('Europe/Lisbon', new Typewriter());
        [$calls, $want] = [[], []];
        for ($i = 0; $i < 30; $i++) {
            $inner = Make::livelyLayout($random);
            $layout = $i % 3 > 0 ? Make::composed($inner) : Make::composed(Make::layout([Make::zone('o', 0, 0, 640, 360, [
                ['id' => 'i', 'layout' => $inner, 'duration_ms' => 9000], Make::picture('p', durationMs: 3000),
            ])]));
            $shown = Make::shownAt($layout, 0, $surroundings);
            for ($n = 0; $n < 12; $n++) {
                // Around the night on which Lisbon's clocks go back.
                $at = 1_792_890_000_000 + $random->getInt(-90_000_000, 90_000_000);
                $calls[] = ['dueAt', [Make::runSheet($layout, 0, $surroundings), $at]];
                $want[] = json_decode((string) json_encode($shown->at($at)->toArray()['things']), true);
            }
        }
        foreach ((new Module('pane/sheet.ts'))->calls($calls) as $index => $things) {
            foreach ($things as $place => $due) {
                $told = array_diff_key(array_replace($due['part'], $due['now'] ?? []), ['clock' => 1, 'ticker' => 1, 'progress' => 1]);
                foreach (array_intersect_key($want[$index][$place], ['text' => 1, 'local_ms' => 1]) as $field => $value) {
                    self::assertSame($value, $told[$field], json_encode($due['part']) . ' at ' . $calls[$index][1][1]);
                }
                foreach (['rect', 'drawn'] as $box) {
                    foreach ($want[$index][$place][$box] as $side => $px) {
                        self::assertEqualsWithDelta($px, $told[$box][$side], 0.02, "$box of {$due['part']['element']}");
                    }
                }
            }
            self::assertCount(count($want[$index]), $things);
        }
    }

    public function testTheTideTableWritesTheSlotsOfTheTimeline(): void
    {
        $random = Make::random(78);
        [$calls, $want] = [[], []];
        for ($i = 0; $i < 30; $i++) {
            $layout = Make::composed(Make::randomLayout($random, 1));
            $from = $random->getInt(0, 50_000);
            $zones = array_values(array_filter(Make::runSheet($layout)['layers'], static fn (array $layer): bool => isset($layer['zone'])));
            foreach (Timeline::of($layout, $from, $from + 8000)['zones'] as $z => $zone) {
                $calls[] = ['slotsBetween', [$zones[$z], 0, $from, $from + 8000]];
                $want[] = array_map(static fn (array $s): array => [Instant::parse($s['from'])->ms, Instant::parse($s['to'])->ms], $zone['segments']);
            }
        }
        foreach ((new Module('pane/sheet.ts'))->calls($calls) as $i => $slots) {
            $clipped = array_map(static fn (array $slot): array => [max($slot['from'], $calls[$i][1][2]), min($slot['to'], $calls[$i][1][3])], $slots);
            self::assertSame($want[$i], $clipped);
        }
    }

    public function testStepsGoToTheNextAndThePreviousChangeOfAnyZone(): void
    {
        $sheet = Make::runSheet(Make::composed(Make::layout([
            Make::zone('a', 0, 0, 9, 9, [Make::picture('i1', durationMs: 4000), Make::picture('i2', durationMs: 6000)]),
            Make::zone('b', 0, 0, 9, 9, [Make::picture('i1', durationMs: 7000)]),
            Make::zone('c', 0, 0, 9, 9, [['lasts' => 'endless'] + Make::film('f')]),
        ])));
        $still = Make::runSheet(Make::composed(Make::layout([])));
        $sheets = new Module('pane/sheet.ts');

        self::assertSame(
            [4000, 7000, 10_000, 0, 4000, 7000, null],
            $sheets->calls([
                ['nextChange', [$sheet, 0]], ['nextChange', [$sheet, 4000]], ['nextChange', [$sheet, 7000]],
                ['previousChange', [$sheet, 4000]], ['previousChange', [$sheet, 7000]], ['previousChange', [$sheet, 9999]],
                ['nextChange', [$still, 0]],
            ]),
        );
    }

    /** Everything that the core tells as a change is stepped to, from either side, also inside what is booked. */
    public function testStepsReachEveryChangeOfASchedule(): void
    {
        $random = Make::random(79);
        $from = Instant::parse('2026-10-25T00:00:00Z')->ms;
        [$calls, $want] = [[], []];
        for ($round = 0; $round < 6; $round++) {
            $programme = Make::programme(['l' => ['id' => 'l'] + Make::comingAndGoing($random), 'k' => ['id' => 'k'] + Make::comingAndGoing($random)], [
                ['id' => 'b', 'plays' => ['layout' => 'k'], 'rank' => 'dated', 'start' => '2026-10-25T00:30:07', 'end' => '2026-10-25T01:10:00', 'rrule' => 'FREQ=HOURLY;INTERVAL=2;COUNT=5'],
            ], ['layout' => 'l']);
            $sheet = json_decode((string) json_encode(RunSheet::of($programme, null, $from - 86_400_000, $from + 86_400_000)), true);
            $stretches = Course::of($programme, $from, $from + 5 * 3_600_000)->stretches;
            for ($n = 0; $n < 25; $n++) {
                $edge = $stretches[$random->getInt(1, count($stretches) - 1)]->fromMs;
                if ($edge > $from) {
                    array_push($calls, ['nextChange', [$sheet, $edge - 1]], ['previousChange', [$sheet, $edge + 1]]);
                    array_push($want, $edge, $edge);
                }
            }
        }
        self::assertGreaterThan(150, count($want));
        self::assertSame($want, (new Module('pane/sheet.ts'))->calls($calls));
    }

    public function testAStretchIsToldAsTheLoopsThatItGoesThrough(): void
    {
        $valid = ['valid' => ['hours' => [['10:00', '12:00']]]];
        $layout = Make::composed(Make::layout([
            Make::zone('a', 0, 0, 9, 9, [Make::picture('i1', durationMs: 4000), $valid + Make::picture('i2', durationMs: 6000)]),
            Make::zone('b', 0, 0, 9, 9, [Make::picture('i1', durationMs: 7000)]),
        ]));
        $day = Instant::parse('2026-06-03T00:00:00Z')->ms;
        $layers = Make::runSheet($layout, 0, null, $day, $day + 86_400_000)['layers'];
        [$turning, $still] = (new Module('pane/sheet.ts'))->calls([
            ['roundsBetween', [$layers[0], 0, $day + 8 * 3_600_000, $day + 14 * 3_600_000]], ['roundsBetween', [$layers[1], 0, $day, $day + 86_400_000]],
        ]);
        self::assertSame([[4000, 1], [10_000, 2], [4000, 1]], array_map(static fn (array $round): array => [$round['period_ms'], $round['slots']], $turning));
        self::assertSame([8 * 3_600_000, 10 * 3_600_000, 12 * 3_600_000], array_map(static fn (array $round): int => intdiv($round['from'] - $day, 3_600_000) * 3_600_000, $turning));
        self::assertSame([['from' => $day, 'to' => $day + 86_400_000, 'period_ms' => 7000, 'slots' => 1]], $still);
    }
}
