<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Geometry;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Geometry\Cut;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Tests\Core\Make;

final class FitTest extends TestCase
{
    public function testAPartThatIsCutOutSaysWhatIsLostAndWhetherItIsSharp(): void
    {
        $picture = Size::px(400, 200);
        self::assertSame(['lost' => 0.5, 'scale' => 1.0, 'soft' => false], Cut::of($picture, Rect::at(0, 0, 200, 200), Size::px(200, 200))->toArray());
        self::assertSame(['lost' => 0.0, 'scale' => 2.0, 'soft' => true], Cut::of($picture, Rect::whole($picture), Size::px(800, 400))->toArray());
        self::assertSame(['lost' => 0.875, 'scale' => 1.2, 'soft' => true], Cut::of($picture, Rect::at(50, 50, 100, 100), Size::px(120, 60))->toArray(), 'the box is filled');
    }

    /** @param array{float, float, float, float} $drawn */
    #[DataProvider('cases')]
    public function testContentMeetsItsBox(string $mode, Size $source, Size $box, array $drawn, float $lost): void
    {
        $fit = Fit::of($source, $box, FitMode::from($mode), 25, 75);

        self::assertEqualsWithDelta($drawn, array_values((array) $fit->drawn), 0.005);
        self::assertEqualsWithDelta($lost, $fit->lost(), 0.0001);
    }

    /** @return iterable<string, array{string, Size, Size, array{float, float, float, float}, float}> worked out by hand after CSS Images 3, 5.5 and 5.6 */
    public static function cases(): iterable
    {
        yield 'contain leaves bars, shared out by the focus' => ['contain', Size::px(400, 300), Size::px(640, 360), [40, 0, 480, 360], 0];
        yield 'cover cuts, at the side away from the focus' => ['cover', Size::px(1600, 900), Size::px(1344, 864), [-48, 0, 1536, 864], 0.125];
        yield 'fill stretches' => ['fill', Size::px(100, 100), Size::px(300, 200), [0, 0, 300, 200], 0];
        yield 'none keeps the size' => ['none', Size::px(400, 100), Size::px(200, 200), [-50, 75, 400, 100], 0.5];
        yield 'scale-down shrinks what is too large' => ['scale-down', Size::px(400, 400), Size::px(200, 100), [25, 0, 100, 100], 0];
        yield 'scale-down leaves what is small' => ['scale-down', Size::px(40, 40), Size::px(200, 100), [40, 45, 40, 40], 0];
    }

    public function testWhatIsPaintedAndTheBarsFillTheBoxWithContain(): void
    {
        $random = Make::random(7);
        for ($i = 0; $i < 500; $i++) {
            $source = Size::px($random->getInt(1, 5000), $random->getInt(1, 5000));
            $box = Size::px($random->getInt(1, 5000), $random->getInt(1, 5000));
            $contain = Fit::of($source, $box, FitMode::Contain, $random->getInt(0, 100), $random->getInt(0, 100));
            $bars = $contain->bars();
            self::assertEqualsWithDelta($box->width, $bars['left'] + $contain->drawn->width + $bars['right'], 0.001);
            self::assertEqualsWithDelta($box->height, $bars['top'] + $contain->drawn->height + $bars['bottom'], 0.001);
            self::assertEqualsWithDelta(0, $contain->lost(), 1e-9);

            $cover = Fit::of($source, $box, FitMode::Cover, $random->getInt(0, 100), $random->getInt(0, 100));
            self::assertEqualsWithDelta(0, $cover->empty(), 1e-9);
            self::assertEqualsWithDelta(0, array_sum($cover->bars()), 0.001);
        }
    }
}
