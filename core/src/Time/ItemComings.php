<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Units\WallClock;

/** Items that come and go by their hours and days, by rows of data, and last as long as these make them. */
final readonly class ItemComings implements Comings
{
    /**
     * @param non-empty-list<Playlist> $lists as they are written, the leader's first
     * @param \Closure(int): list<?int> $lengths ms of each enabled item of the leader as it is written, by instant (Unix ms)
     * @param list<\Closure(int): ?int> $changes of what data make of them: the first instant after one, Unix ms
     * @param list<array<string, WhenInTime>> $whens of each list: only while what holds items are due, by their ids
     * @param list<array<string, RowItems>> $rows of each list: what rows make of items, by their ids; the places are those of the list with these in it
     */
    public function __construct(private array $lists, private WallClock $clock, private \Closure $lengths, private array $changes = [], private array $whens = [], private array $rows = [])
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
        [$due, $lengths] = [[], []];
        $utc = (int) floor($ms / 1000);
        foreach ($this->lists as $member => $list) {
            $isDue = fn (Item $item): bool => ($item->valid === null || $item->valid->isDue($this->clock, $utc)) && ($this->whens[$member][$item->id] ?? null)?->holds($ms) !== false;
            $items = self::places($list, $this->rows[$member] ?? [], $ms, $isDue);
            $due[] = array_keys($items);
            if ($member === 0) {
                $own = ($this->lengths)($ms);
                $lengths = array_map(static fn (int $item): ?int => $own[$item], $items);
            }
        }

        return ['due' => $due, 'lengths' => $lengths];
    }

    /**
     * Places of the enabled items of a list that are due, among these and what rows make of them.
     *
     * @param Playlist $list as it is written
     * @param array<string, RowItems> $rows by ids of items
     * @param int $ms Unix ms
     * @param \Closure(Item): bool $isDue whatever its rows are
     * @return array<int, int> which of the enabled items of the written list each is, by place
     */
    public static function places(Playlist $list, array $rows, int $ms, \Closure $isDue): array
    {
        [$due, $place] = [[], 0];
        foreach ($list->enabled() as $number => $item) {
            $made = $rows[$item->id] ?? null;
            if ($isDue($item)) {
                foreach ($made === null ? [0] : $made->due($ms) as $row) {
                    $due[$place + $row] = $number;
                }
            }
            $place += $made === null ? 1 : count($made->rows);
        }

        return $due;
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
        $byData = array_merge(...array_map(array_values(...), [...$this->whens, ...$this->rows]), ...[[]]);
        foreach ([...$this->changes, ...array_map(static fn (WhenInTime|RowItems $one): \Closure => $one->changesAfter(...), $byData)] as $change) {
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
