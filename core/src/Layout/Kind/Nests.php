<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Layout\Composed;

/** An element in which layouts are seen. */
interface Nests extends Element
{
    /** @return list<Composed> */
    public function nested(): array;
}
