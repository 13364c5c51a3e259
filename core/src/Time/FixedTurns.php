<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** Turns that stand in wall-clock time, whatever the layers beside them count from. */
trait FixedTurns
{
    public function anchored(int $anchorMs): self
    {
        return $this;
    }

    public function resumed(int $fromMs, int $anchorMs): self
    {
        return $this;
    }

    public function begun(): self
    {
        return $this;
    }
}
