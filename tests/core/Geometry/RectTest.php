<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Geometry;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Tests\Core\Make;

final class RectTest extends TestCase
{
    public function testTheCommonPartIsWhatBothCover(): void
    {
        $random = Make::random(9);
        $any = static fn (): Rect => Rect::at($random->getInt(0, 9), $random->getInt(0, 9), $random->getInt(1, 9), $random->getInt(1, 9));
        $covers = static fn (Rect $r, int $x, int $y): bool => $x >= $r->x && $x < $r->right() && $y >= $r->y && $y < $r->bottom();
        for ($i = 0; $i < 200; $i++) {
            [$a, $b] = [$any(), $any()];
            $common = $a->intersection($b);
            $px = 0;
            for ($x = 0; $x < 18; $x++) {
                for ($y = 0; $y < 18; $y++) {
                    $px += $covers($a, $x, $y) && $covers($b, $x, $y) ? 1 : 0;
                }
            }
            self::assertSame($px, $common?->area() ?? 0);
            self::assertSame($px === $b->area(), $a->contains($b));
            self::assertEquals($common, $b->intersection($a));
        }
    }

    #[TestWith([0, 5])]
    #[TestWith([5, -1])]
    #[TestWith([1_000_001, 5])]
    public function testARectangleHasAtLeastOnePixelEachWay(int $width, int $height): void
    {
        $this->expectException(Refused::class);
        Rect::at(0, 0, $width, $height);
    }

    #[TestWith([1920, 1080, 3840, 2160, true])]
    #[TestWith([1920, 1080, 1366, 768, true])]
    #[TestWith([1920, 1080, 1360, 768, false])]
    #[TestWith([1920, 1080, 1920, 540, false])]
    #[TestWith([1, 1, 1_000_000, 1_000_000, true])]
    public function testAspectsWithinAThousandthCountAsTheSame(int $aw, int $ah, int $bw, int $bh, bool $same): void
    {
        self::assertSame($same, Size::px($aw, $ah)->sameAspectAs(Size::px($bw, $bh)));
        self::assertSame($same, Size::px($bw, $bh)->sameAspectAs(Size::px($aw, $ah)));
    }

    public function testFiguresAreWrittenWithoutNeedlessFractions(): void
    {
        self::assertSame(['x' => 480, 'y' => 0, 'width' => 0.33, 'height' => 12.5], (new Box(480.0, -0.0001, 1 / 3, 12.5))->toArray());
        self::assertSame(0.0, (new Box(0, 0, 10, 10))->clippedTo(new Box(20, 20, 5, 5))->width);
        self::assertEquals(new Box(25, 45, 20, 60), (new Box(10, 20, 10, 30))->placed(2, 2, 5, 5));
    }
}
