<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\FreeSpace;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Geometry\Tracks;
use UpperPane\Core\Layout\Arrange\Arrangement;
use UpperPane\Core\Layout\Arrange\Border;
use UpperPane\Core\Layout\Arrange\Divisions;
use UpperPane\Core\Layout\Division\Recipe;
use UpperPane\Tests\Core\Make;

/** What designers do with the division of a canvas: always whole px, the recipe true, nothing lost. */
final class ArrangementTest extends TestCase
{
    /**
     * Main and side over a footer, on the rasters that screens have. Common practice, no source.
     *
     * @param list<array{int, int, int, int}> $rects
     */
    #[TestWith([1366, 768, [[0, 0, 956, 614], [956, 0, 410, 614], [0, 614, 1366, 154]]])]
    #[TestWith([3840, 2160, [[0, 0, 2688, 1728], [2688, 0, 1152, 1728], [0, 1728, 3840, 432]]])]
    #[TestWith([1080, 1920, [[0, 0, 756, 1536], [756, 0, 324, 1536], [0, 1536, 1080, 384]]])]
    public function testALayoutIsSolvedForAnotherRaster(int $width, int $height, array $rects): void
    {
        $solved = Make::arranged(self::harbour())->solvedFor(Size::px($width, $height));

        self::assertSame(['width' => $width, 'height' => $height], $solved->layout->toArray()['canvas']);
        self::assertSame(['main' => $rects[0], 'side' => $rects[1], 'foot' => $rects[2]], self::rects($solved));
        self::assertSame([], self::codes($solved));
    }

    public function testWhatLiesInAZoneScalesWithIt(): void
    {
        $document = self::harbour();
        $document['elements'][] = self::text('head', 40, 40, 800, 120, 72);
        $document['elements'][] = ['id' => 'bar', 'kind' => 'shape', 'rect' => ['x' => 1344, 'y' => 432, 'width' => 576, 'height' => 432], 'fill' => '#14665b', 'radius_px' => 10];
        $solved = Make::arranged($document)->solvedFor(Size::px(1366, 768));

        self::assertSame([28, 28, 570, 86], self::rects($solved)['head']);
        self::assertSame([956, 307, 410, 307], self::rects($solved)['bar'], 'flush stays flush');
        self::assertSame(51.17, $solved->layout->toArray()['elements'][3]['style']['size_px'], '72 px by the smaller of 956/1344 and 614/864');
        self::assertSame(7.11, $solved->layout->toArray()['elements'][4]['radius_px']);
        self::assertContains('"head": 800 x 120 becomes 570 x 86 px, type of 72 px becomes 51.17 px.', $solved->said);
        self::assertEquals($document['elements'][0]['playlist'], $solved->layout->toArray()['elements'][0]['playlist'], 'what is in the zones stays');
    }

    public function testRunningTextCaptionsAndGuidesScaleToo(): void
    {
        $document = ['guides' => ['x' => [960], 'y' => [10, 864]], 'safe' => 48] + self::harbour();
        $style = ['family' => 'Inter', 'size_px' => 60, 'outline' => ['px' => 3, 'color' => '#000000']];
        $document['elements'][] = ['id' => 'news', 'kind' => 'ticker', 'rect' => ['x' => 0, 'y' => 900, 'width' => 1920, 'height' => 100], 'text' => 'x', 'style' => $style, 'speed_px_s' => 180];
        $box = ['x' => 1400, 'y' => 100, 'width' => 400, 'height' => 400];
        $document['elements'][] = ['id' => 'code', 'kind' => 'code', 'rect' => $box, 'text' => 'x', 'caption' => ['text' => 'x', 'style' => $style]];
        $solved = Make::arranged($document)->solvedFor(Size::px(1366, 768))->layout->toArray();

        // By 1366/1920 in the footer and by 614/864 at the side: the smaller one counts.
        self::assertSame([42.69, 2.13], [$solved['elements'][3]['style']['size_px'], $solved['elements'][3]['style']['outline']['px']]);
        self::assertSame(120, $solved['elements'][3]['speed_px_s'], 'to the next speed that runs smoothly');
        self::assertSame(42.64, $solved['elements'][4]['caption']['style']['size_px']);
        self::assertSame([[683], [7, 614], 34], [$solved['guides']['x'], $solved['guides']['y'], $solved['safe']]);
    }

