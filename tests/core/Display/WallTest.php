<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Display;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\PlacedPanel;
use UpperPane\Core\Display\Wall;
use UpperPane\Core\Geometry\FreeSpace;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Tests\Core\Make;

/** Walls: what is one canvas, what each panel shows of it, what is hidden, what feeds it. */
final class WallTest extends TestCase
{
    public function testTheHallWallGoesOnBehindItsBezels(): void
    {
        $wall = self::planned(Make::wall());
        $said = $wall->toArray();

        // 2.7 mm x 1.5873 px/mm = 4.29 px, rounded for each seam alone.
        self::assertSame([1.5873, [4, 4], [4], ['width' => 5768, 'height' => 2164]], [$said['density'], $said['hidden']['columns'], $said['hidden']['rows'], $said['canvas']]);
        self::assertSame(['x' => -0.36, 'y' => -0.18], $said['error_mm'], 'seams of 4.29 px are drawn 4 px wide');
        self::assertSame(
            [['terms' => [[3, 1920], [2, 4]], 'total' => 5768, 'canvas' => 5768], ['terms' => [[2, 1080], [1, 4]], 'total' => 2164, 'canvas' => 2164]],
            $wall->sums(),
        );
        self::assertSame(['width' => 3634.2, 'height' => 1363.5], $said['size_mm']);
        self::assertSame(['x' => 1924, 'y' => 1084, 'width' => 1920, 'height' => 1080], $wall->panel('B2')?->source->toArray());
    }

    public function testOutputsAreNumberedFromLeftToRightAndTopToBottom(): void
    {
        // Common practice, no source: 2 x 2 butted panels of 1920 x 1080 are 3840 x 2160, the top right one is output 2.
        $wall = self::planned(Make::wall(2, 2, bezels: 'butt'));

        self::assertSame('3840 x 2160', (string) $wall->canvas);
        self::assertSame([[0], [0]], [$wall->hiddenColumns, $wall->hiddenRows]);
        self::assertSame(['A1' => 1, 'A2' => 2, 'B1' => 3, 'B2' => 4], self::outputs($wall));
        self::assertSame(['x' => 1920, 'y' => 0, 'width' => 1920, 'height' => 1080], $wall->panel('A2')?->source->toArray());
    }

    public function testWhatTheSurveySaysOfOutputsIsKeptAndTheRestFillsUp(): void
    {
        $document = Make::wall(2, 2, players: [['id' => 'a'], ['id' => 'b']]);
        $document['panels'][0]['output'] = 2;
        $document['panels'][3]['player'] = 'b';
        $wall = self::planned($document);

        self::assertSame(['A1' => 2, 'A2' => 1, 'B1' => 3, 'B2' => 1], self::outputs($wall));
        self::assertSame('b', $wall->panel('B2')?->player);

        $processed = self::planned(['processor' => ['player' => 'a', 'output' => 1, 'raster' => ['width' => 3840, 'height' => 2160]]] + $document);
        self::assertSame(['A1' => null, 'A2' => null, 'B1' => null, 'B2' => null], self::outputs($processed), 'a processor feeds them all');
    }

    public function testTurnedPanelsStandHighAndTheirFramesTurnWithThem(): void
    {
        $butted = self::planned(Make::wall(2, 1, 90, bezels: 'butt'));
        self::assertSame('2160 x 1920', (string) $butted->canvas);

        $wall = self::planned(Make::wall(2, 1, 90));
        // Turned by a quarter, the bottom (0.9 mm) is left and the top (1.8 mm) right: 2.7 mm as before.
        self::assertSame([[4], '2164 x 1920'], [$wall->hiddenColumns, (string) $wall->canvas]);
        self::assertSame(['left' => 0.9, 'top' => 1.8, 'right' => 1.8, 'bottom' => 0.9], $wall->panels[0]->panel->frame()->toArray());
        self::assertSame(
            ['left' => 1.8, 'top' => 0.9, 'right' => 0.9, 'bottom' => 1.8],
            self::planned(Make::wall(2, 1, 270))->panels[0]->panel->frame()->toArray(),
        );
    }

    public function testPanelsStripsAndVoidsTileTheCanvas(): void
    {
        $random = Make::random(14);
        for ($i = 0; $i < 60; $i++) {
            $document = Make::wall($random->getInt(1, 7), $random->getInt(1, 6), $random->getInt(0, 3) * 90, $random->getInt(64, 900), $random->getInt(64, 700));
            $document['gap_mm'] = ['x' => $random->getInt(0, 600) / 10, 'y' => $random->getInt(0, 600) / 10];
            $document['bezels'] = $i % 3 === 0 ? 'butt' : 'hide';
            $document['panels'] = array_values(array_filter($document['panels'], static fn (int $n): bool => $n === 0 || $random->getInt(0, 5) > 0, ARRAY_FILTER_USE_KEY));
            $wall = self::planned($document);
            $parts = [...array_map(static fn (PlacedPanel $panel): Rect => $panel->source, $wall->panels), ...$wall->strips, ...$wall->voids];

            self::assertSame($wall->canvas->area(), array_sum(array_map(static fn (Rect $rect): int => $rect->area(), $parts)), "round $i");
            self::assertSame([], FreeSpace::of($wall->canvas, $parts), "round $i");
            foreach ($wall->panels as $panel) {
                self::assertTrue($panel->source->size()->equals($panel->panel->raster()), 'no panel of a grid is scaled');
            }
        }
    }

