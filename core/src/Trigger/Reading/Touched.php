<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Reading;

/** The glass was touched, in px of the canvas of what plays. */
final readonly class Touched implements Reading
{
    public function __construct(public float $x, public float $y)
    {
    }
}
