<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

/** Where a map stands: its state, what it waits for, and what it remembers. */
final readonly class Run
{
    /**
     * @param ?int $lapseMs when the state ends by itself, Unix ms
     * @param array<int, int> $taken when each transition was taken last, Unix ms, by its place
     * @param array<string, Memory> $memories by signal
     * @param array<string, int> $due when the waits of signals end, Unix ms; of those that wait
     * @param array<string, int> $held band that is held, by sensor
     * @param list<Entered> $entered at this instant, one after the other
     */
    public function __construct(
        public string $state,
        public ?int $lapseMs,
        public array $taken,
        public array $memories,
        public array $due,
        public array $held,
        public array $entered,
    ) {
    }

    /** When something happens next by itself, Unix ms; null where nothing does. */
    public function dueMs(): ?int
    {
        $due = $this->due === [] ? null : min($this->due);

        return $due === null || $this->lapseMs === null ? $due ?? $this->lapseMs : min($due, $this->lapseMs);
    }
}
