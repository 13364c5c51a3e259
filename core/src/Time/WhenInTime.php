<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Data\Rows\RowsInTime;
use UpperPane\Core\Document\Budget;

/** A condition on rows, as these come and go. Where there is no such source none are chosen. */
final readonly class WhenInTime
{
    public function __construct(public When $when, public ?RowsInTime $inTime)
    {
    }

    /** @param int $ms Unix ms */
    public function holds(int $ms): bool
    {
        return $this->when->holds($this->inTime?->count($ms) ?? 0);
    }

    /** The first instant after this at which it may become otherwise, Unix ms; null where there is none. */
    public function changesAfter(int $ms): ?int
    {
        return $this->inTime?->countChangesAfter($ms);
    }

    /**
     * When it holds in [from, to), Unix ms.
     *
     * @return list<array{int, int}> from and to of each time, rising; no more than can be written out
     */
    public function spans(int $fromMs, int $toMs): array
    {
        $spans = [];
        for ($at = $fromMs; $at < $toMs && count($spans) <= Budget::SEGMENTS; $at = $until) {
            $until = min($toMs, $this->changesAfter($at) ?? $toMs);
            if (!$this->holds($at)) {
                continue;
            }
            $last = count($spans) - 1;
            if ($last >= 0 && $spans[$last][1] === $at) {
                $spans[$last][1] = $until;
            } else {
                $spans[] = [$at, $until];
            }
        }

        return $spans;
    }

    /** One scene while it holds, and nothing else. */
    public function turns(): Turns
    {
        return (new RowLoops($this->changesAfter(...), fn (int $ms): Loop => $this->holds($ms) ? Loop::endless(0) : Loop::of([])))->turns();
    }
}
