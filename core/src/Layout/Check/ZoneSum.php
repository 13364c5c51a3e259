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
                $this->fix($sum, $subject),
            );
        }
    }

    /** The last zone of the strip takes the whole difference, where it then lies in the canvas and on no other zone. */
    private function fix(Sum $sum, Subject $subject): ?Fix
    {
        $id = $sum->elements[count($sum->elements) - 1];
        $zone = $subject->layout->zones[$id];
        $old = $zone->rect();
        $size = ($sum->side === 'width' ? $old->width : $old->height) - $sum->difference();
        if ($size < 1) {
            return null;
        }
        $rect = $sum->side === 'width'
            ? Rect::at($sum->canvas - $size, $old->y, $size, $old->height)
            : Rect::at($old->x, $sum->canvas - $size, $old->width, $size);
        foreach ($subject->layout->zones as $other) {
            if ($other !== $zone && $other->rect()->intersection($rect) !== null) {
                return null;
            }
        }

        return Fix::rect(sprintf('Make "%s" %d px %s', $id, $size, $sum->side === 'width' ? 'wide' : 'high'), $id, $rect);
    }
}
