<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** The loop of the rows at any instant: of one that was asked for before, all others until the rows may change are known. */
final class RowLoops
{
    /** So many stretches of time are remembered. */
    private const MOST = 64;

    /** @var list<array{int, int, Loop}> from, to (Unix ms) and the loop, the one that was worked out last first */
    private array $known = [];

    /**
     * @param \Closure(int): ?int $changesAfter the first instant after one at which other rows may be chosen, Unix ms; null where there is none
     * @param \Closure(int): Loop $loop of the rows at an instant, Unix ms
     * @param ?\Closure(int): ?int $renewedAfter the first instant after one at which the same rows may be told otherwise, Unix ms
     */
    public function __construct(private readonly \Closure $changesAfter, private readonly \Closure $loop, private readonly ?\Closure $renewedAfter = null)
    {
    }

    public function at(int $ms): Loop
    {
        foreach ($this->known as [$from, $to, $loop]) {
            if ($from <= $ms && $ms < $to) {
                return $loop;
            }
        }
        $loop = ($this->loop)($ms);
        $to = min($this->changesAfter($ms) ?? PHP_INT_MAX, ($this->renewedAfter ?? static fn (): null => null)($ms) ?? PHP_INT_MAX);
        $this->known = [[$ms, $to, $loop], ...array_slice($this->known, 0, self::MOST - 1)];

        return $loop;
    }

    public function changesAfter(int $ms): ?int
    {
        return ($this->changesAfter)($ms);
    }

    /** Whether the rows are the same ones at every instant. */
    public function isSteady(): bool
    {
        return $this->changesAfter(PHP_INT_MIN) === null;
    }

    /** What goes through them one after the other. */
    public function turns(): Turns
    {
        return $this->isSteady() ? new SteadyTurns($this->at(0)) : new RowTurns($this);
    }
}
