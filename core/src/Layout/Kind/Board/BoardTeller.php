<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Layout\Kind\HasWords;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Told\Reading;
use UpperPane\Core\Layout\Told\RowTeller;
use UpperPane\Core\Layout\Told\TellsRows;
use UpperPane\Core\Units\Instant;

/** What the parts of a board say: its pattern over each row, and all else over a page. */
final class BoardTeller
{
    /** Rows as they are told, no more. */
    private const REMEMBERED = 12_000;

    /** @var array<string, ToldRow> the pattern as it is told, by row */
    private array $told = [];

    public function __construct(private readonly Board $board, private readonly Reading $reading)
    {
    }

    /**
     * A row stands on many pages, one place further up on each.
     *
     * @param array<string, string|int|float|bool|Instant|Day|null> $row
     */
    public function row(array $row): ToldRow
    {
        $key = serialize($row);
        if (!isset($this->told[$key])) {
            $this->told = count($this->told) < self::REMEMBERED ? $this->told : [];
            $teller = $this->reading->teller($row);
            $elements = self::over($this->board->pattern, $teller);
            $this->told[$key] = new ToldRow($elements, $teller->missing(), self::count($elements));
        }

        return $this->told[$key];
    }

    /**
     * A part of the pattern over a row, wherever it stands.
     *
     * @param array<string, string|int|float|bool|Instant|Day|null> $row
     */
    public function part(WrittenElement $element, array $row): WrittenElement
    {
        return self::one($element, $this->reading->teller($row));
    }

    /**
     * What stands in another part of the board, told for a page.
     *
     * @param list<WrittenElement> $elements
     * @return list<WrittenElement>
     */
    public function on(Page $page, array $elements): array
    {
        return self::over($elements, $this->reading->teller($page->values()));
    }

    /** Words that somebody has to read on a page, the header apart. */
    public function words(Page $page): int
    {
        $words = 0;
        foreach ($page->rows as $row) {
            $words += $this->row($row)->words;
        }

        return $words
            + ($page->rows === [] ? self::count($this->on($page, $this->board->empty)) : 0)
            + ($page->pages > 1 && $this->board->continued !== null ? self::count($this->on($page, [$this->board->continued])) : 0);
    }

    /** @param list<WrittenElement> $elements */
    public static function count(array $elements): int
    {
        return array_sum(array_map(static fn (WrittenElement $one): int => $one instanceof HasWords ? $one->wordCount() : 0, $elements));
    }

    /**
     * @param list<WrittenElement> $elements
     * @return list<WrittenElement>
     */
    private static function over(array $elements, RowTeller $teller): array
    {
        return array_map(static fn (WrittenElement $one): WrittenElement => self::one($one, $teller), $elements);
    }

    private static function one(WrittenElement $element, RowTeller $teller): WrittenElement
    {
        return $element instanceof TellsRows ? $element->told($teller) : $element;
    }
}
