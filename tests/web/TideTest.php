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

        self::assertSame([[1500, 2500, 0]], self::told($pieces(1500, 1000)), 'a second is within one slot');
        self::assertSame([[25_000, 30_000, 1], [30_000, 40_000, 0], [40_000, 60_000, 1], [60_000, 70_000, 0], [70_000, 85_000, 1]], self::told($pieces(25_000, 60_000)));
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
            $at = $from;
            foreach ($pieces as $piece) {
                self::assertGreaterThanOrEqual($at, $piece['from']);
                self::assertGreaterThan($piece['from'], $piece['to']);
                $at = $piece['to'];
            }
            self::assertLessThanOrEqual($to, $at);
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

    public function testItemsAreMovedStretchedAndTypedOver(): void
    {
        $list = array_map(static fn (string $id): array => ['id' => $id] + ($id === 'c' ? ['tied' => true] : []), ['a', 'b', 'c', 'd']);
        $film = ['id' => 'f', 'media' => ['name' => 'f', 'length_ms' => 15_000], 'transition' => ['kind' => 'fade', 'ms' => 800], 'lasts' => 'endless'];
        $edits = (new Module('Time/itemEdits.ts'))->calls([
            ['moved', [$list, 0, false]], ['moved', [$list, 3, true]], ['moved', [$list, 0, true]], ['movedTo', [$list, 'd', 'a']], ['movedTo', [$list, 'a', 'd']], ['movedTo', [$list, 'a', 'x']],
            ['lasting', [$film, 15_000]], ['lasting', [$film, 500]], ['withItem', [[$film], 0, ['duration_ms' => 500]]],
            ['typedMs', ['12,5']], ['typedMs', ['0']], ['typedMs', ['-3']], ['typedMs', ['']], ['typedMs', ['soon']], ['typedMs', ['86400']],
        ]);
        $ids = static fn (array $items): string => implode('', array_column($items, 'id'));
        self::assertSame(['bcad', 'adbc', 'abcd', 'dabc', 'bcda', 'abcd'], array_map($ids, array_slice($edits, 0, 6)), 'what is tied moves together');
        self::assertSame(['transition' => ['kind' => 'fade', 'ms' => 800]], $edits[6], 'as long as it is, nothing is stated');
        self::assertSame(['duration_ms' => 500, 'transition' => ['kind' => 'fade', 'ms' => 500]], $edits[7], 'a transition lies inside');
        self::assertSame(500, $edits[8][0]['duration_ms']);
        self::assertSame([12_500, null, null, null, null, 86_400_000], array_slice($edits, 9));
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
