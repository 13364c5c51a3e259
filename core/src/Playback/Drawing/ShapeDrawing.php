<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Shape\Shape;
use UpperPane\Core\Playback\Filling;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Time\Turns;

/** A shape. */
final readonly class ShapeDrawing implements Drawing
{
    public function layers(Element $element, Composed $layout, Placing $placing, Drawer $drawer, ?Turns $turns): array
    {
        assert($element instanceof Shape);
        return [$drawer->plain($element, $placing, [
            'shape' => $element->shape,
            'fill' => $element->fill->hex,
            'radius_px' => Box::figure($element->radiusPx * $placing->typeScale()),
        ], $element->progress === null ? null : new Filling($element->progress, $placing->element($element->progress->zone)))];
    }

    public function smil(Element $element, Composed $layout, Placing $placing, SmilText $smil, string $in): null
    {
        return null;
    }
}
