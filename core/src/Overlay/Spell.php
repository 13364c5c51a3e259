<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

/** From when to when an overlay is in force, and what its loops and passes count from; Unix ms. */
final readonly class Spell
{
    public function __construct(public int $fromMs, public int $toMs, public int $anchorMs)
    {
    }

    /** As far as it lies within [from, to); null where nothing of it does. */
    public function within(int $fromMs, int $toMs): ?self
    {
        [$from, $to] = [max($this->fromMs, $fromMs), min($this->toMs, $toMs)];

        return $from < $to ? new self($from, $to, $this->anchorMs) : null;
    }
}