    public function testElementsAreRepeatedInColumnsAndRows(): void
    {
        $document = Make::layout([
            ['group' => 'tile'] + Make::zone('a', 10, 10, 100, 50),
            ['group' => 'tile', 'id' => 'bar', 'kind' => 'shape', 'rect' => ['x' => 10, 'y' => 60, 'width' => 100, 'height' => 10], 'fill' => '#000000', 'progress' => ['zone' => 'a']],
        ]);
        $repeated = Make::arranged($document)->repeated(['a', 'bar'], 3, 2, 20, 5);

        self::assertSame(
            [[10, 10, 100, 50], [130, 10, 100, 50], [250, 10, 100, 50], [10, 75, 100, 50], [130, 75, 100, 50], [250, 75, 100, 50]],
            array_values(array_filter(self::rects($repeated), static fn (array $rect): bool => $rect[3] === 50)),
        );
        $bars = array_values(array_filter($repeated->layout->toArray()['elements'], static fn (array $e): bool => $e['kind'] === 'shape'));
        self::assertSame(['a', 'a2', 'a3', 'a4', 'a5', 'a6'], array_map(static fn (array $bar): string => $bar['progress']['zone'], $bars), 'each fills up with its own zone');
        self::assertCount(6, array_unique(array_column($repeated->layout->toArray()['elements'], 'group')), 'and each pair is a group of its own');
        self::assertSame(['4 of them lie beyond the canvas.'], Make::arranged($document)->repeated(['a'], 20, 1, 20, 0)->said);
    }

    public function testMoreThanAHandCanUseAreNotMade(): void
    {
        $this->expectExceptionMessage('100 x 100 of 1 elements are more than 500.');
        Make::arranged(self::harbour())->repeated(['main'], 100, 100, 0, 0);
    }

    public function testPxThatDoNotFitAreRefusedAndCanBecomeShares(): void
    {
        $document = self::harbour('1fr 576px', '1fr 216px');
        $arrangement = Make::arranged($document);
        try {
            $arrangement->solvedFor(Size::px(500, 1080));
            self::fail('solved');
        } catch (Refused $e) {
            self::assertSame('/recipe/columns', $e->path);
        }
        $solved = $arrangement->inShares()->solvedFor(Size::px(500, 300));

        self::assertSame(['7fr 3fr', '4fr 1fr'], [$solved->layout->toArray()['recipe']['columns'], $solved->layout->toArray()['recipe']['rows']]);
        self::assertSame([350, 0, 150, 240], self::rects($solved)['side']);
    }

    public function testWithoutARecipeOneScalesOrWritesOne(): void
    {
        $arrangement = Make::arranged(Make::harbour());
        self::assertSame(['columns' => '7fr 3fr', 'rows' => '4fr 1fr', 'gap' => 0, 'margin' => 0, 'areas' => ['main side', 'foot foot']], $arrangement->retold()->layout->toArray()['recipe']);
        self::assertSame([0, 614, 1366, 154], self::rects($arrangement->scaledTo(Size::px(1366, 768)))['foot']);
        $this->expectExceptionMessage('The layout has no recipe');
        $arrangement->solvedFor(Size::px(1366, 768));
    }

