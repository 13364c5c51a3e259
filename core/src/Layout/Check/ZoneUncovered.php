<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Division\Uncovered;

/** `zone.uncovered`: where a layout has zones, what neither they nor a picture or opaque shape covers. One finding a maximal rectangle. */
final readonly class ZoneUncovered implements Check
{
    /** Only the largest are told; the whole of the area stands in each. */
    private const MOST = 20;

    public static function explained(): array
    {
        return [
            new Explanation(
                'zone.uncovered',
                'hint',
                'what no zone, picture or opaque shape covers, as maximal rectangles (the 20 largest); on a wall, not what lies behind frames alone',
                'the background shows',
                'arithmetic',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        $layout = $subject->layout;
        if ($layout->zones === []) {
            return;
        }
        $covers = [];
        foreach ($layout->elements as $element) {
            if ($element->covers()) {
                $covers[] = $element->rect();
            }
        }
        $uncovered = Uncovered::of($layout->canvas, $covers);
        $rects = array_filter($uncovered->rects, static fn (Rect $rect): bool => !$subject->isBehindFrames($rect));
        usort($rects, static fn (Rect $a, Rect $b): int => [$b->area(), $a->y, $a->x] <=> [$a->area(), $b->y, $b->x]);
        foreach (array_slice($rects, 0, self::MOST) as $rect) {
            yield new Finding('zone.uncovered', Level::Hint, [], sprintf(
                'Nothing covers %d x %d px at %d, %d: the background shows.',
                $rect->width,
                $rect->height,
                $rect->x,
                $rect->y,
            ), [
                'px' => $rect->area(),
                'share' => round($rect->area() / $layout->canvas->area(), 6),
                'all_px' => $uncovered->area,
                'all_share' => round($uncovered->area / $layout->canvas->area(), 6),
                'rects' => count($rects),
            ], $rect);
        }
    }
}
