<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Division;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Division;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Geometry\Tracks;

/**
 * How a layout divides its canvas: columns and rows as CSS grid tracks, a margin around and a gap between them, and named areas.
 *
 * An area is the id of the element that fills it; a dot leaves a cell free. Source: W3C CSS Grid Layout Module Level 2, 7.3 (named areas).
 */
final readonly class Recipe
{
    /** @param array<string, array{column: int, row: int, columns: int, rows: int}> $areas cells of each area, by name */
    private function __construct(
        public Tracks $columns,
        public Tracks $rows,
        public int $gap,
        public int $margin,
        public array $areas,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'columns' => Field::text(1, 2000),
            'rows' => Field::text(1, 2000),
            'gap' => Field::int(0, Size::LONGEST),
            'margin' => Field::int(0, Size::LONGEST),
            'areas' => Field::list(Field::text(1, 20_000)),
        ])->named('Recipe');
    }

    /**
     * @param list<list<string>> $cells names, row by row
     * @throws DocumentRefused
     */
    public static function of(Tracks $columns, Tracks $rows, int $gap, int $margin, array $cells): self
    {
        return self::fromNode(Node::root([
            'columns' => $columns->written(),
            'rows' => $rows->written(),
            'gap' => $gap,
            'margin' => $margin,
            'areas' => array_map(static fn (array $row): string => implode(' ', $row), $cells),
        ]));
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        [$columns, $rows] = [self::tracks($node, 'columns'), self::tracks($node, 'rows')];

        return new self(
            $columns,
            $rows,
            $node->optional('gap')?->int(0, Size::LONGEST, 'px') ?? 0,
            $node->optional('margin')?->int(0, Size::LONGEST, 'px') ?? 0,
            $node->has('areas') ? self::areas($node->field('areas'), count($columns->tracks), count($rows->tracks)) : [],
        );
    }

    /**
     * The recipe that gives just these rectangles, written as near to an earlier one as that can be.
     *
     * @param array<string, Rect> $rects by name of the area
     * @param ?self $before keeps its gap, its margin, what is of px or percent, and the figures of what it already divides so
     * @return ?self null where the rectangles overlap, or no tracks begin and end just there
     */
    public static function describing(array $rects, Size $canvas, ?self $before = null): ?self
    {
        foreach ($before === null ? self::spacings($rects) : [[$before->gap, $before->margin]] as [$gap, $margin]) {
            $columns = Division::of(array_map(static fn (Rect $rect): array => [$rect->x, $rect->right()], array_values($rects)), $canvas->width, $gap, $margin);
            $rows = Division::of(array_map(static fn (Rect $rect): array => [$rect->y, $rect->bottom()], array_values($rects)), $canvas->height, $gap, $margin);
            $cells = $columns === null || $rows === null ? null : self::cells($rects, $columns, $rows);
            if ($columns !== null && $rows !== null && $cells !== null) {
                return self::of(
                    $columns->written($before?->columns, self::linesOf($before, 'columns', $canvas->width), $canvas->width, $gap, $margin),
                    $rows->written($before?->rows, self::linesOf($before, 'rows', $canvas->height), $canvas->height, $gap, $margin),
                    $gap,
                    $margin,
                    $cells,
                );
            }
        }

        return null;
    }

    /** The same division with gaps and margin of so many px. */
    public function spaced(int $gap, int $margin): self
    {
        return new self($this->columns, $this->rows, $gap, $margin, $this->areas);
    }

    /**
     * The same tracks with the areas of these names; a name that is not given keeps its own.
     *
     * @param array<string, string> $names
     */
    public function renamed(array $names): self
    {
        $areas = [];
        foreach ($this->areas as $name => $cells) {
            $areas[$names[$name] ?? $name] = $cells;
        }

        return new self($this->columns, $this->rows, $this->gap, $this->margin, $areas);
    }

    /**
     * The areas on a grid of another size: cut off at the end, or with one new area along the whole side for each track more.
     *
     * @param \Closure(string): string $free an id that nothing has yet, from a name
     * @return array{list<list<string>>, list<string>} names row by row, and the areas that are no more
     */
    public function cellsOf(int $columns, int $rows, \Closure $free): array
    {
        $old = array_map(static fn (string $row): array => explode(' ', $row), $this->toArray()['areas']);
        $taken = [];
        $name = static function () use ($free, &$taken): string {
            for ($n = 1; isset($taken["zone$n"]) || $free("zone$n") !== "zone$n"; $n++);
            $taken["zone$n"] = true;

            return "zone$n";
        };
        [$cells, $right, $left] = [[], [], []];
        for ($row = 0; $row < $rows; $row++) {
            $below = isset($old[$row]) ? null : $name();
            for ($column = 0; $column < $columns; $column++) {
                $cells[$row][$column] = $below ?? $old[$row][$column] ?? $right[$column] ??= $name();
                $left[$cells[$row][$column]] = true;
            }
        }
        $gone = array_filter(array_map(strval(...), array_keys($this->areas)), static fn (string $area): bool => !isset($left[$area]));

        return [array_map(array_values(...), array_values($cells)), array_values($gone)];
    }

    /**
     * Where each area lies on a canvas.
     *
     * @param string $path JSON Pointer to the recipe
     * @return array<string, Rect> in canvas px, by name
     * @throws DocumentRefused `tracks.too-long` at /rows or /columns, also where an area would be under 1 px
     */
    public function solve(Size $canvas, string $path = ''): array
    {
        $columns = $this->lines($this->columns, $canvas->width, "$path/columns");
        $rows = $this->lines($this->rows, $canvas->height, "$path/rows");
        $rects = [];
        foreach ($this->areas as $name => $area) {
            $name = (string) $name;
            [$x, $y] = [$columns[$area['column']]['start'], $rows[$area['row']]['start']];
            [$lastColumn, $lastRow] = [$columns[$area['column'] + $area['columns'] - 1], $rows[$area['row'] + $area['rows'] - 1]];
            [$width, $height] = [$lastColumn['start'] + $lastColumn['size'] - $x, $lastRow['start'] + $lastRow['size'] - $y];
            foreach (['columns' => $width, 'rows' => $height] as $field => $px) {
                if ($px < 1) {
                    throw DocumentRefused::because(Reason::TracksTooLong, sprintf(
                        '"%s" leaves nothing for the area "%s" on a canvas of %s px.',
                        ($field === 'columns' ? $this->columns : $this->rows)->written(),
                        $name,
                        $canvas,
                    ), "$path/$field");
                }
            }
            $rects[$name] = Rect::at($x, $y, $width, $height);
        }

        return $rects;
    }

    /**
     * The same division with every track of px as a share, as it lies on this canvas, so that it can be solved for any other. Gap and margin stay px.
     *
     * @throws DocumentRefused where it does not fit this canvas
     */
    public function inShares(Size $canvas): self
    {
        return new self(
            Division::shares($this->lines($this->columns, $canvas->width, '/columns')),
            Division::shares($this->lines($this->rows, $canvas->height, '/rows')),
            $this->gap,
            $this->margin,
            $this->areas,
        );
    }

    /** Whether any track is of px. */
    public function hasPx(): bool
    {
        foreach ([...$this->columns->tracks, ...$this->rows->tracks] as $track) {
            if ($track->hasPx()) {
                return true;
            }
        }

        return false;
    }

    /**
     * @return non-empty-list<array{start: int, size: int}> on the canvas, margin included
     * @throws DocumentRefused
     */
    public function lines(Tracks $tracks, int $length, string $path): array
    {
        if ($length - 2 * $this->margin < 1) {
            throw DocumentRefused::because(Reason::TracksTooLong, sprintf('Margins of %d px leave nothing of %d px.', $this->margin, $length), $path);
        }

        return array_map(
            fn (array $track): array => ['start' => $track['start'] + $this->margin, 'size' => $track['size']],
            $tracks->solve($length - 2 * $this->margin, $this->gap, $path),
        );
    }

    /**
     * Where its tracks begin and end on a canvas, px, rising; none where it does not fit.
     *
     * @return array{columns: list<int>, rows: list<int>}
     */
    public function edges(Size $canvas): array
    {
        $edges = ['columns' => [], 'rows' => []];
        try {
            foreach (['columns' => [$this->columns, $canvas->width], 'rows' => [$this->rows, $canvas->height]] as $side => [$tracks, $length]) {
                foreach ($this->lines($tracks, $length, '') as $line) {
                    array_push($edges[$side], $line['start'], $line['start'] + $line['size']);
                }
            }
        } catch (DocumentRefused) {
            return ['columns' => [], 'rows' => []];
        }

        return array_map(static fn (array $px): array => array_values(array_unique($px)), $edges);
    }

    /** @return array{columns: string, rows: string, gap: int, margin: int, areas: list<string>} as it stands in a layout */
    public function toArray(): array
    {
        $cells = array_fill(0, count($this->rows->tracks), array_fill(0, count($this->columns->tracks), '.'));
        foreach ($this->areas as $name => $area) {
            for ($row = $area['row']; $row < $area['row'] + $area['rows']; $row++) {
                for ($column = $area['column']; $column < $area['column'] + $area['columns']; $column++) {
                    $cells[$row][$column] = $name;
                }
            }
        }

        return [
            'columns' => $this->columns->written(),
            'rows' => $this->rows->written(),
            'gap' => $this->gap,
            'margin' => $this->margin,
            'areas' => $this->areas === [] ? [] : array_map(static fn (array $row): string => implode(' ', $row), $cells),
        ];
    }

    /**
     * Gaps and margins that rectangles may have been laid out with: none, those that stand between them, those at the edge.
     *
     * @param array<string, Rect> $rects
     * @return list<array{int, int}> gap and margin, px
     */
    private static function spacings(array $rects): array
    {
        if ($rects === []) {
            return [];
        }
        $margin = max(0, min(array_map(static fn (Rect $rect): int => min($rect->x, $rect->y), $rects)));
        $gaps = [0];
        foreach ([static fn (Rect $r): array => [$r->x, $r->right()], static fn (Rect $r): array => [$r->y, $r->bottom()]] as $span) {
            foreach ($rects as $rect) {
                $after = array_filter(array_map(static fn (Rect $other): int => $span($other)[0] - $span($rect)[1], $rects), static fn (int $px): bool => $px > 0);
                $gaps[] = $after === [] ? 0 : min($after);
            }
        }
        $found = [];
        foreach (array_unique($gaps) as $gap) {
            $found[] = [$gap, 0];
            $found[] = [$gap, $margin];
        }

        return $margin === 0 ? array_values(array_filter($found, static fn (int $i): bool => $i % 2 === 0, ARRAY_FILTER_USE_KEY)) : $found;
    }

    /** @return list<array{start: int, size: int}> none where it does not fit */
    private static function linesOf(?self $recipe, string $side, int $length): array
    {
        try {
            return $recipe === null ? [] : $recipe->lines($side === 'columns' ? $recipe->columns : $recipe->rows, $length, '');
        } catch (DocumentRefused) {
            return [];
        }
    }

    /**
     * @param array<string, Rect> $rects
     * @return ?non-empty-list<list<string>> names row by row; null where two want the same cell
     */
    private static function cells(array $rects, Division $columns, Division $rows): ?array
    {
        $cells = array_fill(0, count($rows->lines), array_fill(0, count($columns->lines), '.'));
        foreach ($rects as $name => $rect) {
            [$column, $wide] = $columns->cells($rect->x, $rect->right());
            [$row, $high] = $rows->cells($rect->y, $rect->bottom());
            for ($r = $row; $r < $row + $high; $r++) {
                for ($c = $column; $c < $column + $wide; $c++) {
                    if ($cells[$r][$c] !== '.') {
                        return null;
                    }
                    $cells[$r][$c] = (string) $name;
                }
            }
        }

        return array_map(array_values(...), $cells);
    }

    /** @throws DocumentRefused */
    private static function tracks(Node $node, string $field): Tracks
    {
        $text = $node->optional($field);

        return $text === null ? Tracks::parse('1fr') : Tracks::parse($text->text(1, 2000), $text->path);
    }

    /**
     * @return array<string, array{column: int, row: int, columns: int, rows: int}>
     * @throws DocumentRefused unless every area is one rectangle of cells
     */
    private static function areas(Node $node, int $columns, int $rows): array
    {
        $lines = $node->items(Tracks::MOST);
        if ($lines === []) {
            return [];
        }
        if (count($lines) !== $rows) {
            throw $node->refused(Reason::RecipeAreas, sprintf('has %d lines of areas, the recipe has %d rows.', count($lines), $rows));
        }
        /** @var array<string, array{column: int, row: int, right: int, bottom: int, cells: int}> $found */
        $found = [];
        foreach ($lines as $row => $line) {
            $names = preg_split('/\s+/', trim($line->text(1, 20_000))) ?: [];
            if (count($names) !== $columns) {
                throw $line->refused(Reason::RecipeAreas, sprintf('names %d areas, the recipe has %d columns.', count($names), $columns));
            }
            foreach ($names as $column => $name) {
                if (trim($name, '.') === '') {
                    continue;
                }
                if (preg_match('/^[A-Za-z0-9][A-Za-z0-9._-]*$/D', $name) !== 1) {
                    throw $line->refused(Reason::RecipeAreas, sprintf('names the area "%s"; an area has the id of an element.', $name));
                }
                $area = $found[$name] ?? ['column' => $column, 'row' => $row, 'right' => $column, 'bottom' => $row, 'cells' => 0];
                $found[$name] = [
                    'column' => min($area['column'], $column),
                    'row' => $area['row'],
                    'right' => max($area['right'], $column),
                    'bottom' => $row,
                    'cells' => $area['cells'] + 1,
                ];
            }
        }
        $areas = [];
        foreach ($found as $name => $area) {
            [$wide, $high] = [$area['right'] - $area['column'] + 1, $area['bottom'] - $area['row'] + 1];
            if ($wide * $high !== $area['cells']) {
                throw $node->refused(Reason::RecipeAreas, sprintf('has an area "%s" that is no rectangle.', $name));
            }
            $areas[$name] = ['column' => $area['column'], 'row' => $area['row'], 'columns' => $wide, 'rows' => $high];
        }

        return $areas;
    }
}
