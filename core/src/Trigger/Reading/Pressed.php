<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Reading;

/** A button was pressed. */
final readonly class Pressed implements Reading
{
    public function __construct(public string $sensor, public string $button)
    {
    }
}
