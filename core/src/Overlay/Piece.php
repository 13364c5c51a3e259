<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

/** A span in which the same overlays are drawn; Unix ms. */
final readonly class Piece
{
    /** @param list<InForce> $drawn lowest first */
    public function __construct(public int $fromMs, public int $toMs, public array $drawn)
    {
    }
}
