<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Check\Subject;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Compares;
use UpperPane\Core\Layout\Kind\Describes;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\HasMedia;
use UpperPane\Core\Layout\Kind\HasWords;
use UpperPane\Core\Layout\Kind\OwnGround;
use UpperPane\Core\Layout\Kind\Paints;
use UpperPane\Core\Layout\Kind\TellsItself;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Paint\PaintLayer;
use UpperPane\Core\Layout\Told\HasLength;
use UpperPane\Core\Layout\Told\Reading;
use UpperPane\Core\Layout\Told\ReadsData;
use UpperPane\Core\Layout\Told\TellsRows;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Media\Swatches;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Time\CoveredTurns;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\RowLoops;
use UpperPane\Core\Time\Turns;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** A board with the rows that it tells. */
final class PlayingBoard implements ReadsData, HasLength, HasWords, HasMedia, Describes, Compares, OwnGround, TellsItself
{
    /** Type in which the age of data is told: the shorter side of the board over this. */
    private const MARK_SHARE = 24;

    /** @var list<Page> each that was ever asked for, by its number among the scenes */
    private array $pages = [];

    /** @var array<string, int> numbers by what they show */
    private array $numbers = [];

    private readonly RowLoops $loops;

    /** @var ?list<int> Unix ms, rising: when a highlight may begin or cease by itself */
    private ?array $edges = null;

    private readonly BoardTeller $teller;

    /** @var array{int, non-empty-list<Page>}|null the pages that were asked for last, and of which instant */
    private ?array $paged = null;

    /** @var ?list<LongestTold> */
    private ?array $longest = null;

    /** @var ?list<WrittenElement> the pattern where its first row stands, canvas px */
    private ?array $placed = null;

    /** Whether anything in it tells when the data were true: else a page is the same however old they are. */
    private readonly bool $tellsTaken;

    private function __construct(public readonly Board $board, private readonly Reading $reading, private readonly WallClock $clock)
    {
        $names = [];
        foreach ([...$board->header, ...$board->empty, ...($board->continued === null ? [] : [$board->continued]), ...$this->staleElements()] as $one) {
            foreach ($one instanceof TellsRows ? $one->messages() : [] as $message) {
                array_push($names, ...$message->names());
            }
        }
        $this->tellsTaken = in_array('taken', $names, true);
        $this->teller = new BoardTeller($board, $reading);
        $this->loops = new RowLoops($this->changesAfter(...), $this->looped(...), $this->tellsTaken ? $this->takenAnewAfter(...) : null);
    }

    /**
     * @param string $path JSON Pointer to the board
     * @throws Refused
     */
    public static function of(Board $board, Composer $composer, string $path): self
    {
        return new self($board, $composer->reading($board->rows, "$path/rows", true), WallClock::in($composer->surroundings->timezone));
    }

    public function id(): string
    {
        return $this->board->id();
    }

    public function rect(): Rect
    {
        return $this->board->rect();
    }

    public function kind(): string
    {
        return Board::KIND;
    }

    public function covers(): bool
    {
        return false;
    }

    public function isHidden(): bool
    {
        return $this->board->isHidden();
    }

    public function toArray(): array
    {
        return $this->board->toArray();
    }

    public function reads(): Reading
    {
        return $this->reading;
    }

    public function missing(): ?array
    {
        return $this->reading->missing(fn (array $row): array => $this->teller->row($row)->missing, true);
    }

    // --- what it goes through -------------------------------------------------------------------

    /** The pages of the rows at an instant (Unix ms), one after the other, by their numbers. */
    public function loop(int $ms): Loop
    {
        return $this->loops->at($ms);
    }

    private function looped(int $ms): Loop
    {
        $pages = $this->board->grid->atOnce === 0 ? [] : $this->pagesAt($ms);
        $numbers = array_map($this->number(...), $pages);

        return Loop::ofCycle($numbers, array_fill_keys($numbers, $this->pageMs($pages)));
    }

    /** From when on newer data are told after this instant, Unix ms; null where none are known. */
    private function takenAnewAfter(int $ms): ?int
    {
        return $this->reading->inTime?->newerAfter($ms);
    }

    public function page(int $number): Page
    {
        return $this->pages[$number];
    }

