<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Rows;

use UpperPane\Core\Units\Instant;

/** The rows of a source with their values, in order, and the stretch of time in which each is chosen. */
final class Table
{
    /** @var ?array<int, int> by how many rows more are chosen from an instant on, instants rising */
    private ?array $steps = null;

    /** @var list<int> the instants of these */
    private array $instants = [];

    /** So often all spans are looked through. */
    private const SCANNED = 8;

    private int $asked = 0;

    /** @var ?array<int, list<int>> places of the rows that come or go, by instant, where they were asked for often */
    private ?array $comings = null;

    /** @var array<int, true> the rows that are in after so many of the instants, by place */
    private array $in = [];
    private int $walked = 0;

    /** @var list<int> how many rows are chosen before the first of them, and from each of them on */
    private array $counts = [];

    /**
     * @param list<string> $names of the fields
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows
     * @param list<array{int, int}> $spans from and to of each, Unix ms
     * @param int $unreadable values that do not fit their type, of all rows there are
     * @param int $nodes so many rows there are at the path
     */
    public function __construct(
        public readonly array $names,
        private readonly array $rows,
        private readonly array $spans,
        public readonly int $unreadable,
        public readonly int $nodes,
        private readonly ?int $limit,
    ) {
    }

    /** @return list<array<string, string|int|float|bool|Instant|Day|null>> of any time */
    public function rows(): array
    {
        return $this->rows;
    }

    /** @return list<int> places among all its rows of those that are chosen at an instant */
    public function placesAt(int $ms): array
    {
        return $this->limit === null ? $this->within($ms) : array_slice($this->within($ms), 0, $this->limit);
    }

    /** @return list<int> the same without the limit */
    private function within(int $ms): array
    {
        if ($this->asked++ < self::SCANNED) {
            $places = [];
            foreach ($this->spans as $place => [$from, $to]) {
                if ($from <= $ms && $ms < $to) {
                    $places[] = $place;
                }
            }

            return $places;
        }
        // Whoever asks often goes on from one instant to the next: from there on only what comes and goes is looked at.
        $steps = $this->comings ??= $this->comings();
        $at = $this->placeAfter($ms);
        while ($this->walked !== $at) {
            $step = $this->walked < $at ? $this->walked++ : --$this->walked;
            foreach ($steps[$this->instants[$step]] as $place) {
                if (isset($this->in[$place])) {
                    unset($this->in[$place]);
                } else {
                    $this->in[$place] = true;
                }
            }
        }
        $places = array_keys($this->in);
        sort($places);

        return $places;
    }

    /** @return array<int, list<int>> places of the rows that come or go, by instant; and those are in that have always been there */
    private function comings(): array
    {
        $comings = array_fill_keys(array_keys($this->steps()), []);
        foreach ($this->spans as $place => [$from, $to]) {
            if ($from === PHP_INT_MIN) {
                $this->in[$place] = true;
            } else {
                $comings[$from][] = $place;
            }
            if ($to !== PHP_INT_MAX) {
                $comings[$to][] = $place;
            }
        }

        return $comings;
    }

    public function at(int $ms): ChosenRows
    {
        [$chosen, $spans] = [[], []];
        $within = $this->within($ms);
        foreach ($this->limit === null ? $within : array_slice($within, 0, $this->limit) as $place) {
            [$from, $to] = $this->spans[$place];
            $chosen[] = $this->rows[$place];
            $spans[] = [$from === PHP_INT_MIN ? null : $from, $to === PHP_INT_MAX ? null : $to];
        }

        return new ChosenRows(count($within), $chosen, $spans);
    }

    /** How many rows are chosen at an instant, whatever the limit is; known without choosing them. */
    public function count(int $ms): int
    {
        $this->steps();

        return $this->counts[$this->placeAfter($ms)];
    }

    /** The first instant after this at which more rows are chosen, or fewer, whatever the limit is; null where there is none. */
    public function countChangesAfter(int $ms): ?int
    {
        $steps = $this->steps();
        for ($place = $this->placeAfter($ms), $count = count($this->instants); $place < $count; $place++) {
            if ($steps[$this->instants[$place]] !== 0) {
                return $this->instants[$place];
            }
        }

        return null;
    }

    /** Place of the first step after an instant. */
    private function placeAfter(int $ms): int
    {
        [$low, $high] = [0, count($this->instants)];
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            $this->instants[$middle] <= $ms ? $low = $middle + 1 : $high = $middle;
        }

        return $low;
    }

    /** The first instant after this at which other rows are chosen, or another number of them; null where there is none. */
    public function changesAfter(int $ms): ?int
    {
        $steps = $this->steps();
        $now = null;
        for ($place = $this->placeAfter($ms), $count = count($this->instants); $place < $count; $place++) {
            $at = $this->instants[$place];
            // As many come as go: others may stand there all the same.
            if ($steps[$at] !== 0 || $this->at($at)->told() !== ($now ??= $this->at($ms)->told())) {
                return $at;
            }
        }

        return null;
    }

    /** @return array<int, int> */
    private function steps(): array
    {
        if ($this->steps === null) {
            $steps = [];
            $always = 0;
            foreach ($this->spans as [$from, $to]) {
                if ($from !== PHP_INT_MIN) {
                    $steps[$from] = ($steps[$from] ?? 0) + 1;
                } else {
                    $always++;
                }
                if ($to !== PHP_INT_MAX) {
                    $steps[$to] = ($steps[$to] ?? 0) - 1;
                }
            }
            ksort($steps);
            $counts = [$always];
            foreach ($steps as $step) {
                $counts[] = $always += $step;
            }
            [$this->steps, $this->instants, $this->counts] = [$steps, array_keys($steps), $counts];
        }

        return $this->steps;
    }
}
