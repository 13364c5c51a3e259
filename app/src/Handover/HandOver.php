<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

/** The job of handing over what was noted. */
final readonly class HandOver
{
    public function __construct(public string $handingId)
    {
    }
}
