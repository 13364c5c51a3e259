<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

/** The job of finding out what a file is that was brought in. */
final readonly class ProbeMedia
{
    public function __construct(public string $assetId)
    {
    }
}
