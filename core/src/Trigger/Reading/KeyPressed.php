<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Reading;

/** A key was pressed. */
final readonly class KeyPressed implements Reading
{
    public function __construct(public string $key)
    {
    }
}
