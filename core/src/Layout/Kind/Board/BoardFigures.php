<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Layout\Told\TellsRows;
use UpperPane\Core\Units\Instant;

/** What a board makes of the rows of an instant: rows at once, pages, seconds, values. */
final readonly class BoardFigures
{
    /**
     * @param int $rows that are chosen
     * @param list<Page> $pages
     * @param int $fields that its pattern tells
     * @param int $values rows times fields
     */
    private function __construct(public int $rows, public int $atOnce, public array $pages, public int $pageMs, public int $fields, public int $values, public ?int $changesMs)
    {
    }

    /** @param int $ms Unix ms */
    public static function of(PlayingBoard $board, int $ms): self
    {
        $pages = $board->pagesAt($ms);
        $names = [];
        foreach ($board->board->pattern as $element) {
            foreach ($element instanceof TellsRows ? $element->messages() : [] as $message) {
                $names += array_fill_keys($message->names(), true);
            }
        }
        $rows = $pages[0]->count;

        return new self($rows, $board->board->grid->atOnce, $pages, $board->pageMs($pages), count($names), $rows * count($names), $board->reads()->inTime?->changesAfter($ms));
    }

    public function totalMs(): int
    {
        return count($this->pages) * $this->pageMs;
    }

    /**
     * @param ?int $legibleRows as PlayingBoard tells them
     * @return array<string, mixed> as `bin/upperpane page` prints it
     */
    public function toArray(?int $legibleRows): array
    {
        return [
            'rows' => $this->rows,
            'at_once' => $this->atOnce,
            'pages' => array_map(fn (Page $page): array => [
                'rows' => $page->rows === [] ? [] : range($page->first, $page->first + count($page->rows) - 1),
                'start_ms' => ($page->number - 1) * $this->pageMs,
                'length_ms' => $this->pageMs,
            ], $this->pages),
            'total_ms' => $this->totalMs(),
            'values' => $this->values,
            'changes_at' => $this->changesMs === null ? null : (string) Instant::ofMs($this->changesMs),
            'legible_rows' => $legibleRows,
        ];
    }
}
