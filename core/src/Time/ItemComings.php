<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Units\WallClock;

/** Items that come and go by their hours and days, by rows of data, and last as long as these make them. */
final readonly class ItemComings implements Comings
{
    /**
     * @param non-empty-list<Playlist> $lists the leader's first
     * @param \Closure(int): list<?int> $lengths ms of each enabled item of the leader, by instant (Unix ms)
     * @param list<\Closure(int): ?int> $changes of what data make of them: the first instant after one, Unix ms
     * @param list<array<string, WhenInTime>> $whens of each list: only while what holds items are due, by their ids
     */
    public function __construct(private array $lists, private WallClock $clock, private \Closure $lengths, private array $changes = [], private array $whens = [])
    {
    }

    /** Whether any item of these lists comes and goes by itself. */
    public static function areAny(Playlist ...$lists): bool
    {
        foreach ($lists as $list) {
            foreach ($list->enabled() as $item) {
                if ($item->valid !== null) {
                    return true;
                }
            }
        }

        return false;
    }

    public function at(int $ms): array
    {
        $due = [];
        $utc = (int) floor($ms / 1000);
        foreach ($this->lists as $member => $list) {
            $own = [];
            foreach ($list->enabled() as $place => $item) {
                if (($item->valid === null || $item->valid->isDue($this->clock, $utc)) && ($this->whens[$member][$item->id] ?? null)?->holds($ms) !== false) {
                    $own[] = $place;
                }
            }
            $due[] = $own;
        }

        return ['due' => $due, 'lengths' => ($this->lengths)($ms)];
    }

    public function edges(int $fromMs, int $toMs): array
    {
        $edges = [];
        foreach ($this->lists as $list) {
            foreach ($list->enabled() as $item) {
                foreach ($item->valid?->edges($this->clock, (int) floor($fromMs / 1000), (int) floor($toMs / 1000)) ?? [] as $edge) {
                    $edges[] = 1000 * $edge;
                }
            }
        }
        $whens = array_map(static fn (WhenInTime $when): \Closure => $when->changesAfter(...), array_merge(...array_map(array_values(...), $this->whens), ...[[]]));
        foreach ([...$this->changes, ...$whens] as $change) {
            for ($edge = $change($fromMs - 1); $edge !== null && $edge < $toMs; $edge = $change($edge)) {
                $edges[] = $edge;
            }
        }
        $edges = array_values(array_unique($edges));
        sort($edges);

        return $edges;
    }

    public function lastDue(int $member, int $ms): int
    {
        $last = PHP_INT_MIN;
        foreach ($this->lists[$member]->enabled() as $item) {
            $last = max($last, $item->valid?->until === null ? $ms : min($ms, 1000 * $this->clock->utcOrBefore($item->valid->until->seconds)));
        }

        return $last;
    }
}
