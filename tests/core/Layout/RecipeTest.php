<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\FreeSpace;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Division\Recipe;
use UpperPane\Tests\Core\Make;

final class RecipeTest extends TestCase
{
    public function testAreasLieWhereTheTracksSay(): void
    {
        $rects = self::recipe('7fr 3fr', '4fr 1fr', ['main side', 'foot foot'])->solve(Size::px(1920, 1080));

        self::assertEquals(['main' => Rect::at(0, 0, 1344, 864), 'side' => Rect::at(1344, 0, 576, 864), 'foot' => Rect::at(0, 864, 1920, 216)], $rects);
    }

    public function testMarginAndGapAreTakenOffOnce(): void
    {
        $rects = self::recipe('1fr 1fr', '1fr', ['a b'], 20, 40)->solve(Size::px(1920, 1080));

        self::assertEquals(['a' => Rect::at(40, 40, 910, 1000), 'b' => Rect::at(970, 40, 910, 1000)], $rects);
    }

    /** @param list<string> $areas */
    #[TestWith(['1fr 1fr', '1fr', ['a'], '/areas/0', 'names 1 areas, the recipe has 2 columns'])]
    #[TestWith(['1fr', '1fr 1fr', ['a'], '/areas', 'has 1 lines of areas, the recipe has 2 rows'])]
    #[TestWith(['1fr 1fr', '1fr 1fr', ['a b', 'b a'], '/areas', 'has an area "a" that is no rectangle'])]
    #[TestWith(['1fr', '1fr', ['-a'], '/areas/0', 'names the area "-a"'])]
    #[TestWith(['1fr', 'auto', ['a'], '/rows', 'cannot be read'])]
    public function testWhatNamesNoRectanglesIsRefused(string $columns, string $rows, array $areas, string $path, string $said): void
    {
        try {
            self::recipe($columns, $rows, $areas);
            self::fail('read');
        } catch (Refused $e) {
            self::assertSame($path, $e->path);
            self::assertStringContainsString($said, $e->getMessage());
        }
    }

    #[TestWith(['1920px 1fr', '1fr', '/columns', 'leaves nothing for the area "b"'])]
    #[TestWith(['1fr 1fr', '2000px', '/rows', '920 px too many'])]
    public function testWhatDoesNotFitSaysWhichSide(string $columns, string $rows, string $path, string $said): void
    {
        $recipe = self::recipe($columns, $rows, ['a b']);
        try {
            $recipe->solve(Size::px(1920, 1080));
            self::fail('solved');
        } catch (Refused $e) {
            self::assertSame($path, $e->path);
            self::assertStringContainsString($said, $e->getMessage());
        }
    }

    /** Property: solved for any raster there is no gap and no overlap. */
    public function testAnyRecipeTilesAnyRaster(): void
    {
        $random = Make::random(7);
        for ($i = 0; $i < 150; $i++) {
            [$recipe] = self::random($random, $i);
            $canvas = Size::px($random->getInt(600, 8000), $random->getInt(600, 8000));
            $rects = array_values($recipe->solve($canvas));
            self::assertSame($canvas->area(), array_sum(array_map(static fn (Rect $r): int => $r->area(), $rects)), "$canvas");
            self::assertSame([], FreeSpace::of($canvas, $rects), 'no part is left, so none lies on another');
        }
    }

    /** Property: the recipe told from what a recipe gave gives the same again. */
    public function testARecipeIsToldFromItsRectangles(): void
    {
        $random = Make::random(8);
        for ($i = 0; $i < 150; $i++) {
            [$recipe, $spaced] = self::random($random, $i);
            $canvas = Size::px($random->getInt(900, 5000), $random->getInt(900, 5000));
            foreach ([$recipe, $spaced] as $each) {
                $rects = $each->solve($canvas);
                self::assertEquals($rects, Recipe::describing($rects, $canvas, $each)?->solve($canvas));
                self::assertEquals($rects, Recipe::describing($rects, $canvas)?->solve($canvas), json_encode($each->toArray()) ?: '');
            }
        }
    }

