<?php

declare(strict_types=1);

namespace UpperPane\Core\Data;

use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Data\Rows\RowsInTime;
use UpperPane\Core\Data\Rows\Table;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Units\WallClock;

/** What the sources have told that rows are chosen from. Rows that several ask for are worked out once. */
final class Feeds
{
    /** @var array<string, RowsInTime> */
    private array $rows = [];

    /** @var array<string, ?non-empty-list<Snapshot>> by time zone and source */
    private array $snapshots = [];

    /**
     * @param \Closure(string, string): ?non-empty-list<Snapshot> $told of a source, in a time zone, in the order in which they count; null where there is none
     * @param ?\Closure(string, string): ?Media $picture what a value of a source means as a picture; null where that is not known
     * @param ?\Closure(Table): Table $seen what is made of rows before they are chosen
     */
    private function __construct(private readonly \Closure $told, public readonly bool $isStrict, private readonly ?\Closure $picture = null, private readonly ?\Closure $seen = null)
    {
    }

    /**
     * The same as it may come some day.
     *
     * @param int $atMs of the rows that it is made of, Unix ms
     */
    public function under(Stress $stress, int $atMs): self
    {
        return new self($this->told, $this->isStrict, $this->picture, static fn (Table $table): Table => $stress->table($table, $atMs));
    }

    /** The same from one of the rows on that are chosen at an instant (Unix ms); the first is 1. */
    public function from(int $row, int $atMs): self
    {
        return new self($this->told, $this->isStrict, $this->picture, static fn (Table $table): Table => Stress::always($table, array_slice($table->at($atMs)->rows, $row - 1)));
    }

    public static function none(): self
    {
        return new self(static fn (): null => null, false);
    }

    /**
     * @param \Closure(string, string): ?non-empty-list<Snapshot> $told of a source, in a time zone, in the order in which they count; each is asked for once; null where there is none
     * @param ?\Closure(string, string): ?Media $picture what a value of a source means as a picture; null where that is not known
     */
    public static function asked(\Closure $told, ?\Closure $picture = null): self
    {
        return new self($told, false, $picture);
    }

    /**
     * @param array<string, non-empty-list<Snapshot>> $snapshots by the id of their source, in the order in which they count
     * @param bool $isStrict whether a source that is not there is refused, and not told as a finding
     * @param array<Media> $pictures what values mean as pictures
     */
    public static function of(array $snapshots, bool $isStrict = false, array $pictures = []): self
    {
        return new self(static fn (string $source): ?array => $snapshots[$source] ?? null, $isStrict, static fn (string $source, string $value): ?Media => $pictures[$value] ?? null);
    }

    /** The picture that a value of a source means; null where that is not known. */
    public function picture(string $source, string $value): ?Media
    {
        return $this->picture === null ? null : ($this->picture)($source, $value);
    }

    /**
     * @param string $timezone in which times of no zone, and the midnights of dates, are meant
     * @return ?RowsInTime null where there is no such source
     * @throws Refused where the path takes too long, or finds too many
     */
    public function rows(Rows $rows, string $timezone): ?RowsInTime
    {
        $key = "$timezone " . $rows->key();
        if (!isset($this->rows[$key])) {
            $source = "$timezone $rows->source";
            $snapshots = array_key_exists($source, $this->snapshots) ? $this->snapshots[$source] : $this->snapshots[$source] = ($this->told)($rows->source, $timezone);
            if ($snapshots === null) {
                return null;
            }
            $clock = WallClock::in($timezone);
            $tables = array_map(static fn (Snapshot $one): array => [$one, $rows->of($one->tree, $clock, $one->zone)], $snapshots);
            $this->rows[$key] = new RowsInTime($this->seen === null ? $tables : array_map(fn (array $one): array => [$one[0], ($this->seen)($one[1])], $tables), $rows);
        }

        return $this->rows[$key];
    }
}
