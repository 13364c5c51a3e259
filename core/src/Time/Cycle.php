<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Units\Integers;

/**
 * The order in which the items of a playlist come until all begins again: weights spread evenly, tied items kept together,
 * extras put in after every n and counting on across rounds.
 */
final readonly class Cycle
{
    /** Slots of a cycle that are written out; a longer one is refused. */
    public const MOST = 100_000;

    /**
     * How many slots the cycle has.
     *
     * @param list<Item> $main
     * @param list<Item> $extras
     * @param int $every after how many of the main items one of the extras comes; a tied group counts as one
     */
    public static function length(array $main, array $extras, int $every): int
    {
        $units = self::units($main, 0);
        $others = self::units($extras, count($main));
        [$slots, $turns] = self::sums($units);
        if ($turns === 0 || $others === []) {
            return $slots;
        }
        [$extraSlots, $extraTurns] = self::sums($others);
        $rounds = Integers::leastCommonMultiple([$turns, $every * $extraTurns], 1 << 40);

        return $rounds === null ? PHP_INT_MAX : intdiv($rounds, $turns) * $slots + intdiv($rounds, $every * $extraTurns) * $extraSlots;
    }

    /**
     * @param list<Item> $main
     * @param list<Item> $extras
     * @return list<int> indices into the main items and the extras behind them
     */
    public static function of(array $main, array $extras, int $every): array
    {
        $round = self::spread(self::units($main, 0));
        $others = self::spread(self::units($extras, count($main)));
        if ($round === [] || $others === []) {
            return array_merge(...$round);
        }
        $turns = count($round);
        $all = Integers::leastCommonMultiple([$turns, $every * count($others)], 1 << 40) ?? $turns;
        $cycle = [];
        $next = 0;
        for ($turn = 0; $turn < $all && count($cycle) <= self::MOST; $turn++) {
            array_push($cycle, ...$round[$turn % $turns]);
            if (($turn + 1) % $every === 0) {
                array_push($cycle, ...$others[$next++ % count($others)]);
            }
        }

        return $cycle;
    }

    /**
     * Items that are tied to the one before stay behind it, as one; the first of them says how often they come.
     *
     * @param list<Item> $items
     * @param int $first index of the first
     * @return list<array{items: non-empty-list<int>, weight: int}>
     */
    private static function units(array $items, int $first): array
    {
        /** @var list<non-empty-list<int>> $groups */
        $groups = [];
        $weights = [];
        foreach ($items as $index => $item) {
            if ($item->tied && $groups !== []) {
                $groups[count($groups) - 1][] = $first + $index;
            } else {
                $groups[] = [$first + $index];
                $weights[] = $item->weight;
            }
        }

        return array_map(static fn (array $group, int $weight): array => ['items' => $group, 'weight' => $weight], $groups, $weights);
    }

    /**
     * @param list<array{items: non-empty-list<int>, weight: int}> $units
     * @return array{int, int} slots and turns of one round
     */
    private static function sums(array $units): array
    {
        $slots = $turns = 0;
        foreach ($units as $unit) {
            $slots += count($unit['items']) * $unit['weight'];
            $turns += $unit['weight'];
        }

        return [$slots, $turns];
    }

    /**
     * One round, each unit as often as its weight says and never further than one turn from its even share: of those whose turn
     * has begun, the one whose turn ends first (R. Tijdeman, The chairman assignment problem, 1980; from memory).
     *
     * @param list<array{items: non-empty-list<int>, weight: int}> $units
     * @return list<non-empty-list<int>>
     */
    private static function spread(array $units): array
    {
        [, $turns] = self::sums($units);
        if ($turns === count($units)) {
            return array_column($units, 'items');
        }
        /** @var array<int, list<array{int, int}>> $begins by turn: the deadline and the unit */
        $begins = [];
        foreach ($units as $index => $unit) {
            for ($time = 0; $time < $unit['weight'] && $time <= self::MOST; $time++) {
                $begins[intdiv($time * $turns, $unit['weight'])][] = [intdiv(($time + 1) * $turns - 1, $unit['weight']), $index];
            }
        }
        /** @var \SplMinHeap<array{int, int}> $open */
        $open = new \SplMinHeap();
        $round = [];
        for ($turn = 0; $turn < $turns && $turn <= self::MOST; $turn++) {
            foreach ($begins[$turn] ?? [] as $one) {
                $open->insert($one);
            }
            $round[] = $units[$open->extract()[1]]['items'];
        }

        return $round;
    }
}
