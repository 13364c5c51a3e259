<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** One loop for ever. */
final readonly class SteadyTurns implements Turns
{
    use WalksTurns;

    /** @param int $anchorMs that it counts from, Unix ms */
    public function __construct(public Loop $loop, private int $anchorMs = 0)
    {
    }

    public function at(int $atMs): Turn
    {
        return new Turn(PHP_INT_MIN, PHP_INT_MAX, $this->anchorMs, $this->loop);
    }

    public function anchored(int $anchorMs): self
    {
        return $anchorMs === $this->anchorMs ? $this : new self($this->loop, $anchorMs);
    }

    public function resumed(int $fromMs, int $anchorMs): self
    {
        return $this->anchored($anchorMs);
    }

    public function begun(): self
    {
        return $this;
    }
}