    /**
     * @param 'columns'|'rows' $into
     * @param list<string> $areas
     * @param array{int, int, int, int} $second
     */
    #[TestWith(['columns', 'repeat(2, 1fr)', '7fr 7fr 6fr', '4fr 1fr', ['main main2 side', 'foot foot foot'], [672, 0, 672, 864]])]
    #[TestWith(['rows', '2fr 1fr', '7fr 3fr', '8fr 4fr 3fr', ['main side', 'main2 side', 'foot foot'], [0, 576, 1344, 288]])]
    #[TestWith(['columns', '300px 1fr', '25fr 87fr 48fr', '4fr 1fr', ['main main2 side', 'foot foot foot'], [300, 0, 1044, 864]])]
    public function testAZoneIsSplit(string $into, string $tracks, string $columns, string $rows, array $areas, array $second): void
    {
        $split = Make::arranged(self::harbour())->split('main', $into, Tracks::parse($tracks));

        self::assertSame($second, self::rects($split)['main2']);
        self::assertSame([$columns, $rows, $areas], [$split->layout->toArray()['recipe']['columns'], $split->layout->toArray()['recipe']['rows'], $split->layout->toArray()['recipe']['areas']]);
        self::assertSame(['zone.empty'], self::codes($split), 'only the new zone has nothing to play yet');
        self::assertSame(['main', 'main2', 'side', 'foot'], array_column($split->layout->toArray()['elements'], 'id'), 'above the one it comes from');
    }

    public function testNeighboursAreJoinedAndWhatPlayedInThemGoesOn(): void
    {
        $document = self::harbour();
        $document['elements'][2]['follows'] = 'side';
        $joined = Make::arranged($document)->joined(['main', 'side']);

        self::assertSame(['main' => [0, 0, 1920, 864], 'foot' => [0, 864, 1920, 216]], self::rects($joined));
        self::assertSame(['i1', 'i2'], array_column($joined->layout->toArray()['elements'][0]['playlist']['items'], 'id'), 'each item has an id of its own');
        self::assertSame('main', $joined->layout->toArray()['elements'][1]['follows'], 'who followed the joined zone follows what it became');
        $recipe = $joined->layout->toArray()['recipe'];
        self::assertSame(['1fr', '4fr 1fr', ['main', 'foot']], [$recipe['columns'], $recipe['rows'], $recipe['areas']]);
        $this->expectExceptionMessage('are no rectangle together');
        Make::arranged($document)->joined(['main', 'foot']);
    }

    public function testWhatCannotComeAlongIsSaid(): void
    {
        $document = self::harbour();
        $document['elements'][1]['playlist'] = ['format' => 'upper-pane/playlist@1', 'id' => 'offers', 'name' => 'Offers', 'items' => [Make::picture('i1')]];
        $joined = Make::arranged($document)->joined(['main', 'side']);

        self::assertSame(['What played in "side" is not in the joined zone: a playlist of its own does not mix with others.'], $joined->said);
        $document['elements'][0]['playlist'] = ['items' => []];
        self::assertSame('offers', Make::arranged($document)->joined(['main', 'side'])->layout->toArray()['elements'][0]['playlist']['id'], 'into an empty zone it comes whole');
    }

    public function testABorderMovesAllThatShareIt(): void
    {
        $moved = Make::arranged(self::harbour())->withBorder('rows', 864, 100, 810);

        self::assertSame(['main' => [0, 0, 1344, 810], 'side' => [1344, 0, 576, 810], 'foot' => [0, 810, 1920, 270]], self::rects($moved));
        self::assertSame('3fr 1fr', $moved->layout->toArray()['recipe']['rows']);
        self::assertSame([], self::codes($moved));
        $this->expectExceptionMessage('1 to 1079 px leave every zone at least 1 px');
        Make::arranged(self::harbour())->withBorder('rows', 864, 100, 1080);
    }

