<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\RowLoops;
use UpperPane\Core\Time\Turns;

/** An element as it is told over the rows of any instant: each way in which it is, once, by a number. */
final class InTurn
{
    /** @var list<TellsRows> */
    private array $told = [];

    /** @var array<string, int> by what they say */
    private array $numbers = [];

    private readonly RowLoops $loops;

    /**
     * @param \Closure(int): TellsRows $at the element as it is told at an instant, Unix ms
     * @param \Closure(TellsRows): ?int $length how long it goes through what it says, ms; null without end
     */
    public function __construct(public readonly Reading $reading, private readonly \Closure $at, private readonly \Closure $length)
    {
        $this->loops = new RowLoops(static fn (int $ms): ?int => $reading->inTime?->changesAfter($ms), $this->looped(...));
    }

    public function element(int $number): TellsRows
    {
        return $this->told[$number];
    }

    /** Null where it never changes. */
    public function turns(): ?Turns
    {
        return $this->loops->isSteady() ? null : $this->loops->turns();
    }

    public function loop(int $ms): Loop
    {
        return $this->loops->at($ms);
    }

    private function looped(int $ms): Loop
    {
        $told = ($this->at)($ms);
        $key = $told->says();
        if (!isset($this->numbers[$key])) {
            $this->numbers[$key] = count($this->told);
            $this->told[] = $told;
        }

        return Loop::ofCycle([$this->numbers[$key]], [$this->numbers[$key] => ($this->length)($told)]);
    }
}
