<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Rows;

use UpperPane\Core\Units\Instant;

/** The rows of a source with their values, in order, and the stretch of time in which each is chosen. */
final readonly class Table
{
    /**
     * @param list<string> $names of the fields
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows
     * @param list<array{int, int}> $spans from and to of each, Unix ms
     * @param int $unreadable values that do not fit their type, of all rows there are
     * @param int $nodes so many rows there are at the path
     */
    public function __construct(public array $names, private array $rows, private array $spans, public int $unreadable, public int $nodes, private ?int $limit)
    {
    }

    public function at(int $ms): ChosenRows
    {
        [$chosen, $spans] = [[], []];
        foreach ($this->spans as $place => [$from, $to]) {
            if ($from <= $ms && $ms < $to) {
                $chosen[] = $this->rows[$place];
                $spans[] = [$from === PHP_INT_MIN ? null : $from, $to === PHP_INT_MAX ? null : $to];
            }
        }

        return new ChosenRows(count($chosen), array_slice($chosen, 0, $this->limit), array_slice($spans, 0, $this->limit));
    }

    /** The first instant after this at which other rows are chosen, or another number of them; null where there is none. */
    public function changesAfter(int $ms): ?int
    {
        $steps = [];
        foreach ($this->spans as $place => [$from, $to]) {
            // A row of the past never comes again.
            if ($to > $ms) {
                if ($from > $ms) {
                    $steps[$from] = ($steps[$from] ?? 0) + 1;
                }
                if ($to !== PHP_INT_MAX) {
                    $steps[$to] = ($steps[$to] ?? 0) - 1;
                }
            }
        }
        ksort($steps);
        $now = null;
        foreach ($steps as $at => $more) {
            // As many come as go: others may stand there all the same.
            if ($more !== 0 || $this->at($at)->told() !== ($now ??= $this->at($ms)->told())) {
                return $at;
            }
        }

        return null;
    }
}