    public function testPiecesOfOneLineMoveAlone(): void
    {
        $four = Make::layout([
            Make::zone('a', 0, 0, 960, 540), Make::zone('b', 960, 0, 960, 540),
            Make::zone('c', 0, 540, 960, 540), Make::zone('d', 960, 540, 960, 540),
        ]);
        $borders = array_map(static fn (Border $b): array => [$b->between, $b->at, $b->before, $b->behind], Arrangement::borders(Make::composed($four)));
        self::assertSame([
            ['columns', 960, ['a'], ['b']], ['columns', 960, ['c'], ['d']],
            ['rows', 540, ['a'], ['c']], ['rows', 540, ['b'], ['d']],
        ], $borders, 'four quarters: each half of the cross');
        $moved = Make::arranged($four)->withBorder('columns', 960, 700, 1200);

        self::assertSame([960, 1200], [self::rects($moved)['a'][2], self::rects($moved)['c'][2]]);
    }

    public function testThreeAreMadeEqualAndTwoChangePlaces(): void
    {
        $document = Make::layout([Make::zone('a', 0, 0, 500, 1080), Make::zone('b', 500, 0, 20, 1080), Make::zone('c', 520, 0, 1401, 1080)], 1921);
        $document['recipe'] = ['columns' => '500px 20px 1fr', 'areas' => ['a b c']];
        $equal = Make::arranged($document)->equalised(['c', 'a', 'b']);

        self::assertSame([[0, 0, 641, 1080], [641, 0, 640, 1080], [1281, 0, 640, 1080]], array_values(self::rects($equal)), 'the odd px goes to the first');
        $swapped = Make::arranged($equal->layout->toArray())->swapped('a', 'c');
        self::assertSame([1281, 0, 640, 1080], self::rects($swapped)['a']);
        self::assertSame(['c b a'], $swapped->layout->toArray()['recipe']['areas']);
        $this->expectExceptionMessage('do not lie in one row or one column');
        Make::arranged(self::harbour())->equalised(['main', 'foot']);
    }

    public function testAStartingDivisionTakesTheZonesThatAreThere(): void
    {
        $thirds = Recipe::fromNode(Node::root(['columns' => 'repeat(3, 1fr)', 'areas' => ['left main right']]));
        $started = Make::arranged(self::harbour())->startedWith($thirds);

        self::assertEquals(['main' => [640, 0, 640, 1080], 'side' => [0, 0, 640, 1080], 'foot' => [1280, 0, 640, 1080]], self::rects($started));
        $two = Recipe::fromNode(Node::root(['columns' => '1fr 1fr', 'areas' => ['left right']]));
        self::assertContains('"foot" stayed where it was: the division has no area for it.', Make::arranged(self::harbour())->startedWith($two)->said);
        $empty = Make::arranged(Make::layout([]))->startedWith($thirds);
        self::assertSame(['left', 'main', 'right'], array_keys(self::rects($empty)));
    }

    public function testElementsAreAlignedAndDistributed(): void
    {
        $document = Make::layout([self::text('a', 10, 100, 200, 50, 20), self::text('b', 400, 20, 101, 80, 20), self::text('c', 900, 60, 300, 40, 20)]);
        $at = static fn (Arrangement $arrangement): array => array_map(static fn (array $r): array => [$r[0], $r[1]], self::rects($arrangement));
        $arrangement = Make::arranged($document);

        self::assertSame(['a' => [10, 100], 'b' => [10, 20], 'c' => [10, 60]], $at($arrangement->aligned(['a', 'b', 'c'], 'left')));
        self::assertSame(['a' => [505, 100], 'b' => [554, 20], 'c' => [455, 60]], $at($arrangement->aligned(['a', 'b', 'c'], 'centre')));
        self::assertSame(['a' => [1000, 100], 'b' => [1099, 20], 'c' => [900, 60]], $at($arrangement->aligned(['a', 'b', 'c'], 'right')));
        self::assertSame(['a' => [10, 20], 'b' => [400, 20], 'c' => [900, 60]], $at($arrangement->aligned(['a', 'b'], 'top')), 'c was not chosen');
        self::assertSame(['a' => [10, 60], 'b' => [400, 45], 'c' => [900, 65]], $at($arrangement->aligned(['a', 'b', 'c'], 'middle')));
        self::assertSame(['a' => [10, 100], 'b' => [400, 70], 'c' => [900, 110]], $at($arrangement->aligned(['a', 'b', 'c'], 'bottom')));
        self::assertSame(['a' => [10, 100], 'b' => [505, 20], 'c' => [900, 60]], $at($arrangement->distributed(['c', 'a', 'b'], true)), '589 px free: 295 and 294');
        $this->expectExceptionMessage('40 px larger together than the room');
        $arrangement->distributed(['a', 'b', 'c'], false);
    }

