<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\PlacedPanel;
use UpperPane\Core\Display\Survey;
use UpperPane\Tests\Core\Make;

/** What hands do to a display's document (web/src/Display/edit.ts), judged by what the core then makes of it. */
final class WallHandsTest extends TestCase
{
    public function testAGridGrowsAndShrinksAroundWhatHangsThere(): void
    {
        $named = Make::wall(2, 2);
        $named['panels'][3]['id'] = 'corner';
        $wide = self::edited('onGrid', $named, 3, 2);
        self::assertSame(['A1', 'A2', 'A3', 'B1', 'corner', 'B3'], array_column($wide['panels'], 'id'));
        self::assertSame('5768 x 2164', (string) Display::fromArray($wide)->raster());
        self::assertSame(['A1', 'B1'], array_column(self::edited('onGrid', $named, 1, 2)['panels'], 'id'));

        $twice = Make::wall(1, 1);
        $twice['panels'][0]['id'] = 'A2';
        self::assertSame(['A2', 'A2-2'], array_column(self::edited('onGrid', $twice, 2, 1)['panels'], 'id'), 'no id is given twice');
    }

    public function testAGridHungFreelyHangsWhereItHungAndGoesBack(): void
    {
        foreach ([Make::wall(3, 2), Make::wall(2, 3, 90, gap_mm: ['x' => 7.5, 'y' => 3]), Make::wall(1, 4)] as $grid) {
            $free = self::edited('hungFreely', $grid, self::wall($grid));
            $places = static fn (array $doc): array => array_map(
                static fn (PlacedPanel $panel): array => array_map(static fn (int|float $mm): float => round($mm, 1), $panel->place->toArray()),
                Display::fromArray($doc)->wall->panels,
            );
            self::assertTrue(Display::fromArray($free)->wall->free);
            self::assertSame($places($grid), $places($free));

            $back = self::edited('hungOnGrid', $free, self::wall($free));
            self::assertSame(
                array_map(static fn (array $p): array => [$p['id'], $p['column'], $p['row']], $grid['panels']),
                array_map(static fn (array $p): array => [$p['id'], $p['column'], $p['row']], $back['panels']),
            );
        }
    }

    public function testTwoSwappedPanelsHaveEachOthersOutputs(): void
    {
        $wall = Make::wall(3, 1, players: [['id' => 'a'], ['id' => 'b']]);
        $wall['panels'][2]['player'] = 'b';
        $mended = self::edited('swapped', $wall, self::wall($wall), 'A1', 'A3');

        self::assertSame(['A1' => ['b', 1], 'A2' => ['a', 2], 'A3' => ['a', 1]], self::fed($mended));
        self::assertSame(self::fed($wall), self::fed(self::edited('swapped', $mended, self::wall($mended), 'A1', 'A3')), 'and back');
    }

    public function testAnOutputGivenToAPanelIsTakenFromWhoeverHadIt(): void
    {
        $wall = Make::wall(4, 1);
        $given = self::edited('feeds', $wall, self::wall($wall), 'A4', null, 1);
        self::assertSame(['A1' => 4, 'A2' => 2, 'A3' => 3, 'A4' => 1], array_map(static fn (array $fed): ?int => $fed[1], self::fed($given)));
        self::assertSame([], array_filter(Survey::check(Display::fromArray($given))->all, static fn ($f): bool => $f->code === 'output.twice'));
        self::assertSame(self::fed($wall), self::fed(self::edited('numbered', $given)));
    }

    public function testOneMorePanelOverlapsNoOther(): void
    {
        foreach ([Make::wall(2, 2), Make::freeWall(['one' => ['origin_mm' => ['x' => -300, 'y' => 20]], 'two' => ['origin_mm' => ['x' => 700, 'y' => 90]]])] as $wall) {
            $more = self::edited('withPanel', $wall, self::wall($wall), $wall['panels'][0]);
            self::assertCount(count($wall['panels']) + 1, $more['panels']);
            $codes = array_map(static fn ($f): string => $f->code, Survey::check(Display::fromArray($more))->all);
            self::assertNotContains('panel.overlap', $codes);
        }
    }

    public function testAPlayerKeepsTheLinksOfTheOutputsThatStay(): void
    {
        $player = ['id' => 'a', 'outputs' => [['number' => 1, 'link' => 'dp-1.2'], ['number' => 2, 'link' => 'hdmi-1.4']]];
        $links = fn (int $count): array => array_column((new Module('Display/edit.ts'))->call('withOutputs', $player, $count, 'hdmi-2.0')['outputs'], 'link', 'number');

        self::assertSame([1 => 'dp-1.2', 2 => 'hdmi-1.4', 3 => 'dp-1.2'], $links(3));
        self::assertSame([1 => 'dp-1.2'], $links(1));
    }

    public function testAPageKnowsWhichOutputItIs(): void
    {
        $output = static fn (?string $player, int $number): array => ['player' => $player, 'output' => $number, 'panels' => ["p$number"]];
        $outputs = [$output('a', 1), $output('a', 2), $output('b', 1)];
        $found = (new Module('player/output.ts'))->calls([
            ['thisOutput', [$outputs, 'a', 2]],
            ['thisOutput', [$outputs, 'b', null]],
            ['thisOutput', [$outputs, 'a', null]],
            ['thisOutput', [$outputs, 'b', 2]],
            ['thisOutput', [[$output(null, 1)], null, null]],
        ]);

        self::assertSame(['p2', 'p1', null, null, 'p1'], array_map(static fn (?array $one): ?string => $one['panels'][0] ?? null, $found));
    }

    /**
     * @param array<string, mixed> $document
     * @return array<string, mixed>
     */
    private static function edited(string $hand, array $document, mixed ...$arguments): array
    {
        return (array) (new Module('Display/edit.ts'))->call($hand, $document, ...$arguments);
    }

    /**
     * @param array<string, mixed> $document
     * @return array<string, mixed>
     */
    private static function wall(array $document): array
    {
        return Display::fromArray($document)->wall->toArray();
    }

    /**
     * @param array<string, mixed> $document
     * @return array<string, array{?string, ?int}>
     */
    private static function fed(array $document): array
    {
        return array_column(array_map(static fn (PlacedPanel $p): array => [$p->panel->id, [$p->player, $p->output]], Display::fromArray($document)->wall->panels), 1, 0);
    }
}
