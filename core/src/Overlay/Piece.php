<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

/** A span in which the same overlays are in force; Unix ms. */
final readonly class Piece
{
    /** @param list<InForce> $standing lowest first, also what a takeover hides */
    public function __construct(public int $fromMs, public int $toMs, public array $standing)
    {
    }
}
