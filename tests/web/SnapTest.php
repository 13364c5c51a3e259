<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** What draws a box that a hand moves: gaps like others (web/src/Layout/composer/snap.ts), and how the pane is shown (paneScale.ts). */
final class SnapTest extends TestCase
{
    public function testAGapLikeAnotherDrawsABox(): void
    {
        $box = static fn (int $x, int $y = 0, int $width = 100): array => ['x' => $x, 'y' => $y, 'width' => $width, 'height' => 50];
        $snap = static fn (array $moved, array ...$others): array => (new Module('Layout/composer/snap.ts'))->call('snapGaps', $moved, $others, 6);

        $behind = $snap($box(243), $box(0), $box(120));
        self::assertSame([-3, 0], [$behind['dx'], $behind['dy']], 'as far behind the second as that is behind the first');
        self::assertSame([['along' => 'x', 'from' => 100, 'to' => 120, 'at' => 25], ['along' => 'x', 'from' => 220, 'to' => 240, 'at' => 25]], $behind['gaps']);
        self::assertSame(4, $snap($box(-124), $box(0), $box(120))['dx'], 'or before the first');
        self::assertSame(-2, $snap($box(202), $box(0), $box(400))['dx'], 'or midway between two');
        self::assertSame(0, $snap($box(260), $box(0), $box(120))['dx'], 'too far away');
        self::assertSame(0, $snap($box(243, 300), $box(0), $box(120))['dx'], 'in another row');
        self::assertSame(5, $snap(['x' => 0, 'y' => 135] + $box(0), ['y' => 0] + $box(0), ['y' => 70] + $box(0))['dy'], 'in a column likewise');
        self::assertSame([0, 0], array_values(array_slice($snap($box(5)), 0, 2)), 'alone nothing draws it');
    }

    public function testTheCanvasIsFittedOrShownLargerAboutAPoint(): void
    {
        self::assertSame([[0.45, 66, 60], [0.9, 50, 50], [0.9, 60, 45], true, [64, 0.02], [300, 200]], Scene::of('scale.ts', 'fitted'));
    }
}
