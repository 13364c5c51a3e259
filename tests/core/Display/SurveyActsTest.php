<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Display;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\PlacedPanel;
use UpperPane\Core\Display\Rotation;
use UpperPane\Core\Display\SizeClasses;
use UpperPane\Core\Display\Survey;
use UpperPane\Core\Display\SurveyActs;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Tests\Core\Make;

/**
 * What hands do to a survey, judged by the display that comes of it.
 *
 * @phpstan-import-type Doc from Make
 */
final class SurveyActsTest extends TestCase
{
    public function testAGridGrowsAndShrinksAroundWhatHangsThere(): void
    {
        $named = Make::wall(2, 2);
        $named['panels'][3]['id'] = 'corner';
        $wide = self::done($named, ['do' => 'grid', 'columns' => 3, 'rows' => 2]);
        self::assertSame(['A1', 'A2', 'A3', 'B1', 'corner', 'B3'], self::ids($wide));
        self::assertSame('5768 x 2164', (string) $wide->raster());
        self::assertSame(['A1', 'B1'], self::ids(self::done($named, ['do' => 'grid', 'columns' => 1, 'rows' => 2])));

        $twice = Make::wall(1, 1);
        $twice['panels'][0]['id'] = 'A2';
        self::assertSame(['A2', 'A2-2'], self::ids(self::done($twice, ['do' => 'grid', 'columns' => 2, 'rows' => 1])), 'no id is given twice');
    }

    public function testAGridHungFreelyHangsWhereItHungAndGoesBack(): void
    {
        foreach ([Make::wall(3, 2), Make::wall(2, 3, 90, gap_mm: ['x' => 7.5, 'y' => 3]), Make::wall(1, 4)] as $grid) {
            $free = self::done($grid, ['do' => 'hang', 'way' => 'free']);
            $places = static fn (Display $display): array => array_map(
                static fn (PlacedPanel $panel): array => array_map(static fn (int|float $mm): float => round($mm, 1), $panel->place->toArray()),
                $display->wall->panels,
            );
            self::assertTrue($free->wall->free);
            self::assertSame($places(Display::fromArray($grid)), $places($free));

            $back = self::done($free->toArray(), ['do' => 'hang', 'way' => 'grid']);
            $cells = static fn (array $panels): array => array_map(static fn (array $p): array => [$p['id'], $p['column'], $p['row']], $panels);
            self::assertSame($cells($grid['panels']), $cells($back->toArray()['panels']));
        }
    }

    public function testTwoSwappedPanelsHaveEachOthersOutputs(): void
    {
        $wall = Make::wall(3, 1, players: [['id' => 'a'], ['id' => 'b']]);
        $wall['panels'][2]['player'] = 'b';
        $swap = ['do' => 'swap', 'panels' => ['A1', 'A3']];
        $mended = self::done($wall, $swap);

        self::assertSame(['A1' => ['b', 1], 'A2' => ['a', 2], 'A3' => ['a', 1]], self::fed($mended));
        self::assertSame(self::fed(Display::fromArray($wall)), self::fed(self::done($mended->toArray(), $swap)), 'and back');
        self::refuses(Reason::ValueRange, $wall, ['do' => 'swap', 'panels' => ['A1']]);
        self::refuses(Reason::RefUnknown, $wall, ['do' => 'swap', 'panels' => ['A1', 'A9']]);
    }

    public function testAnOutputGivenToAPanelIsTakenFromWhoeverHadIt(): void
    {
        $wall = Make::wall(4, 1, players: [['id' => 'a'], ['id' => 'b']]);
        $given = self::done($wall, ['do' => 'feed', 'panel' => 'A4', 'player' => null, 'output' => 1]);
        self::assertSame(['A1' => 4, 'A2' => 2, 'A3' => 3, 'A4' => 1], array_map(static fn (array $fed): ?int => $fed[1], self::fed($given)));
        self::assertSame([], array_filter(Survey::check($given)->all, static fn (Finding $f): bool => $f->code === 'output.twice'));
        self::assertSame(self::fed(Display::fromArray($wall)), self::fed(self::done($given->toArray(), ['do' => 'renumber'])));
        self::assertSame(['b', 1], self::fed(self::done($wall, ['do' => 'feed', 'panel' => 'A4', 'player' => 'b', 'output' => null]))['A4'], 'what is free on the other player');
    }

    public function testOneMorePanelOverlapsNoOtherAndTheLastOneStays(): void
    {
        foreach ([Make::wall(2, 2), Make::freeWall(['one' => ['origin_mm' => ['x' => -300, 'y' => 20]], 'two' => ['origin_mm' => ['x' => 700, 'y' => 90]]])] as $wall) {
            $more = self::done($wall, ['do' => 'add', 'like' => $wall['panels'][0]['id']]);
            self::assertCount(count($wall['panels']) + 1, $more->wall->panels);
            self::assertNotContains('panel.overlap', array_map(static fn (Finding $f): string => $f->code, Survey::check($more)->all));
            $left = self::done($more->toArray(), ['do' => 'remove', 'panels' => array_slice(self::ids($more), 1)]);
            self::assertSame([$wall['panels'][0]['id']], self::ids($left));
            self::refuses(Reason::ValueRange, $left->toArray(), ['do' => 'remove', 'panels' => self::ids($left)]);
        }
    }

