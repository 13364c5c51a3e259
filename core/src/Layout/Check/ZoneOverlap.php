<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Division\Neighbours;

/** `zone.overlap`: two zones that share a part of the canvas; a hint where one lies wholly in the other. */
final readonly class ZoneOverlap implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'zone.overlap',
                'warning; hint for a zone wholly inside another',
                'two zones share a part of the canvas, one finding a pair',
                'the upper hides the lower',
                'arithmetic',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach (Neighbours::overlapping(array_values($subject->layout->zones)) as [$a, $b]) {
            $common = $a->rect()->intersection($b->rect());
            if ($common === null) {
                continue;
            }
            $inset = $common->equals($a->rect()) ? $a : ($common->equals($b->rect()) ? $b : null);
            $measure = ['width' => $common->width, 'height' => $common->height, 'px' => $common->area(), 'share' => round($common->area() / $subject->layout->canvas->area(), 6)];
            yield $inset === null
                ? new Finding('zone.overlap', Level::Warning, [$a->id(), $b->id()], sprintf(
                    'Zones "%s" and "%s" overlap by %d x %d px.',
                    $a->id(),
                    $b->id(),
                    $common->width,
                    $common->height,
                ), $measure, $common)
                : new Finding('zone.overlap', Level::Hint, [$a->id(), $b->id()], sprintf(
                    'Zone "%s" lies wholly inside zone "%s".',
                    $inset->id(),
                    $inset === $a ? $b->id() : $a->id(),
                ), $measure, $common);
        }
    }
}
