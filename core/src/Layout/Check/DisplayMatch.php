<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Verdict;

/** `display.crossed`, `canvas.swapped`, `display.padded`, `display.scaled`: how the canvas sits on the display's raster. */
final readonly class DisplayMatch implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation('display.crossed', 'stop', 'a landscape canvas on a portrait display, or the reverse', 'nobody means it', 'common practice'),
            new Explanation('canvas.swapped', 'stop', 'width and height of the canvas are those of the display, swapped', 'typed the wrong way round', 'common practice'),
            new Explanation('display.padded', 'hint', 'the canvas has another aspect than the display', 'bars stay black', 'computation.md, 1'),
            new Explanation('display.scaled', 'hint', 'same aspect, another raster', 'a scaled picture is softer', 'computation.md, 1'),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        if ($subject->matching === null || $subject->display === null) {
            return;
        }
        $matching = $subject->matching;
        [$canvas, $raster, $name] = [$matching->canvas, $matching->raster, $subject->display->name];
        $measure = $matching->toArray();
        if ($matching->verdict === Verdict::Crossed) {
            yield new Finding('display.crossed', Level::Stop, [], sprintf(
                'The canvas is %s px, %s; %s is %s px, %s.',
                $canvas,
                $canvas->isPortrait() ? 'portrait' : 'landscape',
                $name,
                $raster,
                $raster->isPortrait() ? 'portrait' : 'landscape',
            ), $measure);
            if ($matching->swapped) {
                yield new Finding('canvas.swapped', Level::Stop, [], sprintf(
                    'Width and height of the canvas are swapped: %s px is given, %s is %s px.',
                    $canvas,
                    $name,
                    $raster,
                ), $measure);
            }
        } elseif ($matching->verdict === Verdict::Padded) {
            yield new Finding('display.padded', Level::Hint, [], sprintf(
                'The canvas of %s px covers %.1f %% of %s (%s px); the rest stays black.',
                $canvas,
                $matching->used() * 100,
                $name,
                $raster,
            ), $measure);
        } elseif ($matching->verdict === Verdict::Scaled) {
            yield new Finding('display.scaled', Level::Hint, [], sprintf(
                'The canvas of %s px is scaled by %s to the %s px of %s.',
                $canvas,
                round($matching->scale, 4),
                $raster,
                $name,
            ), $measure);
        }
    }
}
