<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Zone;

use UpperPane\Core\Data\Stress;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Told\Reading;
use UpperPane\Core\Layout\Told\RowTeller;
use UpperPane\Core\Time\RowItems;

/** What rows of data make of an item: its layout once for each of them, told over that row. Each is composed when it is first looked at. */
final class RowByRow
{
    /** Rows over which it is asked what is missing. */
    private const MOST_ASKED = 200;

    /** @var array<int, Composed> by the number of the item */
    private array $layouts = [];

    private ?Composed $longest = null;

    /** @param \Closure(RowTeller): Composed $composed the layout told over a row */
    public function __construct(public readonly RowItems $items, public readonly Reading $reading, private readonly \Closure $composed)
    {
    }

    public function layout(int $row): Composed
    {
        return $this->layouts[$row] ??= ($this->composed)($this->reading->teller($this->items->rows[$row]));
    }

    /** The layout over a row that has the longest value of every field, of those that are chosen when it is looked at, else of all. */
    public function longest(): Composed
    {
        if ($this->longest === null) {
            $rows = $this->reading->rowsAt($this->reading->atMs);
            $rows = $rows === [] ? $this->items->rows : $rows;
            $this->longest = ($this->composed)($this->reading->teller($rows === [] ? [] : Stress::longestOf(array_map(strval(...), array_keys($rows[0])), $rows)));
        }

        return $this->longest;
    }

    /**
     * What is told by fallbacks, of the rows that are chosen when it is looked at; of very many the first are asked.
     *
     * @return array{names: list<string>, count: int, row: int}|null the arguments, how many values, and the first row; null where none is
     */
    public function missing(): ?array
    {
        return $this->reading->missing(function (array $row): array {
            $teller = $this->reading->teller($row);
            ($this->composed)($teller);

            return $teller->missing();
        }, true, self::MOST_ASKED);
    }

    /** What a row tells first, in words. */
    public function said(int $row): string
    {
        return $this->reading->saidOf($this->items->rows[$row], 1);
    }

    /** Names what a row makes, as long as the source tells it alike. */
    public function name(int $row): string
    {
        return substr(hash('sha256', serialize($this->items->rows[$row])), 0, 12);
    }
}
