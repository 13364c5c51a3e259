<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** What a pointer does on the pane: draws, chooses, moves, sizes and pans, and what draws it meanwhile (web/src/Layout/composer/paneHands.ts). */
final class PaneHandsTest extends TestCase
{
    /** The canvas of 800 x 600 px stands at 100, 50 of the pane, at half its size. */
    public function testWhatIsPressedIsChosenAndMovedWithItsGroup(): void
    {
        self::assertSame([['b', 'c'], [[0, 0], [230, 240], [430, 240]], ['b', 'c', 'a'], ['a'], []], Scene::of('paneHands.ts', 'pressed'));
    }

    public function testWhatIsLockedOrHiddenIsPressedThrough(): void
    {
        self::assertSame([['a'], [[10, 10], [0, 0], [0, 0]], ['a']], Scene::of('paneHands.ts', 'pressedThrough'));
    }

    public function testASlipOfTheHandMovesNothing(): void
    {
        self::assertSame([[[0, 0]], [[8, 0]]], Scene::of('paneHands.ts', 'slips'));
    }

    public function testEdgesGuidesMarginsAndEqualGapsDraw(): void
    {
        self::assertSame([[100, [100]], [350, [400, 350]], [40, [40]], [240, 2], [225, 0]], Scene::of('paneHands.ts', 'snapped'));
    }

    public function testAToolDrawsABoxAndAPressPutsOneOfAUsualSize(): void
    {
        self::assertSame([
            ['x' => 100, 'y' => 60, 'width' => 200, 'height' => 140],
            ['x' => 402, 'y' => 301, 'width' => 267, 'height' => 120],
        ], Scene::of('paneHands.ts', 'drawn'));
    }

    public function testAHandleSizesAndTheMiddleButtonPans(): void
    {
        self::assertSame([['x' => 0, 'y' => 0, 'width' => 160, 'height' => 100], ['x' => 0, 'y' => 0, 'width' => 200, 'height' => 200], [[15, 10]], false], Scene::of('paneHands.ts', 'sized'));
    }
}
