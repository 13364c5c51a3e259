<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Kind\Element;

/** `element.outside`: what lies beyond the canvas is never seen. */
final readonly class ElementOutside implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation('element.outside', 'stop when wholly, else warning', 'an element beyond the canvas, in px per side', 'it is never seen', 'arithmetic'),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        $canvas = Rect::whole($subject->layout->canvas);
        foreach ($subject->layout->elements as $element) {
            $rect = $element->rect();
            if ($canvas->contains($rect)) {
                continue;
            }
            $beyond = array_filter([
                'left' => -$rect->x,
                'top' => -$rect->y,
                'right' => $rect->right() - $canvas->width,
                'bottom' => $rect->bottom() - $canvas->height,
            ], static fn (int $px): bool => $px > 0);
            $inside = $rect->intersection($canvas);
            if ($inside === null) {
                yield new Finding('element.outside', Level::Stop, [$element->id()], sprintf(
                    '"%s" lies wholly outside the canvas of %s px.',
                    $element->id(),
                    $subject->layout->canvas,
                ), $beyond, $rect, self::moved($element, $subject->layout->canvas));
                continue;
            }
            $sides = [];
            foreach ($beyond as $side => $px) {
                $sides[] = "$px px at the $side";
            }
            yield new Finding(
                'element.outside',
                Level::Warning,
                [$element->id()],
                sprintf('"%s" goes beyond the canvas by %s.', $element->id(), implode(' and ', $sides)),
                $beyond,
                $rect,
                [Fix::rect(sprintf('Cut it at the edge: %d x %d px', $inside->width, $inside->height), $element->id(), $inside), ...self::moved($element, $subject->layout->canvas)],
            );
        }
    }

    /** @return list<Fix> as it is, in the nearest place within the canvas; none where it is larger */
    private static function moved(Element $element, Size $canvas): array
    {
        $rect = $element->rect();
        $free = [$canvas->width - $rect->width, $canvas->height - $rect->height];

        return min($free) < 0 ? [] : [Fix::rect(
            sprintf('Move "%s" onto the canvas', $element->id()),
            $element->id(),
            Rect::at(max(0, min($rect->x, $free[0])), max(0, min($rect->y, $free[1])), $rect->width, $rect->height),
        )];
    }
}
