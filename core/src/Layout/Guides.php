<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;

/** The lines that a designer draws for her own hands, canvas px, and the margin that she keeps free at each edge; nobody sees them on a display. */
final readonly class Guides
{
    private const MOST = 200;

    /** @throws DocumentRefused */
    public static function fromNode(Node $layout): void
    {
        $guides = $layout->optional('guides')?->object('x', 'y');
        foreach (['x', 'y'] as $axis) {
            foreach ($guides?->optional($axis)?->items(self::MOST) ?? [] as $line) {
                $line->int(-Size::LONGEST, Size::LONGEST, 'px');
            }
        }
        $layout->optional('safe')?->int(0, Size::LONGEST, 'px');
    }
}
