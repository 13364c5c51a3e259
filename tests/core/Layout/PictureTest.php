<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Layout\Kind\Picture\Picture;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Media\Swatch;
use UpperPane\Core\Media\Swatches;
use UpperPane\Tests\Core\Make;

/** Pictures that are cropped, flipped, rounded or seen through: a picture of 800 x 400 px in a box of 400 x 400 px at 100, 50. */
final class PictureTest extends TestCase
{
    /**
     * @param array<string, mixed> $more
     * @param array{int, int, int, int} $painted
     * @param array{int, int, int, int} $whole
     */
    #[TestWith([[], [100, 50, 400, 400], [100, 150, 400, 200]])]
    #[TestWith([['crop' => [200, 100, 200, 200]], [100, 50, 400, 400], [-300, -150, 1600, 800]], 'the crop fills the box, the rest lies beyond')]
    #[TestWith([['crop' => [200, 100, 400, 200]], [100, 150, 400, 200], [-100, 50, 800, 400]], 'nothing of the rest shows in the bars')]
    #[TestWith([['crop' => [0, 0, 200, 200], 'flip' => 'across'], [100, 50, 400, 400], [-1100, 50, 1600, 800]], 'what is left of it lies right')]
    #[TestWith([['crop' => [0, 0, 200, 200], 'flip' => 'down'], [100, 50, 400, 400], [100, -350, 1600, 800]])]
    #[TestWith([['fit' => 'cover', 'radius_px' => 20], [100, 50, 400, 400], [-100, 50, 800, 400]])]
    #[TestWith([['radius_px' => 20], [100, 150, 400, 200], [100, 150, 400, 200]], 'the picture is rounded, not its bars')]
    public function testWhereItIsPaintedAndWhereTheWholeOfItLies(array $more, array $painted, array $whole): void
    {
        $picture = self::read($more);
        self::assertEquals($painted, array_values($picture->painted()->toArray()));
        self::assertEquals($whole, array_values($picture->whole()->toArray()));
    }

    public function testItIsDrawnAsItSays(): void
    {
        $thing = Make::shownAt(Make::composed(Make::layout([self::picture(['flip' => 'both', 'opacity' => 0.25, 'radius_px' => 8])])))->at(0)->toArray()['things'][0];
        self::assertSame(['both', 0.25, 8], [$thing['flip'], $thing['opacity'], $thing['radius_px']]);
    }

    public function testItCoversOnlyWhatCannotBeSeenThroughIt(): void
    {
        self::assertSame([true, false, false], array_map(static fn (array $more): bool => self::read($more)->covers(), [[], ['opacity' => 0.9], ['radius_px' => 1]]));
    }

    /** A picture red at the left and blue at the right. */
    /** @param array<string, mixed> $more */
    #[TestWith([[], '0000ff'])]
    #[TestWith([['flip' => 'across'], 'ff0000'])]
    #[TestWith([['opacity' => 0.5], '000080'])]
    #[TestWith([['crop' => [0, 0, 400, 400]], 'ff0000'])]
    public function testWhatLiesUnderWordsIsWhatIsDrawn(array $more, string $hex): void
    {
        $swatches = new class implements Swatches {
            public function of(Media $media): Swatch
            {
                return Swatch::of(2, 1, "\xff\x00\x00\xff\x00\x00\xff\xff");
            }
        };
        [$layer] = self::read(['fit' => 'fill'] + $more)->paint(null, $swatches) ?? [];
        [$red, $green, $blue] = $layer->over([0.0, 0.0, 0.0], 490, 400);
        self::assertSame($hex, sprintf('%02x%02x%02x', (int) round($red), (int) round($green), (int) round($blue)));
    }

    public function testTheColourOfAnEdgeIsThatOfMostOfIt(): void
    {
        // Nine px: eight are the edge, of which five are nearly the same green; the middle does not count.
        [$green, $near, $other, $clear] = ["\x10\x60\x50\xff", "\x12\x62\x50\xff", "\xf0\xf0\xf0\xff", "\x00\x00\x00\x00"];
        $edge = Swatch::of(3, 3, $green . $green . $near . $green . $other . $near . $other . $other . $clear)->edge();
        self::assertSame(['#116150', 0.625], [$edge['color']->hex ?? null, $edge['share'] ?? null]);
        self::assertNull(Swatch::of(2, 1, $clear . $clear)->edge(), 'one sees through it');
        self::assertSame('#f0f0f0', Swatch::of(1, 1, $other)->edge()['color']->hex ?? null);
    }

    public function testTheGroundOfABoxLiesBelowWhatIsInIt(): void
    {
        $zone = ['ground' => '#123456'] + Make::zone('z', 0, 0, 100, 100, [Make::picture('i', 50, 100, 1000, fit: 'contain')]);
        $things = Make::shownAt(Make::composed(Make::layout([$zone, self::picture(['ground' => '#654321'])])))->at(0)->toArray()['things'];
        $seen = array_map(static fn (array $t): array => [$t['kind'], $t['fill'] ?? null], $things);
        self::assertSame([['background', '#123456'], ['zone', null], ['background', '#654321'], ['picture', null]], $seen);
    }

    public function testACropBeyondThePictureIsRefused(): void
    {
        $this->expectExceptionMessage('/elements/0/crop goes beyond the picture, which has 800 x 400 px.');
        self::read(['crop' => [700, 0, 200, 100]]);
    }

    /**
     * @param array<string, mixed> $more
     * @return array<string, mixed>
     */
    private static function picture(array $more): array
    {
        if (is_array($more['crop'] ?? null)) {
            $more['crop'] = array_combine(['x', 'y', 'width', 'height'], $more['crop']);
        }

        return $more + ['id' => 'p', 'kind' => 'picture', 'rect' => ['x' => 100, 'y' => 50, 'width' => 400, 'height' => 400], 'media' => ['name' => 'pier.png', 'width' => 800, 'height' => 400]];
    }

    /** @param array<string, mixed> $more */
    private static function read(array $more): Picture
    {
        $element = Make::composed(Make::layout([self::picture($more)]))->elements[0];

        return $element instanceof Picture ? $element : throw new \LogicException('A picture is a picture.');
    }
}
