<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use UpperPane\Core\Geometry\Size;

/** What a file turned out to be. */
final readonly class Probed
{
    /** @param ?int $lengthMs of a film; null for a picture */
    public function __construct(public string $type, public string $extension, public Size $size, public ?int $lengthMs)
    {
    }
}
