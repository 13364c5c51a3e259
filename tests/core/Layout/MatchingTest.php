<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Matching;
use UpperPane\Tests\Core\Make;

final class MatchingTest extends TestCase
{
    /**
     * @param array{int, int, int, int} $canvasAndRaster
     * @param array{int, int, int, int} $target
     */
    #[TestWith([[1920, 1080, 1920, 1080], 'exact', 1.0, [0, 0, 1920, 1080], false])]
    #[TestWith([[1920, 1080, 3840, 2160], 'scaled', 2.0, [0, 0, 3840, 2160], false])]
    #[TestWith([[1920, 1080, 1366, 768], 'scaled', 0.7111, [0, 0, 1366, 768], false], '1366x768 is called 16:9')]
    #[TestWith([[1920, 1080, 1920, 540], 'padded', 0.5, [480, 0, 960, 540], false])]
    #[TestWith([[1920, 1080, 1080, 1920], 'crossed', 0.5625, [0, 656, 1080, 608], true])]
    #[TestWith([[1920, 1080, 768, 1366], 'crossed', 0.4, [0, 467, 768, 432], false])]
    #[TestWith([[500, 500, 1080, 1920], 'padded', 2.16, [0, 420, 1080, 1080], false], 'a square is never crossed')]
    #[TestWith([[100, 101, 101, 100], 'crossed', 0.990099, [1, 0, 99, 100], true], 'the odd px goes to the right')]
    public function testCanvasOnRaster(array $canvasAndRaster, string $verdict, float $scale, array $target, bool $swapped): void
    {
        [$cw, $ch, $rw, $rh] = $canvasAndRaster;
        $match = Matching::of(Size::px($cw, $ch), Size::px($rw, $rh));

        self::assertSame($verdict, $match->verdict->value);
        self::assertEqualsWithDelta($scale, $match->scale, 0.0001);
        self::assertSame($target, array_values($match->target->toArray()));
        self::assertSame($swapped, $match->swapped);
    }

    public function testTargetAndBarsAlwaysAddUpToTheRaster(): void
    {
        $random = Make::random(3);
        for ($i = 0; $i < 500; $i++) {
            $raster = Size::px($random->getInt(1, 4000), $random->getInt(1, 4000));
            $match = Matching::of(Size::px($random->getInt(1, 4000), $random->getInt(1, 4000)), $raster);
            $bars = $match->bars();
            self::assertSame($raster->width, $bars['left'] + $match->target->width + $bars['right']);
            self::assertSame($raster->height, $bars['top'] + $match->target->height + $bars['bottom']);
            self::assertContains($bars['right'] - $bars['left'], [0, 1]);
            self::assertContains($bars['bottom'] - $bars['top'], [0, 1]);
        }
    }
}
