<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

/** An overlay that is in force, and what its loops and passes count from, Unix ms. */
final readonly class InForce
{
    public function __construct(public Overlay $overlay, public int $anchorMs)
    {
    }
}
