<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Display;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Blanking;
use UpperPane\Core\Display\Timing;
use UpperPane\Core\Geometry\Size;
use UpperPane\Tests\Core\Make;

/** What holds of every timing; its figures are held against edid-decode in the reference suite. */
final class TimingTest extends TestCase
{
    public function testPartsAddUpAndTheRefreshIsNeverAboveWhatIsWanted(): void
    {
        $random = Make::random(3);
        for ($i = 0; $i < 600; $i++) {
            $raster = Size::px($random->getInt(Timing::LEAST_SIDE, 8000), $random->getInt(Timing::LEAST_SIDE, 5000));
            $hz = $random->getInt(10, 240);
            $blanking = Blanking::cases()[$i % 3];
            $timing = Timing::cvt($raster, $hz, $blanking);
            $said = $timing->toArray();

            self::assertSame($said['h_total'], $raster->width + $said['h_front'] + $said['h_sync'] + $said['h_back']);
            self::assertSame($said['v_total'], $raster->height + $said['v_front'] + $said['v_sync'] + $said['v_back']);
            self::assertLessThanOrEqual($hz * 1.005, $timing->refreshHz(), "$raster at $hz Hz, $blanking->value");
            // The clock goes by steps of 0.25 MHz, and lines are whole, which is much for a small raster.
            self::assertGreaterThan($hz * (0.85 - 1 / $said['v_total']) - 250_000 / ($said['h_total'] * $said['v_total']), $timing->refreshHz(), "$raster at $hz Hz, $blanking->value");
        }
    }

    /** CVT 1.2: the lines of the vertical sync name the aspect. */
    #[TestWith([1024, 768, 4])]
    #[TestWith([1920, 1080, 5])]
    #[TestWith([1920, 1200, 6])]
    #[TestWith([1280, 1024, 7])]
    #[TestWith([1280, 768, 7])]
    #[TestWith([1920, 540, 10])]
    #[TestWith([1080, 1920, 10])]
    public function testSyncNamesTheAspect(int $width, int $height, int $lines): void
    {
        self::assertSame($lines, Timing::cvt(Size::px($width, $height), 60)->vSync);
        self::assertSame($lines, Timing::cvt(Size::px($width, $height), 60, Blanking::Reduced)->vSync);
        self::assertSame(8, Timing::cvt(Size::px($width, $height), 60, Blanking::Reduced2)->vSync);
    }

    public function testLessBlankingWantsALowerClock(): void
    {
        $clock = static fn (Blanking $blanking): int => Timing::cvt(Size::px(3840, 1080), 60, $blanking)->clockKhz;

        self::assertGreaterThan($clock(Blanking::Reduced), $clock(Blanking::Normal));
        self::assertGreaterThan($clock(Blanking::Reduced2), $clock(Blanking::Reduced));
    }
}
