<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Units\Instant;

/** One page of a board: its rows, and what may be said of it. */
final readonly class Page
{
    /**
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows
     * @param list<?string> $highlights fill over each row; null for none
     * @param int $first place of its first row among the chosen ones, from 0
     * @param int $number from 1
     * @param ?int $takenMs instant of the data, Unix ms
     */
    public function __construct(
        public array $rows,
        public array $highlights,
        public int $first,
        public int $number,
        public int $pages,
        public int $count,
        public ?int $takenMs,
    ) {
    }

    /**
     * What messages of the header and beside the pages may use.
     *
     * @return array<string, string|int|float|bool|Instant|Day|null>
     */
    public function values(): array
    {
        return [
            'page' => $this->number,
            'pages' => $this->pages,
            'count' => $this->count,
            'from' => $this->rows === [] ? 0 : $this->first + 1,
            'to' => $this->first + count($this->rows),
            'taken' => $this->takenMs === null ? null : Instant::ofMs($this->takenMs),
        ] + ($this->rows[0] ?? []);
    }

    /** The same for pages that look alike. */
    public function key(): string
    {
        return serialize([$this->rows, $this->highlights, $this->first, $this->number, $this->pages, $this->count, $this->takenMs]);
    }
}
