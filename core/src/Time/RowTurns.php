<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/**
 * What rows of data go through: a loop of the rows at an instant, until others are chosen. Then what stands ends, and the loop of the new
 * ones begins; what has no end of its own ends at once. The first rows are those at the anchor.
 */
final class RowTurns implements Turns
{
    use WalksTurns;

    /** So many anchors are remembered. */
    private const MOST_ANCHORS = 64;

    /** @var list<Turn> one after the other; what follows the last is not known yet where it ends */
    private array $chain = [];

    /** @var array<int, self> by anchor */
    private array $others = [];

    /** @param int $anchorMs Unix ms */
    public function __construct(private readonly RowLoops $loops, private readonly int $anchorMs = 0)
    {
    }

    public function at(int $atMs): Turn
    {
        $this->chain = $this->chain === [] ? [$this->turn(PHP_INT_MIN, $this->anchorMs)] : $this->chain;
        for ($last = $this->chain[count($this->chain) - 1]; $last->toMs <= $atMs; $last = $this->chain[] = $this->turn($last->toMs, $last->toMs)) {
            // On to the turn that is asked for.
        }
        [$low, $high] = [0, count($this->chain) - 1];
        while ($low < $high) {
            $middle = ($low + $high + 1) >> 1;
            $this->chain[$middle]->fromMs <= $atMs ? $low = $middle : $high = $middle - 1;
        }

        return $this->chain[$low];
    }

    public function anchored(int $anchorMs): self
    {
        if ($anchorMs === $this->anchorMs) {
            return $this;
        }
        if (!isset($this->others[$anchorMs])) {
            $this->others = array_slice($this->others, 1 - self::MOST_ANCHORS, null, true) + [$anchorMs => new self($this->loops, $anchorMs)];
        }

        return $this->others[$anchorMs];
    }

    public function resumed(int $fromMs, int $anchorMs): self
    {
        return $this->anchored($anchorMs);
    }

    public function begun(): BegunRowTurns
    {
        return new BegunRowTurns($this, $this->loops);
    }

    private function turn(int $fromMs, int $anchorMs): Turn
    {
        $loop = $this->loops->at($anchorMs);
        for ($change = $this->loops->changesAfter($anchorMs); $change !== null; $change = $this->loops->changesAfter($ends)) {
            $ends = $change + self::leftOf($loop, $change - $anchorMs);
            $next = $this->loops->at($ends);
            if ($next->items !== $loop->items || $next->lengths !== $loop->lengths) {
                return new Turn($fromMs, $ends, $anchorMs, $loop);
            }
        }

        return new Turn($fromMs, PHP_INT_MAX, $anchorMs, $loop);
    }

    /** How long the slot still stands that is due so many ms after the beginning; 0 where one has just ended, or never ends. */
    private static function leftOf(Loop $loop, int $since): int
    {
        $position = $loop->items === [] ? 0 : $loop->position($since);
        $slot = $loop->slotAt($position);
        $isOver = $loop->items === [] || $loop->starts[$slot] === $position || ($loop->periodMs === null && $slot === count($loop->items) - 1);

        return $isOver ? 0 : $loop->starts[$slot] + $loop->lengths[$slot] - $position;
    }
}
