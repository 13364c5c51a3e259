<?php

declare(strict_types=1);

namespace UpperPane\Core\Data;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Data\Rows\Table;
use UpperPane\Core\Units\Instant;

/** Rows as they may come some day, so that one sees what becomes of a design then. */
enum Stress: string
{
    /** One row with the longest value of every field, again and again as many as there are. */
    case Longest = 'longest';
    case None = 'none';
    case One = 'one';
    case Many = 'many';
    /** As many rows as there are, and nothing in them. */
    case Missing = 'missing';

    private const MANY = 10_000;

    /** @param int $ms Unix ms: the rows that are chosen then */
    public function table(Table $table, int $ms): Table
    {
        $rows = $table->at($ms)->rows;
        $rows = $rows === [] ? $table->rows() : $rows;
        $rows = match ($this) {
            self::None => [],
            self::One => array_slice($rows, 0, 1),
            self::Missing => array_map(static fn (array $row): array => array_fill_keys(array_map(strval(...), array_keys($row)), null), $rows),
            self::Longest => $rows === [] ? [] : array_fill(0, count($rows), self::longestOf($table->names, $table->rows())),
            self::Many => $rows === [] ? [] : array_map(static fn (int $place): array => $rows[$place % count($rows)], range(0, self::MANY - 1)),
        };

        return self::always($table, $rows);
    }

    /**
     * Rows that are chosen for ever, whatever else would choose them.
     *
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows
     */
    public static function always(Table $table, array $rows): Table
    {
        return new Table($table->names, $rows, array_fill(0, count($rows), [PHP_INT_MIN, PHP_INT_MAX]), 0, count($rows), null);
    }

    /**
     * One row with the longest value that each field has in any of these.
     *
     * @param list<string> $names
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows
     * @return array<string, string|int|float|bool|Instant|Day|null>
     */
    public static function longestOf(array $names, array $rows): array
    {
        $longest = [];
        foreach ($names as $name) {
            $longest[$name] = null;
            $most = -1;
            foreach ($rows as $row) {
                $value = $row[$name] ?? null;
                $length = $value === null ? -1 : mb_strwidth(is_bool($value) ? ($value ? 'true' : 'false') : (string) $value);
                if ($length > $most) {
                    [$longest[$name], $most] = [$value, $length];
                }
            }
        }

        return $longest;
    }
}
