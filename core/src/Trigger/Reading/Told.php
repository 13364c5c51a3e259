<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Reading;

/** A figure that a source told. */
final readonly class Told implements Reading
{
    /** @param ?string $field null for all of its fields that a signal listens to */
    public function __construct(public string $source, public ?string $field, public float $value)
    {
    }
}
