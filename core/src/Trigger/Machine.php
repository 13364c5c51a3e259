<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\BudgetExceeded;
use UpperPane\Core\Trigger\Reading\Held;
use UpperPane\Core\Trigger\Reading\Reading;
use UpperPane\Core\Units\WallClock;

/** Runs a map: from one instant to the next at which anything happens. Of what stands for one length of what it plays, that length is stated before (TriggerMap::lasting). */
final readonly class Machine
{
    /** @var array<int, list<Signal>> in their order, by rank */
    private array $ranks;

    public function __construct(private TriggerMap $map, private WallClock $clock)
    {
        $ranks = [];
        foreach ($map->signals as $signal) {
            $ranks[$signal->kind::rank()->value][] = $signal;
        }
        $this->ranks = $ranks;
    }

    /** @param int $ms Unix ms */
    public function begun(int $ms): Run
    {
        $memories = array_map(fn (Signal $signal): Memory => $signal->kind->begun($ms, $this->clock), $this->map->signals);
        $due = array_filter(array_map(static fn (Memory $memory): ?int => $memory->dueMs, $memories), is_int(...));

        return new Run($this->map->rest, null, [], $memories, $due, [], [new Entered($ms, $this->map->rest, Entered::START)]);
    }

    /**
     * All that happens at one instant: what ends or is due by itself then, and what is said to it.
     *
     * @param int $ms Unix ms; not behind Run::dueMs
     * @param list<Entry> $entries of this instant
     */
    public function at(Run $run, int $ms, array $entries): Run
    {
        $now = new Now($this->map, $run, $ms);
        if ($run->lapseMs !== null && $run->lapseMs <= $ms) {
            $now->lapse();
        }
        foreach (Rank::cases() as $rank) {
            $signals = $this->ranks[$rank->value] ?? [];
            foreach ($now->due !== [] && min($now->due) <= $ms ? $signals : [] as $signal) {
                if (($now->due[$signal->id] ?? PHP_INT_MAX) <= $ms) {
                    $now->remember($signal->id, $signal->kind->waited($now->memories[$signal->id], $ms, $this->clock));
                    $now->take($signal->id);
                }
            }
            foreach ($entries as $entry) {
                if ($entry->rank === $rank) {
                    $this->hear($now, $entry, $signals, $ms);
                }
            }
        }

        return $now->over();
    }

    /** @param list<Signal> $signals that may hear it */
    private function hear(Now $now, Entry $entry, array $signals, int $ms): void
    {
        if ($entry->signal !== null) {
            $now->take($entry->signal, $entry);

            return;
        }
        $reading = $entry->reading($now->held);
        if (!$reading instanceof Reading) {
            return;
        }
        if ($reading instanceof Held) {
            if (($now->held[$reading->sensor] ?? 0) === $reading->band) {
                // Whoever stands where he stood is nothing new.
                return;
            }
            $now->held[$reading->sensor] = $reading->band;
        }
        foreach ($signals as $signal) {
            $heard = $signal->kind->hears($reading, $now->memories[$signal->id], $ms);
            if ($heard === null) {
                continue;
            }
            $now->remember($signal->id, $heard[0]);
            if ($heard[1]) {
                $now->take($signal->id, $entry);
            }
        }
    }

    /**
     * The states that are entered in [from, until), the first of them at rest.
     *
     * @param int $fromMs Unix ms
     * @return list<Entered>
     * @throws BudgetExceeded
     */
    public function run(Trace $trace, int $fromMs, int $untilMs): array
    {
        $run = $this->begun($fromMs);
        $entered = $run->entered;
        [$next, $count] = [0, count($trace->entries)];
        while (true) {
            $due = $run->dueMs();
            $said = $next < $count ? $trace->entries[$next]->atMs : null;
            $ms = min($due ?? PHP_INT_MAX, $said ?? PHP_INT_MAX);
            if ($ms >= $untilMs) {
                return $entered;
            }
            $entries = [];
            for (; $next < $count && $trace->entries[$next]->atMs === $ms; $next++) {
                $entries[] = $trace->entries[$next];
            }
            $run = $this->at($run, $ms, $entries);
            if ($run->entered !== []) {
                array_push($entered, ...$run->entered);
                Budget::ofSegments(count($entered), '/until');
            }
        }
    }
}
