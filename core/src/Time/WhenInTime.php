<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Data\Rows\RowsInTime;

/** A condition on rows, as these come and go. Where there is no such source none are chosen. */
final readonly class WhenInTime
{
    public function __construct(public When $when, public ?RowsInTime $inTime)
    {
    }

    /** @param int $ms Unix ms */
    public function holds(int $ms): bool
    {
        return $this->when->holds($this->inTime?->at($ms)->count ?? 0);
    }

    /** The first instant after this at which it may become otherwise, Unix ms; null where there is none. */
    public function changesAfter(int $ms): ?int
    {
        return $this->inTime?->changesAfter($ms);
    }

    /** One scene while it holds, and nothing else. */
    public function turns(): Turns
    {
        $loop = fn (int $ms): Loop => $this->holds($ms) ? Loop::endless(0) : Loop::of([]);

        return $this->changesAfter(PHP_INT_MIN) === null ? new SteadyTurns($loop(0)) : new RowTurns($this->changesAfter(...), $loop);
    }
}
