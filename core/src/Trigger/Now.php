<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

/** What becomes of a run at one instant, as one thing after the other happens. */
final class Now
{
    public string $state;

    private ?int $lapseMs;

    /** @var array<int, int> */
    private array $taken;

    /** @var array<string, Memory> by signal */
    public array $memories;

    /** @var array<string, int> when the waits of signals end, Unix ms; of those that wait */
    public array $due;

    /** @var array<string, int> band that is held, by sensor */
    public array $held;

    /** @var list<Entered> */
    private array $entered = [];

    /** @param int $ms Unix ms */
    public function __construct(private readonly TriggerMap $map, Run $run, private readonly int $ms)
    {
        $this->state = $run->state;
        $this->lapseMs = $run->lapseMs;
        $this->taken = $run->taken;
        $this->memories = $run->memories;
        $this->due = $run->due;
        $this->held = $run->held;
    }

    public function remember(string $signal, Memory $memory): void
    {
        $this->memories[$signal] = $memory;
        if ($memory->dueMs !== null) {
            $this->due[$signal] = $memory->dueMs;
        } else {
            unset($this->due[$signal]);
        }
    }

    /** The state ends by itself. */
    public function lapse(): void
    {
        $this->enter($this->map->states[$this->state]->then ?? $this->map->rest, Entered::LAPSE);
    }

    /** A signal comes, and leads wherever the first transition does whose cool-down is over. */
    public function take(string $signal, ?Entry $entry = null): void
    {
        foreach ($this->map->ways($this->state, $signal) as $place) {
            $transition = $this->map->transitions[$place];
            if (isset($this->taken[$place]) && $this->ms - $this->taken[$place] < $transition->cooldownMs) {
                continue;
            }
            $this->taken[$place] = $this->ms;
            if ($transition->goesOnIn($this->state)) {
                $this->linger();
            } else {
                $this->enter($transition->to, $signal, $transition->carries, $entry);
            }

            return;
        }
    }

    private function enter(string $state, string $why, bool $carries = false, ?Entry $entry = null): void
    {
        $this->state = $state;
        $this->linger();
        $this->entered[] = new Entered($this->ms, $state, $why, $carries, $carries ? $entry : null);
    }

    private function linger(): void
    {
        $lingerMs = $this->map->states[$this->state]->lingerMs;
        $this->lapseMs = $lingerMs === null ? null : $this->ms + $lingerMs;
    }

    public function over(): Run
    {
        return new Run($this->state, $this->lapseMs, $this->taken, $this->memories, $this->due, $this->held, $this->entered);
    }
}