    public function testAPlayerKeepsTheLinksOfTheOutputsThatStay(): void
    {
        $wall = Make::wall(2, 1, players: [['id' => 'a', 'outputs' => [['number' => 1, 'link' => 'displayport-1.2'], ['number' => 2, 'link' => 'hdmi-1.4']]]]);
        $links = static fn (int $count): array => array_column(self::done($wall, ['do' => 'outputs', 'player' => 'a', 'count' => $count])->toArray()['players'][0]['outputs'], 'link', 'number');
        self::assertSame([1 => 'displayport-1.2', 2 => 'hdmi-1.4', 3 => 'displayport-1.2'], $links(3));
        self::assertSame([1 => 'displayport-1.2'], $links(1));

        $two = self::done($wall, ['do' => 'add-player']);
        self::assertSame(['a', 'b'], array_column($two->toArray()['players'], 'id'));
        $document = $two->toArray();
        $document['panels'][1] = ['player' => 'b', 'output' => 1] + $document['panels'][1];
        $document['processor'] = ['player' => 'b', 'output' => 1];
        $one = self::done($document, ['do' => 'remove-player', 'player' => 'b']);
        self::assertSame([['A1' => ['a', 1], 'A2' => ['a', 2]], null], [self::fed($one), $one->processor]);
        self::refuses(Reason::RefUnknown, $wall, ['do' => 'outputs', 'player' => 'z', 'count' => 1]);
    }

    public function testInputsAndSensorsGetIdsOfTheirOwn(): void
    {
        $wall = Make::wall(1, 1, inputs: [['id' => 'in2', 'name' => 'Deck', 'raster' => ['width' => 9, 'height' => 9]]]);
        $one = self::done($wall, ['do' => 'add-input'])->toArray();
        $two = self::done($one, ['do' => 'add-input'])->toArray();
        $three = self::done(self::done($two, ['do' => 'add-sensor'])->toArray(), ['do' => 'add-sensor']);
        self::assertSame([['in2', 'in1', 'in3'], ['s1', 's2']], [array_column($two['inputs'], 'id'), array_column($three->toArray()['sensors'], 'id')]);
        self::assertSame([500.0, 1000.0, 2000.0], $three->sensors[0]->bandsMm);
    }

    /** A wall of LED cabinets is one output unless its panels have outputs; one of screens is so only with a processor. */
    public function testAllPanelsAreOneOutputOrEachHasItsOwn(): void
    {
        $led = ['technology' => 'led'] + Make::wall(2, 1);
        foreach ([$led, Make::wall(2, 1)] as $wall) {
            $apart = self::done($wall, ['do' => 'apart']);
            self::assertSame([null, [1, 2]], [$apart->processor, array_column(self::fed($apart), 1)]);
            $together = self::done($apart->toArray(), ['do' => 'together']);
            self::assertSame((string) $together->raster(), (string) $together->processor?->raster);
        }
    }

    public function testASurveyBeginsWithPanelsOfAClassOnAGrid(): void
    {
        $begun = static fn (string $size, int $columns, int $rows): Display => SurveyActs::begun('new', 'Gate 5', 'Europe/Lisbon', Node::root($size), $columns, $rows, Rotation::Quarter);
        $one = $begun('wide-43', 1, 1);
        self::assertSame([['p1'], '1080 x 1920', 8000.0], [self::ids($one), (string) $one->raster(), $one->viewing->farthestMm]);
        $sign = $begun('led-4', 3, 2);
        self::assertSame([6, true, 20_000.0, 6], [count($sign->wall->panels), $sign->led, $sign->viewing->farthestMm, count($sign->toArray()['players'][0]['outputs'])]);
        foreach (array_column(SizeClasses::all(), 'id') as $size) {
            $levels = array_map(static fn (Finding $finding): string => $finding->code, Survey::check($begun($size, 1, 1))->all);
            self::assertSame([], array_diff($levels, ['survey.range', 'output.over-budget']), $size);
        }
        $other = self::done($one->toArray(), ['do' => 'size', 'panels' => [], 'size' => 'wide-65']);
        self::assertSame('2160 x 3840', (string) $other->raster());
        self::refuses(Reason::ValueUnknown, $one->toArray(), ['do' => 'size', 'panels' => [], 'size' => 'huge']);
        self::refuses(Reason::ValueUnknown, $one->toArray(), ['do' => 'hang', 'way' => 'upside down']);
    }

    /**
     * @param Doc $document
     * @param array<string, mixed> $act
     */
    private static function done(array $document, array $act): Display
    {
        return SurveyActs::done(Display::fromArray($document), Node::root($act));
    }

    /**
     * @param Doc $document
     * @param array<string, mixed> $act
     */
    private static function refuses(Reason $reason, array $document, array $act): void
    {
        try {
            self::done($document, $act);
            self::fail('It was done.');
        } catch (Refused $e) {
            self::assertSame($reason, $e->reason);
        }
    }

    /** @return list<string> */
    private static function ids(Display $display): array
    {
        return array_map(static fn (PlacedPanel $panel): string => $panel->panel->id, $display->wall->panels);
    }

    /** @return array<string, array{?string, ?int}> */
    private static function fed(Display $display): array
    {
        return array_column(array_map(static fn (PlacedPanel $p): array => [$p->panel->id, [$p->player, $p->output]], $display->wall->panels), 1, 0);
    }
}
