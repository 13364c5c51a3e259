<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What a hand does on the pane between two frames: pure functions of web/src/Layout/composer. */
final class GestureTest extends TestCase
{
    private const BOX = ['x' => 100, 'y' => 50, 'width' => 400, 'height' => 200];

    /** @param array{int, int, int, int} $want */
    #[DataProvider('sizings')]
    public function testAnEdgeIsDragged(string $handle, int $dx, int $dy, bool $keepAspect, array $want): void
    {
        $got = (new Module('Layout/composer/gestures.ts'))->call('sized', self::BOX, $handle, $dx, $dy, $keepAspect);

        self::assertSame($want, [$got['x'], $got['y'], $got['width'], $got['height']]);
    }

    /** @return iterable<string, array{string, int, int, bool, array{int, int, int, int}}> */
    public static function sizings(): iterable
    {
        yield 'right' => ['e', 30, 99, false, [100, 50, 430, 200]];
        yield 'left: the right edge stays' => ['w', 30, 0, false, [130, 50, 370, 200]];
        yield 'top left' => ['nw', -20, -10, false, [80, 40, 420, 210]];
        yield 'bottom right with its aspect' => ['se', 40, 0, true, [100, 50, 440, 220]];
        yield 'top left with its aspect: the opposite corner stays' => ['nw', -40, 0, true, [60, 30, 440, 220]];
        yield 'bottom with its aspect' => ['s', 0, 20, true, [100, 50, 440, 220]];
        yield 'never under 1 px' => ['w', 1000, 0, false, [499, 50, 1, 200]];
        yield 'never under 1 px high' => ['n', 0, 1000, false, [100, 249, 400, 1]];
    }

    public function testABoxSpansTwoPointsWhicheverWayItIsDrawn(): void
    {
        $want = ['x' => 10, 'y' => 20, 'width' => 30, 'height' => 5];
        $found = (new Module('Layout/composer/gestures.ts'))->calls([
            ['spanned', [10, 20, 40, 25]],
            ['spanned', [40, 25, 10, 20]],
            ['spanned', [5, 5, 5, 5]],
            ['around', [[self::BOX, ['x' => 0, 'y' => 100, 'width' => 10, 'height' => 400]]]],
        ]);

        self::assertSame([$want, $want, ['x' => 5, 'y' => 5, 'width' => 1, 'height' => 1], ['x' => 0, 'y' => 50, 'width' => 500, 'height' => 450]], $found);
    }

    /**
     * @param array{x: int, y: int} $box
     * @param array{int, int} $nudge
     * @param array{list<int>, list<int>} $lines
     */
    #[DataProvider('snaps')]
    public function testAMovingBoxIsDrawnToTheNearestLine(array $box, array $nudge, array $lines): void
    {
        $all = ['left' => true, 'right' => true, 'top' => true, 'bottom' => true, 'centre' => true];
        $got = (new Module('Layout/composer/snap.ts'))->call('snap', $box + ['width' => 100, 'height' => 100], [0, 500, 1000], [0, 300, 600], 10, $all);

        self::assertSame($nudge, [$got['dx'], $got['dy']]);
        self::assertSame($lines, [$got['linesX'], $got['linesY']]);
    }

    /** @return iterable<string, array{array{x: int, y: int}, array{int, int}, array{list<int>, list<int>}}> */
    public static function snaps(): iterable
    {
        yield 'nothing near' => [['x' => 200, 'y' => 120], [0, 0], [[], []]];
        yield 'its left edge' => [['x' => 7, 'y' => 120], [-7, 0], [[0], []]];
        yield 'its right edge' => [['x' => 395, 'y' => 120], [5, 0], [[500], []]];
        yield 'its centre' => [['x' => 448, 'y' => 120], [2, 0], [[500], []]];
        yield 'both ways' => [['x' => -3, 'y' => 204], [3, -4], [[0], [300]]];
        yield 'just within reach' => [['x' => 10, 'y' => 120], [-10, 0], [[0], []]];
        yield 'just beyond reach' => [['x' => 11, 'y' => 120], [0, 0], [[], []]];
        yield 'already there' => [['x' => 500, 'y' => 120], [0, 0], [[500], []]];
    }

    public function testOnlyTheDraggedEdgeIsDrawn(): void
    {
        $right = ['left' => false, 'right' => true, 'top' => false, 'bottom' => false, 'centre' => false];
        $got = (new Module('Layout/composer/snap.ts'))->call('snap', ['x' => 3, 'y' => 3, 'width' => 494, 'height' => 50], [0, 500], [0], 10, $right);

        self::assertSame([3, 0], [$got['dx'], $got['dy']]);
    }

    public function testFiguresAreWrittenWithTheirUnits(): void
    {
        $format = new Module('ui/format.ts');
        $iso = gmdate('Y-m-d\TH:i:s\Z', 1_780_308_000);
        self::assertSame(
            ['15.0 s', '12.5 s', '1.234 s', '999 B', '42 kB', '1.5 MB', '2.00 GB', '1920 × 1080', '10:00:00', '09:00', '5 s ago', '3 min ago', '2 h ago', '4 days ago', 'never'],
            $format->calls([
                ['seconds', [15_000]], ['seconds', [12_500]], ['seconds', [1234]],
                ['bytes', [999]], ['bytes', [42_000]], ['bytes', [1_500_000]], ['bytes', [2_000_000_000]],
                ['size', [['width' => 1920, 'height' => 1080]]],
                ['clock', [1_780_308_000_000, 'UTC']], ['clock', [1_780_308_000_000, 'Atlantic/Cape_Verde', false]],
                ['ago', [$iso, 1_780_308_005_000]], ['ago', [$iso, 1_780_308_200_000]],
                ['ago', [$iso, 1_780_315_300_000]], ['ago', [$iso, 1_780_308_000_000 + 4 * 86_400_000]], ['ago', [null, 0]],
            ]),
        );
    }
}
