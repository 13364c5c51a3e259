<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Data\Rows\RowsInTime;
use UpperPane\Core\Data\Rows\Table;
use UpperPane\Core\Units\Instant;

/**
 * The items that rows of data make of one, one a row: every row of any time, in one order, and which of them are chosen when.
 *
 * Rows that a source tells again are the same items, as far as they come in the same order: so what plays goes on.
 */
final class RowItems
{
    /**
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows values by name, of each item
     * @param list<array<int, int>> $items of each table: the item that each of its rows is
     */
    private function __construct(public readonly array $rows, private readonly array $items, private readonly ?RowsInTime $inTime)
    {
    }

    /** @param ?RowsInTime $inTime null where there is no such source: then there are none */
    public static function of(?RowsInTime $inTime): self
    {
        /** @var list<array<int, int>> $merged of each item so far: its row in each of the tables that have it */
        $merged = [];
        $tables = $inTime?->tables() ?? [];
        foreach ($tables as $number => $table) {
            $merged = self::merged($merged, $tables, $number, $table);
        }
        $items = array_fill(0, count($tables), []);
        $rows = [];
        foreach ($merged as $item => $places) {
            foreach ($places as $number => $place) {
                $items[$number][$place] = $item;
                $rows[$item] = $tables[$number]->rows()[$place];
            }
        }

        return new self(array_values($rows), $items, $inTime);
    }

    /** @return list<int> the items whose rows are chosen at an instant (Unix ms), in their order */
    public function due(int $ms): array
    {
        if ($this->inTime === null) {
            return [];
        }
        $number = $this->inTime->place($ms);
        $items = [];
        foreach ($this->inTime->table($ms)->placesAt($ms) as $place) {
            $items[] = $this->items[$number][$place];
        }

        return $items;
    }

    /** The first instant after this at which others may be due, Unix ms; null where there is none. */
    public function changesAfter(int $ms): ?int
    {
        return $this->inTime?->changesAfter($ms);
    }

    /**
     * The longest run of rows that both tell in the same order stands for the same items; what only one tells lies between.
     *
     * @param list<array<int, int>> $merged
     * @param list<Table> $tables
     * @return list<array<int, int>>
     */
    private static function merged(array $merged, array $tables, int $number, Table $table): array
    {
        $known = [];
        foreach ($merged as $item => $places) {
            $last = (int) array_key_last($places);
            $known[self::key($tables[$last]->rows()[$places[$last]])][] = $item;
        }
        $before = $next = [];
        foreach ($table->rows() as $place => $row) {
            $key = self::key($row);
            $next[$key] ??= 0;
            $item = $known[$key][$next[$key]++] ?? null;
            if ($item !== null) {
                $before[$place] = $item;
            }
        }
        [$result, $from, $done] = [[], 0, 0];
        foreach (self::longestRising($before) as $place => $item) {
            array_push($result, ...array_slice($merged, $from, $item - $from), ...array_map(static fn (int $own): array => [$number => $own], $place > $done ? range($done, $place - 1) : []));
            $result[] = $merged[$item] + [$number => $place];
            [$from, $done] = [$item + 1, $place + 1];
        }
        $count = count($table->rows());
        array_push($result, ...array_slice($merged, $from), ...array_map(static fn (int $own): array => [$number => $own], $count > $done ? range($done, $count - 1) : []));

        return $result;
    }

    /**
     * The longest rising subsequence (M. Fredman, On computing the length of longest increasing subsequences, 1975; from memory).
     *
     * @param array<int, int> $values keys rising
     * @return array<int, int> with their keys
     */
    private static function longestRising(array $values): array
    {
        /** @var list<int> $tails key of the least value at which a subsequence of each length ends */
        $tails = [];
        $before = [];
        foreach ($values as $key => $value) {
            [$low, $high] = [0, count($tails)];
            while ($low < $high) {
                $middle = ($low + $high) >> 1;
                $values[$tails[$middle]] < $value ? $low = $middle + 1 : $high = $middle;
            }
            $before[$key] = $low > 0 ? $tails[$low - 1] : null;
            $tails[$low] = $key;
        }
        $rising = [];
        for ($key = $tails === [] ? null : $tails[count($tails) - 1]; $key !== null; $key = $before[$key]) {
            $rising[$key] = $values[$key];
        }

        return array_reverse($rising, true);
    }

    /** @param array<string, string|int|float|bool|Instant|Day|null> $row */
    private static function key(array $row): string
    {
        return serialize($row);
    }
}