    public function dataTurns(): Turns
    {
        $turns = $this->loops->turns();
        foreach (is_array($this->board->stale) ? $this->staleSpans() : [] as $place => $span) {
            $turns = new CoveredTurns($turns, [$span], self::scene($place));
        }

        return $turns;
    }

    /** @return list<array{int, int}> when data are too old: from and to, Unix ms */
    public function staleSpans(): array
    {
        return $this->reading->inTime?->staleSpans() ?? [];
    }

    /** Number of the scene of one of these times; those of pages are 0 and more. */
    public static function scene(int $span): int
    {
        return -1 - $span;
    }

    /**
     * What stands there in one of these times, if anything is said.
     *
     * @return list<WrittenElement>
     */
    public function toldStale(int $span): array
    {
        return $this->toldFor($this->pagesAt($this->staleSpans()[$span][0])[0], $this->staleElements());
    }

    public function lengthMs(?int $ms = null): int
    {
        return $this->loop($ms ?? $this->reading->atMs)->periodMs ?? 0;
    }

    public function changesAfter(int $ms): ?int
    {
        $rows = $this->reading->inTime?->changesAfter($ms);
        foreach ($this->highlightEdges() as $edge) {
            if ($edge > $ms) {
                return $rows === null ? $edge : min($rows, $edge);
            }
        }

        return $rows;
    }

    /**
     * @param int $ms Unix ms
     * @return non-empty-list<Page>
     */
    public function pagesAt(int $ms): array
    {
        if ($this->paged !== null && $this->paged[0] === $ms) {
            return $this->paged[1];
        }
        $rows = $this->reading->rowsAt($ms);
        $taken = $this->tellsTaken ? $this->reading->inTime?->snapshot($ms)->takenMs : null;
        $sizes = Paging::sizes(count($rows), max(1, $this->board->grid->atOnce), $this->board->isBalanced);
        [$pages, $first] = [[], 0];
        foreach ($sizes as $place => $size) {
            $own = array_slice($rows, $first, $size);
            $highlights = $this->board->highlights === [] ? array_fill(0, $size, null) : array_map(fn (array $row): ?string => $this->highlight($row, $ms), $own);
            $pages[] = new Page($own, $highlights, $first, $place + 1, count($sizes), count($rows), $taken);
            $first += $size;
        }
        $this->paged = [$ms, $pages];

        return $pages;
    }

    /**
     * How long each page stands, ms.
     *
     * @param list<Page> $pages
     */
    public function pageMs(array $pages): int
    {
        return $this->board->pageMs ?? $this->readMs($pages);
    }

    /**
     * How long the page takes to be read that has the most words, ms.
     *
     * @param list<Page> $pages
     */
    public function readMs(array $pages): int
    {
        return Paging::readMs(max([0, ...array_map($this->teller->words(...), $pages)]));
    }

    private function number(Page $page): int
    {
        $key = $page->key();
        if (!isset($this->numbers[$key])) {
            $this->numbers[$key] = count($this->pages);
            $this->pages[] = $page;
        }

        return $this->numbers[$key];
    }

    /** @param array<string, string|int|float|bool|Instant|Day|null> $row */
    private function highlight(array $row, int $ms): ?string
    {
        foreach ($this->board->highlights as $highlight) {
            if ($highlight->holds($row, $ms, $this->clock)) {
                return $highlight->fill->hex;
            }
        }

        return null;
    }

    /** @return list<int> */
    private function highlightEdges(): array
    {
        if ($this->edges === null) {
            $edges = [];
            foreach ($this->board->highlights === [] ? [] : $this->reading->inTime?->rows() ?? [] as $row) {
                foreach ($this->board->highlights as $highlight) {
                    array_push($edges, ...$highlight->edges($row, $this->clock));
                }
            }
            $edges = array_unique(array_filter($edges, static fn (int $edge): bool => $edge !== PHP_INT_MIN && $edge !== PHP_INT_MAX));
            sort($edges);
            $this->edges = $edges;
        }

        return $this->edges;
    }

    // --- what it tells --------------------------------------------------------------------------

    /**
     * The pattern told over a row.
     *
     * @param array<string, string|int|float|bool|Instant|Day|null> $row
     * @return list<WrittenElement>
     */
    public function told(array $row): array
    {
        return $this->teller->row($row)->elements;
    }

