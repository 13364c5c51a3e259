<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Playback\Course;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;

/** What the tide table, rehearsals and the player look up in a run sheet (web/src/pane/sheet.ts) is what the core says. */
final class SheetLookupTest extends TestCase
{
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
