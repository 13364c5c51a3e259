<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Data\Rows\RowsInTime;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Units\Instant;

/** What an element reads: which rows, how values are told, and what was chosen. */
final readonly class Reading
{
    /** So much of a value, and so many of them, tell which row it is. */
    private const SAID = 40;
    private const SAID_VALUES = 3;

    /** @var array<string, ?string> what stands in the place of a missing value, by field */
    private array $fallbacks;

    /**
     * @param ?RowsInTime $inTime null where there is no such source
     * @param int $atMs the instant at which the layout is looked at, Unix ms
     * @param ?\Closure(string): ?Media $picture what a value means as a picture, where that is known
     */
    public function __construct(public Rows $rows, public ?RowsInTime $inTime, public Formats $formats, public int $atMs, private ?\Closure $picture = null)
    {
        $this->fallbacks = $rows->fallbacks();
    }

    /**
     * The rows that are chosen at an instant; none where there is no such source.
     *
     * @return list<array<string, string|int|float|bool|Instant|Day|null>>
     */
    public function rowsAt(int $ms): array
    {
        return $this->inTime?->at($ms)->rows ?? [];
    }

    /** The source as people know it. */
    public function sourceName(): string
    {
        return $this->inTime?->snapshot($this->atMs)->name ?? $this->rows->source;
    }

    /** @param array<string, string|int|float|bool|Instant|Day|null> $row */
    public function teller(array $row): RowTeller
    {
        return new RowTeller($row, $this->formats, $this->fallbacks, $this->picture);
    }

    /** How many rows are chosen at an instant (Unix ms), and what the first of them tells, in words. */
    public function said(int $ms): string
    {
        $rows = $this->rowsAt($ms);

        return $rows === [] ? 'no rows' : (count($rows) === 1 ? '1 row: ' : count($rows) . ' rows, first ') . $this->saidOf($rows[0]);
    }

    /**
     * By which a row is known among others, in words.
     *
     * @param array<string, string|int|float|bool|Instant|Day|null> $row
     * @param int $values so many of its values at the most
     */
    public function saidOf(array $row, int $values = self::SAID_VALUES): string
    {
        $told = [];
        foreach ($row as $value) {
            $text = match (true) {
                $value === null => null,
                $value instanceof Instant => $this->formats->told($value, 'date', 'd MMM HH:mm'),
                $value instanceof Day => $this->formats->told($value, 'date', 'd MMM'),
                default => $this->formats->told($value, null, ''),
            };
            if ($text !== null && $text !== '') {
                $told[] = mb_strimwidth($text, 0, self::SAID, '…');
            }
        }

        return implode(', ', array_slice($told, 0, $values)) ?: '–';
    }

    /**
     * What messages tell by fallbacks, over the rows of the instant at which it is looked at.
     *
     * @param \Closure(array<string, string|int|float|bool|Instant|Day|null>): list<string> $of what of a row is told by a fallback, each argument once
     * @param bool $all whether all rows are told, or the first alone
     * @param int $most rows at the most that are asked
     * @return array{names: list<string>, count: int, row: int}|null the arguments, how many values, and the first row; null where none is
     */
    public function missing(\Closure $of, bool $all, int $most = PHP_INT_MAX): ?array
    {
        [$names, $count, $first] = [[], 0, null];
        $rows = $this->rowsAt($this->atMs);
        foreach (array_slice($rows, 0, $all ? $most : 1) as $place => $row) {
            $missing = $of($row);
            $count += count($missing);
            $names += array_fill_keys($missing, true);
            $first ??= $missing === [] ? null : $place;
        }

        return $first === null ? null : ['names' => array_map(strval(...), array_keys($names)), 'count' => $count, 'row' => $first];
    }
}
