<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Reading;

/** A band in which somebody is before a sensor; 0 for nobody. */
final readonly class Held implements Reading
{
    public function __construct(public string $sensor, public int $band)
    {
    }
}