    public function testEachSeamIsRoundedAloneAndTheErrorStated(): void
    {
        $document = Make::wall(16, 1);
        $wall = self::planned($document);
        $exact = 15 * 2.7 / 0.63;

        self::assertSame(15 * 4, array_sum($wall->hiddenColumns));
        self::assertEqualsWithDelta((60 - $exact) * 0.63, $wall->error['x'], 1e-9);

        foreach ([[0, 0, 0], [60, 60, 190]] as [$right, $left, $hidden]) {
            $document = Make::wall(2, 1);
            $document['panels'][0]['bezel_mm']['right'] = $right;
            $document['panels'][1]['bezel_mm']['left'] = $left;
            self::assertSame([$hidden], self::planned($document)->hiddenColumns, "bezels of $right mm");
        }
    }

    public function testAHoleInTheGridIsAVoid(): void
    {
        $document = Make::wall(3, 2);
        array_splice($document['panels'], 4, 1);
        $wall = self::planned($document);

        self::assertSame([['x' => 1924, 'y' => 1084, 'width' => 1920, 'height' => 1080]], $wall->toArray()['voids']);
    }

    public function testAFreeWallIsCutFromMillimetresAtItsHighestDensity(): void
    {
        $wall = self::planned(Make::freeWall([
            'fine' => ['native' => ['width' => 1920, 'height' => 1080], 'origin_mm' => ['x' => -1000, 'y' => 0]],
            'coarse' => ['origin_mm' => ['x' => 0, 'y' => 100]],
            'tall' => ['origin_mm' => ['x' => 1000, 'y' => 0], 'rotation' => 90],
        ]));
        $said = $wall->toArray();

        // 2 px/mm are the most. The fine panel keeps its px, the others are cut larger than theirs, and scaled down on them.
        self::assertSame([2.0, [], []], [$said['density'], $said['hidden']['columns'], $said['hidden']['rows']]);
        self::assertSame(['x' => 0, 'y' => 0, 'width' => 1920, 'height' => 1080], $wall->panels[0]->source->toArray());
        self::assertSame(['x' => 2000, 'y' => 200, 'width' => 1920, 'height' => 1080], $wall->panels[1]->source->toArray());
        self::assertSame(['x' => 4000, 'y' => 0, 'width' => 1080, 'height' => 1920], $wall->panels[2]->source->toArray());
        self::assertSame('5080 x 1920', (string) $wall->canvas);
        $shown = array_sum(array_map(static fn (PlacedPanel $panel): int => $panel->source->area(), $wall->panels));
        self::assertSame($wall->canvas->area() - $shown, array_sum(array_map(static fn (Rect $void): int => $void->area(), $wall->voids)));
    }

    public function testPanelsWithinHalfAPercentKeepTheirPixels(): void
    {
        $wall = self::planned(Make::freeWall([
            'one' => [],
            'near' => ['origin_mm' => ['x' => 970.4, 'y' => 0], 'active_mm' => ['width' => 964, 'height' => 542]],
            'far' => ['origin_mm' => ['x' => 0, 'y' => 600], 'active_mm' => ['width' => 966, 'height' => 543.4]],
        ]));

        self::assertSame([960, 960, 966], array_map(static fn (PlacedPanel $panel): int => $panel->source->width, $wall->panels));
        self::assertSame(970, $wall->panels[1]->source->x);
    }

    public function testAGridOfMixedPanelsIsCutFromMillimetresToo(): void
    {
        $document = Make::wall(2, 1);
        $document['panels'][1]['rotation'] = 90;
        $wall = self::planned($document);

        self::assertTrue($wall->free);
        // Its frame begins where that of the first ends; turned, its left side is its bottom.
        self::assertEqualsWithDelta(1209.6 + 0.9 + 0.9, $wall->panels[1]->place->x, 1e-9);
        self::assertSame('3003 x 1920', (string) $wall->canvas);
    }

    public function testFreePanelsSideBySideNeverShareAPixel(): void
    {
        $random = Make::random(15);
        for ($i = 0; $i < 100; $i++) {
            [$x, $panels] = [$random->getInt(-5000, 5000) / 7, []];
            for ($n = 0; $n < 6; $n++) {
                $width = $random->getInt(200, 900) / 3;
                $panels["p$n"] = [
                    'origin_mm' => ['x' => $x, 'y' => 0], 'active_mm' => ['width' => $width, 'height' => 300],
                    'native' => ['width' => (int) round($width * $random->getInt(10, 30) / 10), 'height' => 600],
                ];
                $x += $width;
            }
            $wall = self::planned(Make::freeWall($panels));
            for ($n = 1; $n < 6; $n++) {
                self::assertGreaterThanOrEqual($wall->panels[$n - 1]->source->right(), $wall->panels[$n]->source->x);
            }
        }
    }

    /** @param array<string, mixed> $document */
    private static function planned(array $document): Wall
    {
        return Display::fromArray($document)->wall;
    }

    /** @return array<string, ?int> */
    private static function outputs(Wall $wall): array
    {
        return array_column(array_map(static fn (PlacedPanel $panel): array => [$panel->panel->id, $panel->output], $wall->panels), 1, 0);
    }
}
