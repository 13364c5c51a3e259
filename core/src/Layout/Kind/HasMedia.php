<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Media\Media;

/** An element that shows pictures or films. */
interface HasMedia extends Element
{
    /** @return list<Media> those that it may show itself; what is in layouts within it is another matter */
    public function media(): array;
}
