<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Division\Uncovered;
use UpperPane\Tests\Core\Make;

final class UncoveredTest extends TestCase
{
    public function testFindsJustTheMaximalRectanglesThatPaintingPixelByPixelFinds(): void
    {
        $random = Make::random(5);
        for ($i = 0; $i < 300; $i++) {
            $canvas = Size::px($random->getInt(1, 9), $random->getInt(1, 9));
            $covers = [];
            for ($n = $random->getInt(0, 5); $n > 0; $n--) {
                $covers[] = Rect::at($random->getInt(-2, 8), $random->getInt(-2, 8), $random->getInt(1, 6), $random->getInt(1, 6));
            }
            $found = Uncovered::of($canvas, $covers);
            $got = array_map(static fn (Rect $r): string => implode(',', $r->toArray()), $found->rects);
            sort($got);

            [$want, $area] = self::painted($canvas, $covers);
            self::assertSame($want, $got, "seed 5, round $i");
            self::assertSame($area, $found->area);
        }
    }

    /**
     * @param list<Rect> $covers
     * @return array{list<string>, int}
     */
    private static function painted(Size $canvas, array $covers): array
    {
        $free = static function (int $x, int $y, int $w, int $h) use ($canvas, $covers): bool {
            $rect = Rect::at($x, $y, $w, $h);

            return Rect::whole($canvas)->contains($rect)
                && array_filter($covers, static fn (Rect $cover): bool => $cover->intersection($rect) !== null) === [];
        };
        $maximal = [];
        $area = 0;
        for ($x = 0; $x < $canvas->width; $x++) {
            for ($y = 0; $y < $canvas->height; $y++) {
                $area += $free($x, $y, 1, 1) ? 1 : 0;
                for ($w = 1; $x + $w <= $canvas->width && $free($x, $y, $w, 1); $w++) {
                    for ($h = 1; $free($x, $y, $w, $h); $h++) {
                        $grows = $free($x - 1, $y, $w + 1, $h) || $free($x, $y - 1, $w, $h + 1) || $free($x, $y, $w + 1, $h) || $free($x, $y, $w, $h + 1);
                        if (!$grows) {
                            $maximal[] = "$x,$y,$w,$h";
                        }
                    }
                }
            }
        }
        sort($maximal);

        return [$maximal, $area];
    }
}