    /**
     * What stands in another part of the board, told for a page.
     *
     * @param list<WrittenElement> $elements
     * @return list<WrittenElement>
     */
    public function toldFor(Page $page, array $elements): array
    {
        return $this->teller->on($page, $elements);
    }

    /** The age of data that are too old: when they were true. */
    public function mark(int $takenMs): Text
    {
        $rect = $this->rect();
        $size = max(8, (int) round(min($rect->width, $rect->height) / self::MARK_SHARE));
        $style = TextStyle::of(['size_px' => $size, 'weight' => 600, 'color' => '#ffffff', 'align' => 'end', 'valign' => 'bottom', 'plate' => ['px' => (int) ceil($size / 3), 'color' => '#000000cc']]);
        $told = $this->reading->formats->told(Instant::ofMs($takenMs), null, '') ?? '';

        return Text::within($this, Rect::at(0, max(0, $rect->height - 2 * $size), $rect->width, min($rect->height, 2 * $size)), $told, $style);
    }

    // --- what is asked of it --------------------------------------------------------------------

    /** The words of its pattern as they need the most room, of all rows; and those of its other parts, of the first page. */
    public function words(FaceMetrics $faces): array
    {
        $rows = $this->reading->rowsAt($this->reading->atMs);
        $words = array_map(static fn (LongestTold $one): Text => $one->text, $rows === [] ? [] : $this->longest($faces));
        foreach ($this->others() as $part => $elements) {
            foreach ($elements as $element) {
                foreach ($element instanceof HasWords ? $element->words($faces) : [] as $text) {
                    $words[] = $text->ownedBy($this, "$part {$element->id()}");
                }
            }
        }

        return $words;
    }

    /**
     * Of each text of the pattern the value that needs the most room, of all rows that are chosen when it is looked at.
     *
     * @return list<LongestTold>
     */
    public function longest(FaceMetrics $faces): array
    {
        return $this->longest ??= LongestTold::each($this->placed(), $this->reading->rowsAt($this->reading->atMs), $this->teller, $this, $faces);
    }

    public function styles(): array
    {
        return array_merge(...array_map(
            static fn (WrittenElement $one): array => $one instanceof HasWords ? $one->styles() : [],
            [...$this->board->pattern, ...$this->board->header, ...$this->board->empty, ...($this->board->continued === null ? [] : [$this->board->continued]), ...$this->staleElements()],
        ), ...[[]]);
    }

    /** Those of the page that has the most, and of the header. */
    public function wordCount(): int
    {
        $pages = $this->pagesAt($this->reading->atMs);

        return max(array_map($this->teller->words(...), $pages)) + BoardTeller::count($this->toldFor($pages[0], $this->board->header));
    }

    public function title(): string
    {
        return $this->id();
    }

    public function media(): array
    {
        $media = [];
        foreach ([...$this->board->pattern, ...$this->board->header, ...$this->board->empty, ...$this->staleElements()] as $one) {
            array_push($media, ...($one instanceof HasMedia ? $one->media() : []));
        }

        return $media;
    }

    public function described(FaceMetrics $faces, ?float $mmPerPx): string
    {
        $figures = BoardFigures::of($this, $this->reading->atMs);
        if ($this->board->grid->atOnce === 0) {
            return sprintf('%s: there is no room for one row', $this->board->grid->sum());
        }

        return sprintf(
            '%s: %d at once; %s, %s of %s s: %s s; %d values of a design of %d',
            $this->board->grid->sum(),
            $figures->atOnce,
            $figures->rows === 1 ? '1 row' : "$figures->rows rows",
            count($figures->pages) === 1 ? '1 page' : count($figures->pages) . ' pages',
            round($figures->pageMs / 1000, 1),
            round($figures->totalMs() / 1000, 1),
            $figures->values,
            $figures->fields,
        );
    }

    public function changesFrom(Element $before): array
    {
        return match (true) {
            !$before instanceof self => [],
            $before->board->rows->key() !== $this->board->rows->key() => [sprintf('"%s" tells other rows.', $this->id())],
            json_encode(array_diff_key($before->toArray(), ['rect' => 1])) !== json_encode(array_diff_key($this->toArray(), ['rect' => 1])) => [sprintf('"%s" tells its rows otherwise.', $this->id())],
            default => [],
        };
    }

