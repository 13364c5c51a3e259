<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Rect;

/** What every kind of element has: its id and its rectangle. */
trait ElementHead
{
    public function id(): string
    {
        return $this->id;
    }

    public function rect(): Rect
    {
        return $this->rect;
    }

    /** @throws DocumentRefused on a field that this kind does not have */
    private static function head(Node $node, string ...$own): void
    {
        $node->object('id', 'kind', 'name', 'rect', ...$own);
        $node->optional('name')?->text();
    }
}