    public function testTracksAreTypedOverAndAreasFollow(): void
    {
        $arrangement = Make::arranged(self::harbour());
        $wider = $arrangement->written(Tracks::parse('3fr 1fr'), Tracks::parse('4fr 1fr'), 8, 16);
        self::assertSame([1434, 16, 470, 832], self::rects($wider)['side']);
        self::assertSame([8, 16], [$wider->layout->toArray()['recipe']['gap'], $wider->layout->toArray()['recipe']['margin']]);

        $third = $arrangement->written(Tracks::parse('2fr 1fr 1fr'), Tracks::parse('4fr 1fr'), 0, 0);
        self::assertSame(['main side zone1', 'foot foot zone1'], $third->layout->toArray()['recipe']['areas'], 'a column more is a zone along the whole side');
        self::assertSame([1440, 0, 480, 1080], self::rects($third)['zone1']);
        self::assertSame(['zone.empty'], self::codes($third));

        $one = $arrangement->written(Tracks::parse('1fr'), Tracks::parse('4fr 1fr 1fr'), 0, 0);
        self::assertSame(['main', 'foot', 'zone1'], $one->layout->toArray()['recipe']['areas']);
        self::assertContains('"side" stayed: the recipe has no area for it any more.', $one->said);
        $new = Make::arranged(Make::harbour())->written(Tracks::parse('7fr 3fr'), Tracks::parse('1fr 1fr'), 0, 0);
        self::assertSame('7fr 3fr', $new->layout->toArray()['recipe']['columns'], 'one is written where there was none');
    }

    /** Each begins with the whole canvas, and tiles it. */
    #[TestWith([1920, 1080, 'Main, side and footer', 10])]
    #[TestWith([1080, 1920, 'Main over two', 8])]
    #[TestWith([1920, 540, 'Beginning, main and end', 6])]
    #[TestWith([540, 1920, 'Beginning, main and end', 6])]
    #[TestWith([1000, 1000, 'Quarters', 10])]
    public function testStartingDivisionsSuitTheShapeOfTheRaster(int $width, int $height, string $known, int $count): void
    {
        $raster = Size::px($width, $height);
        $divisions = Divisions::for($raster);
        self::assertSame(['One zone', true, $count], [array_key_first($divisions), isset($divisions[$known]), count($divisions)]);
        foreach ($divisions as $name => $recipe) {
            self::assertSame([], FreeSpace::of($raster, array_values($recipe->solve($raster))), $name);
        }
    }

    /** At the panels of a wall, with what is hidden between them left free. */
    public function testAWallIsDividedAtItsPanels(): void
    {
        $wall = Display::fromArray(Make::wall());
        $divisions = Divisions::ofWall($wall->wall);
        self::assertSame(['A zone for each panel', 'A zone for each column', 'A zone for each row'], array_keys($divisions));
        $panels = [];
        foreach ($wall->wall->panels as $placed) {
            $panels[$placed->panel->id] = $placed->source->toArray();
        }
        $solved = static fn (string $name): array => array_map(static fn (Rect $rect): array => $rect->toArray(), $divisions[$name]->solve($wall->raster()));
        self::assertEqualsCanonicalizing($panels, $solved('A zone for each panel'));
        self::assertSame([[0, 1920], [1924, 1920], [3848, 1920]], array_map(static fn (array $rect): array => [$rect['x'], $rect['width']], array_values($solved('A zone for each column'))));
        self::assertSame([[0, 1080], [1084, 1080]], array_map(static fn (array $rect): array => [$rect['y'], $rect['height']], array_values($solved('A zone for each row'))));
        foreach ($divisions as $name => $recipe) {
            $document = Make::arranged(['elements' => []] + Make::layout([], 5768, 2164))->startedWith($recipe)->layout->toArray();
            $codes = array_map(static fn ($finding): string => $finding->code, Make::checked(Make::composed($document), $wall)->all);
            self::assertSame([], array_diff($codes, ['zone.empty']), $name);
        }
        self::assertSame([], Divisions::ofWall(Display::fromArray(Make::display())->wall));
    }

