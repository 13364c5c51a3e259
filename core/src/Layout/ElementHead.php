<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Geometry\Rect;

/** An element that has a Head. */
trait ElementHead
{
    public function id(): string
    {
        return $this->head->id;
    }

    public function rect(): Rect
    {
        return $this->head->rect;
    }

    public function isHidden(): bool
    {
        return $this->head->hidden;
    }
}
