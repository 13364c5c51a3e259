<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Geometry\Size;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Screen;
use UpperPane\Tests\Core\Make;

/**
 * Fit against what Chromium paints for CSS `object-fit` and `object-position` (CSS Images 3, 5.5 and 5.6), Debian's Chromium 156.
 *
 * The picture has four quarters of their own colours, so that its edges and its centre can both be found on the screenshot.
 */
final class FitPaintedTest extends TestCase
{
    private const BOX_AT = [60, 40];

    public function testChromiumPaintsWhatTheCoreSays(): void
    {
        $chrome = Chrome::open(800, 600);
        try {
            $chrome->go('data:text/html,<body style="margin:0;background:white"><img style="position:absolute;left:60px;top:40px">');
            $random = Make::random(1);
            for ($i = 0; $i < 40; $i++) {
                $mode = FitMode::cases()[$i % 5];
                $source = Size::px($random->getInt(8, 90) * 8, $random->getInt(8, 90) * 8);
                $box = Size::px($random->getInt(60, 640), $random->getInt(60, 480));
                [$focusX, $focusY] = [$random->getInt(0, 100), $random->getInt(0, 100)];
                $this->paint($chrome, $source, $box, $mode, $focusX, $focusY);
                $this->compare(Screen::of($chrome), Fit::of($source, $box, $mode, $focusX, $focusY), "$mode->value $source in $box at $focusX, $focusY");
            }
        } finally {
            $chrome->close();
        }
    }

    private function paint(Chrome $chrome, Size $source, Size $box, FitMode $mode, int $focusX, int $focusY): void
    {
        [$w, $h] = [$source->width / 2, $source->height / 2];
        $svg = "<svg xmlns='http://www.w3.org/2000/svg' width='$source->width' height='$source->height' shape-rendering='crispEdges'>"
            . "<rect width='$w' height='$h' fill='#ff0000'/><rect x='$w' width='$w' height='$h' fill='#0000ff'/>"
            . "<rect y='$h' width='$w' height='$h' fill='#ff8000'/><rect x='$w' y='$h' width='$w' height='$h' fill='#0080ff'/></svg>";
        $chrome->driver->executeAsyncScript(
            'const [src, css, done] = arguments; const img = document.querySelector("img"); img.style.cssText += css; img.src = src;'
                . 'img.decode().then(() => requestAnimationFrame(() => requestAnimationFrame(done)))',
            ['data:image/svg+xml,' . rawurlencode($svg), "width:{$box->width}px;height:{$box->height}px;object-fit:$mode->value;object-position:$focusX% $focusY%"],
        );
    }

    private function compare(Screen $screen, Fit $fit, string $what): void
    {
        [$left, $top] = self::BOX_AT;
        $kind = static fn (int $x, int $y): string => match (true) {
            $screen->is($x, $y, '#ffffff', 90) => 'outside',
            $screen->is($x, $y, '#ff4000', 70) => $screen->is($x, $y, '#ff0000', 60) ? 'red' : 'orange',
            default => $screen->is($x, $y, '#0000ff', 60) ? 'blue' : 'sky',
        };
        // Two px away from every edge and from the centre lines the colour has to be just the one the core promises.
        $drawn = $fit->drawn;
        $probesX = [$drawn->x, $drawn->x + $drawn->width / 2, $drawn->x + $drawn->width, 0, $fit->box->width];
        $probesY = [$drawn->y, $drawn->y + $drawn->height / 2, $drawn->y + $drawn->height, 0, $fit->box->height];
        foreach ($probesX as $px) {
            foreach ($probesY as $py) {
                foreach ([-2, 2] as $dx) {
                    foreach ([-2, 2] as $dy) {
                        [$x, $y] = [(int) round($px) + $dx, (int) round($py) + $dy];
                        $nearAnEdge = min(array_map(static fn (float $p): float => abs($p - $x - 0.5), $probesX)) < 1.2
                            || min(array_map(static fn (float $p): float => abs($p - $y - 0.5), $probesY)) < 1.2;
                        if ($nearAnEdge || $left + $x < 0 || $top + $y < 0 || $left + $x >= $screen->width() || $top + $y >= $screen->height()) {
                            continue;
                        }
                        self::assertSame($this->promised($fit, $x + 0.5, $y + 0.5), $kind($left + $x, $top + $y), "$what at $x, $y of the box");
                    }
                }
            }
        }
    }

    private function promised(Fit $fit, float $x, float $y): string
    {
        $drawn = $fit->drawn;
        $inBox = $x >= 0 && $y >= 0 && $x < $fit->box->width && $y < $fit->box->height;
        $inPicture = $x >= $drawn->x && $y >= $drawn->y && $x < $drawn->x + $drawn->width && $y < $drawn->y + $drawn->height;
        if (!$inBox || !$inPicture) {
            return 'outside';
        }
        $right = $x >= $drawn->x + $drawn->width / 2;
        $low = $y >= $drawn->y + $drawn->height / 2;

        return $low ? ($right ? 'sky' : 'orange') : ($right ? 'blue' : 'red');
    }
}
