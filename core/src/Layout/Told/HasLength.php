<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Layout\Kind\Element;

/** An element that takes a while to go through what it tells: as long as that, an item lasts whose layout it is in. */
interface HasLength extends Element
{
    /**
     * @param ?int $ms the instant whose rows it tells, Unix ms; that at which its layout is looked at where null
     * @return int ms; 0 where it has nothing to go through
     */
    public function lengthMs(?int $ms = null): int;

    /** The first instant after this at which its length may be another one, Unix ms; null where there is none. */
    public function changesAfter(int $ms): ?int;
}
