<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Rows;

use UpperPane\Core\Data\Snapshot;
use UpperPane\Core\Units\Instant;

/** The rows that are chosen at any instant, as time goes on and as sources tell something new. */
final class RowsInTime
{
    private ?ChosenRows $last = null;
    private int $lastMs = 0;

    /** @param non-empty-list<array{Snapshot, Table}> $tables in the order in which they count */
    public function __construct(private readonly array $tables, public readonly Rows $rows)
    {
    }

    /** @param int $ms Unix ms */
    public function at(int $ms): ChosenRows
    {
        if ($this->last === null || $this->lastMs !== $ms) {
            [$this->last, $this->lastMs] = [$this->table($ms)->at($ms), $ms];
        }

        return $this->last;
    }

    /** @return list<array<string, string|int|float|bool|Instant|Day|null>> of any time */
    public function rows(): array
    {
        return array_merge(...array_map(static fn (array $one): array => $one[1]->rows(), $this->tables));
    }

    /** @return non-empty-list<Table> in the order in which they count */
    public function tables(): array
    {
        return array_map(static fn (array $one): Table => $one[1], $this->tables);
    }

    public function table(int $ms): Table
    {
        return $this->tables[$this->place($ms)][1];
    }

    public function snapshot(int $ms): Snapshot
    {
        return $this->tables[$this->place($ms)][0];
    }

    /** From when on newer data are told after this instant, the same rows or others; Unix ms, null where none are known. */
    public function newerAfter(int $ms): ?int
    {
        $next = $this->tables[$this->place($ms) + 1] ?? null;

        return $next === null ? null : $next[0]->fromMs;
    }

    /** How many rows are chosen at an instant, whatever the limit is; Unix ms. */
    public function count(int $ms): int
    {
        return $this->table($ms)->count($ms);
    }

    /** The first instant after this at which more rows are chosen, or fewer, whatever the limit is; null where there is none. */
    public function countChangesAfter(int $ms): ?int
    {
        for ($place = $this->place($ms);; $place++) {
            $next = isset($this->tables[$place + 1]) ? $this->tables[$place + 1][0]->fromMs : null;
            $change = $this->tables[$place][1]->countChangesAfter($ms);
            if ($change !== null && ($next === null || $change < $next)) {
                return $change;
            }
            if ($next === null || $this->tables[$place][1]->count($next - 1) !== $this->tables[$place + 1][1]->count($next)) {
                return $next;
            }
            $ms = $next;
        }
    }

    /** The first instant after this at which other rows are chosen, or another number of them; null where there is none. */
    public function changesAfter(int $ms): ?int
    {
        for ($place = $this->place($ms);; $place++) {
            $next = isset($this->tables[$place + 1]) ? $this->tables[$place + 1][0]->fromMs : null;
            $change = $this->tables[$place][1]->changesAfter($ms);
            if ($change !== null && ($next === null || $change < $next)) {
                return $change;
            }
            if ($next === null) {
                return null;
            }
            [$before, $after] = [$this->tables[$place][1]->at($next - 1), $this->tables[$place + 1][1]->at($next)];
            if ($before->count !== $after->count || $before->told() !== $after->told()) {
                return $next;
            }
            $ms = $next;
        }
    }

    /**
     * When what is told is too old: from and to of each such time, Unix ms.
     *
     * @return list<array{int, int}>
     */
    public function staleSpans(): array
    {
        $spans = [];
        foreach ($this->tables as $place => [$snapshot]) {
            $from = $snapshot->staleFromMs();
            $to = isset($this->tables[$place + 1]) ? $this->tables[$place + 1][0]->fromMs : PHP_INT_MAX;
            if ($from !== null && max($from, $snapshot->fromMs) < $to) {
                $spans[] = [max($from, $snapshot->fromMs), $to];
            }
        }

        return $spans;
    }

    public function isStale(int $ms): bool
    {
        $from = $this->snapshot($ms)->staleFromMs();

        return $from !== null && $ms >= $from;
    }

    /** Which of the tables counts at an instant, Unix ms. */
    public function place(int $ms): int
    {
        $place = count($this->tables) - 1;
        while ($place > 0 && $this->tables[$place][0]->fromMs > $ms) {
            $place--;
        }

        return $place;
    }
}
