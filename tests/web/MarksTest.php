<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Core\Make;

/** Parts of a text that are set otherwise, as hands mark them and as typing carries them along (web/src/Layout/composer/marks.ts). */
final class MarksTest extends TestCase
{
    public function testPartsAreMarkedJoinedAndMadePlain(): void
    {
        $bold = ['weight' => 700];
        $marks = [['weight' => 700, 'from' => 2, 'to' => 5]];
        self::assertEquals([
            [$bold + ['from' => 0, 'to' => 5]],
            [$bold + ['from' => 2, 'to' => 9]],
            [$bold + ['from' => 2, 'to' => 3], $bold + ['color' => '#ff0000', 'from' => 3, 'to' => 5], ['color' => '#ff0000', 'from' => 5, 'to' => 6]],
            [$bold + ['from' => 2, 'to' => 3]],
            [],
            $marks,
        ], (new Module('Layout/composer/marks.ts'))->calls([
            ['marked', [$marks, 0, 2, $bold]],
            ['marked', [$marks, 5, 9, $bold]],
            ['marked', [$marks, 3, 6, ['color' => '#ff0000']]],
            ['marked', [[['weight' => 700, 'from' => 2, 'to' => 3]], 4, 4, $bold]],
            ['marked', [[], 1, 1, $bold]],
            ['marked', [$marks, 3, 3, ['color' => '#ff0000']]],
        ]));
    }

    public function testWhatAllOfAStretchHasInCommonIsSaid(): void
    {
        $marks = [['weight' => 700, 'color' => '#ff0000', 'from' => 0, 'to' => 4], ['weight' => 700, 'from' => 4, 'to' => 8]];
        self::assertEquals([['weight' => 700], ['weight' => 700, 'color' => '#ff0000'], [], []], (new Module('Layout/composer/marks.ts'))->calls([
            ['lookOf', [$marks, 0, 8]], ['lookOf', [$marks, 1, 3]], ['lookOf', [$marks, 6, 9]], ['lookOf', [$marks, 8, 9]],
        ]));
    }

    public function testMarksGoAlongWithWhatIsTyped(): void
    {
        $mark = static fn (int $from, int $to): array => [['weight' => 700, 'from' => $from, 'to' => $to]];
        $cases = [
            ['Berth 2', 'The berth 2', $mark(6, 7), $mark(10, 11)],
            ['Berth 2', 'Berth 22', $mark(6, 7), $mark(6, 8)],
            ['Berth 2 open', 'Berth open', $mark(6, 7), []],
            ['Berth 2 open', 'Berth 2 is open', $mark(0, 5), $mark(0, 5)],
            ['Berth 2', 'B2', $mark(0, 5), $mark(0, 1)],
            ['⛴ Tolm', '⛴⛴ Tolm', $mark(2, 6), $mark(3, 7)],
            ['abc', '', $mark(0, 3), []],
        ];
        self::assertSame(
            array_column($cases, 3),
            (new Module('Layout/composer/marks.ts'))->calls(array_values(array_map(static fn (array $c): array => ['shifted', [$c[2], $c[0], $c[1]]], $cases))),
        );
        self::assertSame(2, (new Module('Layout/composer/marks.ts'))->call('characterAt', '⛴ é', 2), 'places of a field are characters here');
    }

    /** Whatever is marked and typed: marks stay in order, within the text, and none lies over another. */
    public function testMarksNeverLieOverEachOther(): void
    {
        $random = Make::random(700);
        $texts = ['Sailings to Tolm', 'Sailings Tolm', 'To Tolm at noon', 'Sailings to Great Pellan, Tolm', ''];
        $share = static fn (): float => $random->getInt(0, 999) / 1000;
        $steps = array_map(static fn (): array => [$share(), $share(), $random->getInt(0, 2), $texts[$random->getInt(0, 4)]], range(1, 200));
        $all = Scene::of('marks.ts', 'typedOver', $steps);
        self::assertIsArray($all);
        foreach ($all as [$length, $marks]) {
            $behind = 0;
            foreach ($marks as $mark) {
                self::assertGreaterThanOrEqual($behind, $mark['from']);
                self::assertGreaterThan($mark['from'], $behind = $mark['to']);
            }
            self::assertLessThanOrEqual($length, $behind);
        }
    }
}
