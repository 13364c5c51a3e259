<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\SteadyTurns;

/** An element in each of the languages in which it is shown, one after the other. */
final readonly class InLanguages
{
    /**
     * @param non-empty-array<string, TakesTurns> $elements by language, in their order; none of them takes turns of languages itself
     * @param int $turnMs how long each stands, ms
     */
    public function __construct(public array $elements, public int $turnMs)
    {
    }

    public function turns(): SteadyTurns
    {
        return new SteadyTurns($this->loop());
    }

    public function loop(): Loop
    {
        $numbers = array_keys(array_values($this->elements));

        return Loop::ofCycle($numbers, array_fill_keys($numbers, $this->turnMs));
    }

    /** @return list<string> */
    public function languages(): array
    {
        return array_map(strval(...), array_keys($this->elements));
    }

    /** The one of a number; of one behind the last the last. */
    public function element(int $number): TakesTurns
    {
        $elements = array_values($this->elements);

        return $elements[min($number, count($elements) - 1)];
    }
}
