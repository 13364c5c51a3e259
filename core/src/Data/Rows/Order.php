<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Rows;

use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Instant;

/** The order of rows: texts by the collation of a language, numbers and times by value, what is missing last. */
final readonly class Order
{
    private const TEXT = 3;

    /** @param non-empty-list<array{string, bool}> $by field, and whether it falls */
    public function __construct(private array $by, private string $language)
    {
    }

    /**
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows
     * @return list<int> their places, in order; equal ones as they stand
     */
    public function of(array $rows): array
    {
        $collator = new \Collator($this->language);
        $columns = [];
        foreach ($this->by as [$field, $falls]) {
            $known = [];
            $keys = ['missing' => [], 'kind' => [], 'figure' => [], 'text' => []];
            foreach ($rows as $row) {
                $value = $row[$field] ?? null;
                $isText = is_string($value);
                [$kind, $figure] = $isText ? [self::TEXT, 0] : self::key($value);
                $keys['missing'][] = $value === null ? 1 : 0;
                $keys['kind'][] = $kind;
                $keys['figure'][] = $figure;
                $keys['text'][] = $isText ? $known["_$value"] ??= (string) $collator->getSortKey($value) : '';
            }
            $way = $falls ? SORT_DESC : SORT_ASC;
            // What is missing comes last, whichever way the others go.
            array_push($columns, $keys['missing'], SORT_ASC, SORT_NUMERIC, $keys['kind'], $way, SORT_NUMERIC, $keys['figure'], $way, SORT_NUMERIC, $keys['text'], $way, SORT_STRING);
        }
        $places = array_keys($rows);
        $columns[] = &$places;
        // Sorted in step with the keys; the last of them are the places themselves, so that equal rows keep theirs.
        call_user_func_array('array_multisort', $columns);

        return $places;
    }

    /** @return array{int, int|float} kind (numbers, instants, texts, false, true), and what is compared within it */
    private static function key(int|float|bool|Instant|Day|null $value): array
    {
        return match (true) {
            $value === null => [0, 0],
            is_bool($value) => [$value ? 5 : 4, 0],
            $value instanceof Instant => [2, $value->ms],
            $value instanceof Day => [2, $value->number * Calendar::DAY_MS],
            default => [1, $value],
        };
    }
}
