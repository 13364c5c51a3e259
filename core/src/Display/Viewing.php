<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;

/** From where a display is looked at, in mm. */
final readonly class Viewing
{
    private function __construct(public float $nearestMm, public float $farthestMm)
    {
    }

    /** @throws DocumentRefused when the farthest viewer stands nearer than the nearest */
    public static function fromNode(Node $node): self
    {
        $node->object('nearest_mm', 'farthest_mm', 'centre_height_mm', 'eye_height_mm');
        $node->optional('centre_height_mm')?->number(unit: 'mm');
        $node->optional('eye_height_mm')?->number(unit: 'mm');
        $nearest = $node->field('nearest_mm')->positive('mm');
        $farthest = $node->field('farthest_mm');
        if ($farthest->positive('mm') < $nearest) {
            throw $farthest->refused('value.range', sprintf('is %s mm, nearer than the nearest viewer at %s mm.', $farthest->positive(), $nearest));
        }

        return new self($nearest, $farthest->positive('mm'));
    }
}