    /**
     * What was written stays, as far as it can.
     *
     * @param array<string, array{int, int, int, int}> $rects
     */
    #[TestWith(['7fr 3fr', ['a' => [0, 0, 672, 100], 'c' => [672, 0, 672, 100], 'b' => [1344, 0, 576, 100]], '7fr 7fr 6fr'], 'a part of a share is a part of its figure')]
    #[TestWith(['216px 1fr', ['a' => [0, 0, 300, 100], 'b' => [300, 0, 1620, 100]], '300px 1fr'], 'px stay px')]
    #[TestWith(['7fr 3fr', ['a' => [0, 0, 1200, 100], 'b' => [1200, 0, 720, 100]], '5fr 3fr'], 'shares stay shares')]
    #[TestWith(['10% 1fr', ['a' => [0, 0, 192, 100], 'c' => [192, 0, 864, 100], 'b' => [1056, 0, 864, 100]], '10% 1fr 1fr'], 'what is not touched stays')]
    #[TestWith(['200px 1fr', ['a' => [0, 0, 100, 100], 'c' => [100, 0, 100, 100], 'b' => [200, 0, 1720, 100]], '100px 100px 1fr'])]
    #[TestWith(['1fr 2fr', ['a' => [0, 0, 639, 100], 'b' => [639, 0, 1281, 100]], '213fr 427fr'], 'uneven px are said in their smallest figures')]
    public function testARecipeIsToldAsNearAsCanBeToHowItWasWritten(string $columns, array $rects, string $told): void
    {
        $before = self::recipe($columns, '1fr', ['a b']);
        $recipe = Recipe::describing(array_map(static fn (array $r): Rect => Rect::at(...$r), $rects), Size::px(1920, 100), $before);

        self::assertSame($told, $recipe?->columns->written());
    }

    public function testWhatOverlapsHasNoRecipe(): void
    {
        self::assertNull(Recipe::describing(['a' => Rect::at(0, 0, 100, 100), 'b' => Rect::at(50, 50, 100, 50)], Size::px(150, 100)));
        self::assertNull(Recipe::describing(['a' => Rect::at(-5, 0, 100, 100)], Size::px(150, 100)), 'beyond the canvas');
    }

    public function testPxBecomeSharesOfTheCanvasTheyAreOn(): void
    {
        $recipe = self::recipe('576px 1fr', '1fr 216px', ['side main', 'foot foot']);
        self::assertTrue($recipe->hasPx());
        $shares = $recipe->inShares(Size::px(1920, 1080));

        self::assertFalse($shares->hasPx());
        self::assertSame(['3fr 7fr', '4fr 1fr'], [$shares->columns->written(), $shares->rows->written()]);
    }

    /** @return array{Recipe, Recipe} one that fills the canvas, and the same with a margin and gaps */
    private static function random(\Random\Randomizer $random, int $seed): array
    {
        [$columns, $rows] = [$random->getInt(1, 5), $random->getInt(1, 5)];
        $cells = [];
        for ($r = 0; $r < $rows; $r++) {
            for ($c = 0; $c < $columns; $c++) {
                // Now and then two cells of a row are one area.
                $cells[$r][$c] = $c % 2 === 1 && ($r + $seed) % 3 === 0 ? "a$r-" . ($c - 1) : "a$r-$c";
            }
        }
        $track = static fn (): string => match ($random->getInt(0, 5)) {
            0 => $random->getInt(20, 60) . 'px',
            1 => 'minmax(' . $random->getInt(5, 50) . 'px, ' . $random->getInt(1, 4) . 'fr)',
            default => $random->getInt(1, 9) . 'fr',
        };
        $tracks = static fn (int $n): string => implode(' ', [...array_map($track, array_fill(0, $n - 1, null)), '3fr']);
        $areas = array_map(static fn (array $row): string => implode(' ', $row), $cells);
        [$x, $y] = [$tracks($columns), $tracks($rows)];

        return [self::recipe($x, $y, $areas), self::recipe($x, $y, $areas, $random->getInt(1, 12), $random->getInt(0, 30))];
    }

    /** @param array<string> $areas */
    private static function recipe(string $columns, string $rows, array $areas, int $gap = 0, int $margin = 0): Recipe
    {
        return Recipe::fromNode(Node::root(['columns' => $columns, 'rows' => $rows, 'gap' => $gap, 'margin' => $margin, 'areas' => array_values($areas)]));
    }
}
