<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Core\Make;

/** The tide table: what is written where there is room for it, and what hands do to the order and the lengths. */
final class TideTest extends TestCase
{
    private const WIDTH = 1000;

    public function testFromASecondToAWeekARowTellsSlotsRoundsOrHowItGoesRound(): void
    {
        $items = [Make::picture('a', durationMs: 10_000), Make::picture('b', durationMs: 20_000)];
        $zone = Make::runSheet(Make::composed(Make::layout([Make::zone('z', 0, 0, 9, 9, $items)])))['layers'][0];
        $sheets = new Module('pane/sheet.ts');
        $pieces = static fn (int $from, int $span): array => $sheets->calls([['piecesBetween', [$zone, 0, $from, $from + $span, self::WIDTH / $span]]])[0];

        self::assertSame([[0, 10_000, 0]], self::told($pieces(1500, 1000)), 'a second is within one slot, which is told whole');
        self::assertSame([[10_000, 30_000, 1], [30_000, 40_000, 0], [40_000, 60_000, 1], [60_000, 70_000, 0], [70_000, 90_000, 1]], self::told($pieces(25_000, 60_000)));
        $rounds = $pieces(15_000, 3_600_000);
        self::assertSame([121, [15_000, 30_000, null], false], [count($rounds), self::told($rounds)[0], $rounds[0]['first']], 'an hour holds 120 rounds, the first and the last cut');
        self::assertNotSame($rounds[1]['shade'], $rounds[2]['shade']);
        $week = $pieces(0, 7 * 86_400_000);
        self::assertSame([[[0, 604_800_000, null]], 30_000], [self::told($week), $week[0]['period_ms']]);
    }

    public function testEveryInstantOfASpanIsInOnePieceAtMostAtAnyZoom(): void
    {
        $random = Make::random(91);
        $sheets = new Module('pane/sheet.ts');
        [$calls, $spans] = [[], []];
        for ($n = 0; $n < 60; $n++) {
            $layers = Make::runSheet(Make::composed(Make::comingAndGoing($random)), 0, null, 0, 86_400_000)['layers'];
            foreach ($layers as $zone) {
                if (isset($zone['zone'])) {
                    $span = [1000, 60_000, 3_600_000, 80_000_000][$n % 4];
                    $from = $random->getInt(0, 86_400_000 - $span);
                    $calls[] = ['piecesBetween', [$zone, 0, $from, $from + $span, self::WIDTH / $span]];
                    $spans[] = [$from, $from + $span];
                }
            }
        }
        foreach ($sheets->calls($calls) as $index => $pieces) {
            [$from, $to] = $spans[$index];
            $at = $pieces[0]['from'] ?? $from;
            foreach ($pieces as $piece) {
                self::assertGreaterThanOrEqual($at, $piece['from']);
                self::assertGreaterThan(max($from, $piece['from']), $piece['to']);
                self::assertLessThan($to, $piece['from']);
                $at = $piece['to'];
            }
            self::assertLessThan(2100, count($pieces));
        }
        self::assertGreaterThan(100, count($spans));
    }

    public function testRelatedLoopsAreShownToDriftApartUntilTheyMeet(): void
    {
        $zone = static fn (string $id, int $ms): array => Make::zone($id, 0, 0, 9, 9, [Make::picture('a', durationMs: $ms), Make::picture('b', durationMs: $ms)]);
        [$one, $other] = Make::runSheet(Make::composed(Make::layout([$zone('one', 22_500), $zone('other', 20_000)])))['layers'];
        $drifts = (new Module('pane/sheet.ts'))->call('driftsBetween', $one, $other, 0, 0, 361_000);
        self::assertIsArray($drifts);
        self::assertSame([0, 45_000, 90_000, 135_000, 180_000, 225_000, 270_000, 315_000, 360_000], array_column($drifts, 'at'));
        self::assertSame([0, 5000, 10_000, 15_000, 20_000, -15_000, -10_000, -5000, 0], array_column($drifts, 'by'), 'loops of 45 s and 40 s meet every 360 s');
    }

    public function testAnInstantIsTypedAsATimeOfItsDayOrWithADay(): void
    {
        // The hand stands at 23:30 of 1 December in Lisbon, which is 2 December in Paris; July has summer time.
        self::assertSame(
            ['2026-12-01T14:03:00', '2026-12-01T04:03:20', '2027-07-01T13:03:00', '2026-12-02T07:00:00', null, null, null],
            Scene::of('hands.ts', 'instants'),
        );
    }

    public function testAFieldThatIsSetToNothingIsTakenAway(): void
    {
        self::assertSame([['id' => 'a'], ['id' => 'b', 'weight' => 2]], Scene::of('items.ts', 'withoutAField'));
    }

    /** Acts on a list are done in turn, each to what has come of the one before, though the list is handed down by a parent. */
    public function testItemsAreChangedInTurn(): void
    {
        self::assertSame([[['a', 'b'], ['b', 'a'], ['b', 'a', 'c']], ['b', 'a', 'c', 'd'], 'Nothing here.'], Scene::of('items.ts', 'inTurn'));
    }

    /**
     * @param array<mixed> $pieces
     * @return list<array{mixed, mixed, mixed}> from, to and scene of each
     */
    private static function told(array $pieces): array
    {
        return array_map(null, array_column($pieces, 'from'), array_column($pieces, 'to'), array_column($pieces, 'scene'));
    }
}
