<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Division\Sum;
use UpperPane\Core\Layout\Division\Sums;

/** `zone.sum`: across every strip of the canvas the sizes of the zones have to add up to the canvas. Common practice, no source. */
final readonly class ZoneSum implements Check
{
    /** Zones of a strip to which the difference is given for a trial. */
    private const MOST_TRIED = 3;

    public static function explained(): array
    {
        return [
            new Explanation(
                'zone.sum',
                'warning',
                'across a strip between neighbouring zone edges, sizes do not add up to the canvas; zones inside others are left out, zones that begin and end alike count once, ' .
                'and what lies behind the frames of a wall between two of them is not missed',
                'a typed figure is wrong',
                'common practice',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach (Sums::of($subject->layout) as $sum) {
            $difference = $sum->difference();
            if ($difference === 0 || ($difference < 0 && $difference + $subject->behindFrames($sum) === 0)) {
                continue;
            }
            yield new Finding(
                'zone.sum',
                Level::Warning,
                [...$sum->elements, ...$sum->others],
                sprintf(
                    '%s, the canvas is %d px %s: %d px too %s',
                    $sum->written(),
                    $sum->canvas,
                    $sum->side === 'width' ? 'wide' : 'high',
                    abs($difference),
                    $difference > 0 ? 'many' : 'few',
                ),
                $sum->toArray(),
                null,
                self::cures($sum, $subject),
            );
        }
    }

    /**
     * One zone of the strip takes the whole difference, the last one first; those behind it go along.
     *
     * @return list<Fix>
     */
    private static function cures(Sum $sum, Subject $subject): array
    {
        $cures = [];
        $across = $sum->side === 'width';
        foreach (array_slice(array_reverse($sum->elements), 0, self::MOST_TRIED) as $place => $id) {
            $old = $subject->layout->zones[$id]->rect();
            $size = ($across ? $old->width : $old->height) - $sum->difference();
            if ($size < 1) {
                continue;
            }
            $label = sprintf('Make "%s" %d px %s', $id, $size, $across ? 'wide' : 'high');
            if ($place === 0) {
                $cures[] = Fix::rect($label, $id, $across ? Rect::at($sum->canvas - $size, $old->y, $size, $old->height) : Rect::at($old->x, $sum->canvas - $size, $old->width, $size));
            }
            // Without gaps, from the edge on: each begins where the one before it ends.
            $rects = [];
            $at = 0;
            foreach ($sum->elements as $one) {
                $rect = $subject->layout->zones[$one]->rect();
                $long = $one === $id ? $size : ($across ? $rect->width : $rect->height);
                $next = $across ? Rect::at($at, $rect->y, $long, $rect->height) : Rect::at($rect->x, $at, $rect->width, $long);
                $at += $long;
                $rects += $next->equals($rect) ? [] : [$one => $next];
            }
            if ($rects !== []) {
                $cures[] = count($rects) === 1 && isset($rects[$id]) ? Fix::rect($label, $id, $rects[$id]) : Fix::rects("$label, and the others beside it", $rects);
            }
        }

        return $cures;
    }
}