    public function tellsItself(string $code, Text $text, Subject $subject): bool
    {
        $isOfPattern = array_filter($this->board->pattern, static fn (WrittenElement $one): bool => $one->id() === $text->part) !== [];

        return $isOfPattern && match ($code) {
            'text.overflow' => true,
            'text.small' => ($this->legibleRows($subject) ?? PHP_INT_MAX) < $this->board->grid->atOnce,
            default => false,
        };
    }

    public function ownGrounds(Text $text, ?Swatches $swatches): array
    {
        $own = [];
        $place = $this->placeOnCanvas();
        $isOfPattern = $text->part !== null && !str_contains($text->part, ' ');
        $elements = match (true) {
            $isOfPattern => $this->placed(),
            default => $this->others()[explode(' ', (string) $text->part)[0]] ?? [],
        };
        foreach ($elements as $element) {
            if ($element->id() === $text->part || str_ends_with((string) $text->part, " {$element->id()}")) {
                break;
            }
            $layers = $element instanceof Paints ? $element->paint(null, $swatches) : [];
            if ($layers === null) {
                return [];
            }
            array_push($own, ...$layers);
        }
        if (!$isOfPattern) {
            return [$own];
        }
        $over = array_map(static fn (Highlight $one): array => [PaintLayer::ofFill($place, $one->fill), ...$own], $this->board->highlights);

        return [$own, ...($this->board->stripe === null ? [] : [[PaintLayer::ofFill($place, $this->board->stripe), ...$own]]), ...$over];
    }

    /**
     * How many rows at once could still be read from the farthest viewer, were the pattern as large as it may be then.
     *
     * @return ?int null where nobody is known to look, or the pattern has no words
     */
    public function legibleRows(Subject $subject): ?int
    {
        $mmPerPx = $subject->mmPerCanvasPx();
        $faces = $subject->faces;
        if ($subject->display === null || $mmPerPx === null || $faces === null) {
            return null;
        }
        $caps = [];
        foreach ($this->board->pattern as $element) {
            foreach ($element instanceof HasWords ? $element->styles() : [] as $style) {
                $caps[] = $style->sizePx * ($faces->knows($style->family) ? $faces->capShare($style->family, $style->weight) : Legibility::CAP_SHARE);
            }
        }
        if ($caps === []) {
            return null;
        }
        $capMm = min($caps) * $mmPerPx;
        $farthest = $subject->display->viewing->farthestEyeMm();

        return $this->board->grid->legible(static fn (float $scale): bool => Legibility::arcmin($scale * $capMm, $farthest) >= Legibility::LIMIT_ARCMIN);
    }

    /** Where its first row stands, canvas px. */
    public function placeOnCanvas(): Rect
    {
        $rect = $this->rect();
        $place = $this->board->grid->atOnce === 0 ? Rect::whole($this->board->grid->pattern) : $this->board->grid->place(0);

        return Rect::at($rect->x + $place->x, $rect->y + $place->y, $place->width, $place->height);
    }

    /** @return list<WrittenElement> the pattern where its first row stands */
    private function placed(): array
    {
        return $this->placed ??= self::moved($this->board->pattern, $this->placeOnCanvas()->x, $this->placeOnCanvas()->y);
    }

    /** @return array<string, list<WrittenElement>> what stands in its other parts, told for the first page and where it stands on the canvas */
    private function others(): array
    {
        $page = $this->pagesAt($this->reading->atMs)[0];
        $parts = ['header' => $this->board->header];
        if ($page->rows === []) {
            $parts['empty'] = $this->board->empty;
        }
        if ($page->pages > 1 && $this->board->continued !== null) {
            $parts['continued'] = [$this->board->continued];
        }

        return array_map(fn (array $elements): array => $this->toldFor($page, self::moved($elements, $this->rect()->x, $this->rect()->y)), $parts);
    }

    /** @return list<WrittenElement> */
    private function staleElements(): array
    {
        return is_array($this->board->stale) ? $this->board->stale : [];
    }

    /**
     * @param list<WrittenElement> $elements
     * @return list<WrittenElement>
     */
    private static function moved(array $elements, int $dx, int $dy): array
    {
        return array_map(static function (WrittenElement $one) use ($dx, $dy): WrittenElement {
            $rect = $one->rect();

            return $one->changed(['rect' => Rect::at($rect->x + $dx, $rect->y + $dy, $rect->width, $rect->height)->toArray()]);
        }, $elements);
    }
}