    /** Property: whatever is done to a division that tiles the canvas, it goes on to tile it, and the recipe goes on to say it. */
    public function testNothingThatIsDoneOpensAGap(): void
    {
        $random = Make::random(12);
        for ($run = 0; $run < 25; $run++) {
            $document = self::harbour();
            [$document['canvas']['width'], $document['canvas']['height']] = [$random->getInt(800, 4000), $random->getInt(800, 4000)];
            $arrangement = Make::arranged($document)->solvedFor(Size::px($document['canvas']['width'], $document['canvas']['height']));
            for ($step = 0; $step < 6; $step++) {
                $ids = array_keys(self::rects($arrangement));
                $zone = (string) $ids[$random->getInt(0, count($ids) - 1)];
                $borders = Arrangement::borders(Make::composed($arrangement->layout->toArray()));
                $border = $borders[$random->getInt(0, count($borders) - 1)];
                $arrangement = match ($random->getInt(0, 2)) {
                    0 => $arrangement->split($zone, $random->getInt(0, 1) === 0 ? 'columns' : 'rows', Tracks::parse('repeat(' . $random->getInt(2, 3) . ', 1fr)')),
                    1 => $arrangement->withBorder($border->between, $border->at, $border->span['from'], $random->getInt($border->least, $border->most)),
                    default => $arrangement->swapped($zone, (string) $ids[0]),
                };
            }
            $rects = Make::composed($arrangement->layout->toArray())->zones;
            $rects = array_values(array_map(static fn ($zone) => $zone->rect(), $rects));
            $canvas = Size::px($arrangement->layout->toArray()['canvas']['width'], $arrangement->layout->toArray()['canvas']['height']);
            self::assertSame([], FreeSpace::of($canvas, $rects));
            self::assertSame($canvas->area(), array_sum(array_map(static fn ($r): int => $r->area(), $rects)));
            self::assertNotContains('recipe.differs', self::codes($arrangement));
        }
    }

    /** @return array<string, mixed> */
    private static function harbour(string $columns = '7fr 3fr', string $rows = '4fr 1fr'): array
    {
        return Make::harbour() + ['recipe' => ['columns' => $columns, 'rows' => $rows, 'areas' => ['main side', 'foot foot']]];
    }

    /** @return array<string, mixed> */
    private static function text(string $id, int $x, int $y, int $width, int $height, int $sizePx): array
    {
        return ['id' => $id, 'kind' => 'text', 'rect' => ['x' => $x, 'y' => $y, 'width' => $width, 'height' => $height], 'text' => 'Welcome', 'style' => ['size_px' => $sizePx]];
    }

    /** @return array<string, array{int, int, int, int}> */
    private static function rects(Arrangement $arrangement): array
    {
        return array_map(static fn (array $rect): array => [$rect['x'], $rect['y'], $rect['width'], $rect['height']], array_column($arrangement->layout->toArray()['elements'], 'rect', 'id'));
    }

    /** @return list<string> of findings other than of pictures that do not fit their new zones */
    private static function codes(Arrangement $arrangement): array
    {
        $codes = array_map(static fn ($finding): string => $finding->code, Make::checked(Make::composed($arrangement->layout->toArray()))->all);

        return array_values(array_unique(array_diff($codes, ['item.aspect', 'item.upscaled'])));
    }
}
