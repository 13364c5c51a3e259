<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** Rows of data in a layout that begins with the item of a zone. A turn here is the time in which the same rows are chosen. */
final readonly class BegunRowTurns implements Turns
{
    use WalksTurns;

    public function __construct(private RowTurns $own, private RowLoops $loops)
    {
    }

    public function at(int $atMs): Turn
    {
        return new Turn($atMs, $this->loops->changesAfter($atMs) ?? PHP_INT_MAX, $atMs, $this->loops->at($atMs));
    }

    public function anchored(int $anchorMs): RowTurns
    {
        return $this->own->anchored($anchorMs);
    }

    public function resumed(int $fromMs, int $anchorMs): RowTurns
    {
        return $this->anchored($anchorMs);
    }

    public function begun(): self
    {
        return $this;
    }
}
