<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** Rows of data in a layout that begins with the item of a zone. A turn here is the time in which the same rows are chosen. */
final readonly class BegunRowTurns implements Turns
{
    use WalksTurns;

    /**
     * @param \Closure(int): ?int $changesAfter the first instant after one at which other rows may be chosen, Unix ms
     * @param \Closure(int): Loop $loop of the rows at an instant, Unix ms
     */
    public function __construct(private RowTurns $own, private \Closure $changesAfter, private \Closure $loop)
    {
    }

    public function at(int $atMs): Turn
    {
        return new Turn($atMs, ($this->changesAfter)($atMs) ?? PHP_INT_MAX, $atMs, ($this->loop)($atMs));
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
