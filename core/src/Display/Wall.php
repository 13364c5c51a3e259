<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\FreeSpace;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;

/**
 * The panels of a display as one canvas: its px, what is hidden behind bezels, and which part each panel shows.
 *
 * On a grid of like panels the canvas is the sum of their px, and of the px hidden between them where bezels are compensated: each seam is
 * (bezel + gap + bezel) mm x density, rounded alone. Panels that hang freely, or of mixed sizes, are cut from a canvas of mm x density.
 * Common practice, no source.
 */
final readonly class Wall
{
    /** Densities that are still the same, as a share. Common practice, no source. */
    public const SAME_DENSITY = 0.005;

    /**
     * @param non-empty-list<PlacedPanel> $panels as surveyed, in the order of the document
     * @param list<int> $hiddenColumns px between neighbouring columns; 0 when butted
     * @param list<int> $hiddenRows px between neighbouring rows
     * @param list<Rect> $strips of the canvas behind bezels, without overlap
     * @param list<Rect> $voids of the canvas where no panel hangs, without overlap
     * @param float $density px of the canvas for one mm
     * @param Millimetres $size of the canvas as it hangs, bezels within included
     * @param array{x: float, y: float} $error mm that the rounded seams are too wide (or, below 0, too narrow) over the whole wall
     * @param bool $free whether it is cut from mm: its panels hang freely, or are of mixed sizes
     */
    private function __construct(
        public Size $canvas,
        public array $panels,
        public array $hiddenColumns,
        public array $hiddenRows,
        public array $strips,
        public array $voids,
        public float $density,
        public Millimetres $size,
        public array $error,
        public bool $free,
    ) {
    }

    /**
     * @param non-empty-list<Panel> $panels all on a grid, or all with an origin
     * @param array{x: float, y: float} $gap mm between the frames of neighbours on the grid
     * @param bool $butt whether seams are left out of the canvas; only a grid of like panels can
     * @param ?Processor $processor feeds all panels, where there is one
     * @param list<string> $players ids; the first feeds panels of which nothing is said
     */
    public static function of(array $panels, array $gap, bool $butt, ?Processor $processor, array $players): self
    {
        return self::isGridOfLikePanels($panels, $butt)
            ? self::grid($panels, $gap, $butt, $processor, $players)
            : self::free($panels, $gap, $processor, $players);
    }

    /**
     * Whether px alone tell how the panels lie beside each other.
     *
     * @param non-empty-list<Panel> $panels
     * @param bool $butt then mm do not matter
     */
    public static function isGridOfLikePanels(array $panels, bool $butt): bool
    {
        if ($panels[0]->origin !== null) {
            return false;
        }
        $densities = array_map(static fn (Panel $panel): float => $panel->pxPerMm(), $panels);
        if (!$butt && max($densities) - min($densities) > self::SAME_DENSITY * max($densities)) {
            return false;
        }
        [$widths, $heights] = [[], []];
        foreach ($panels as $panel) {
            $raster = $panel->raster();
            if (($widths[$panel->column] ??= $raster->width) !== $raster->width || ($heights[$panel->row] ??= $raster->height) !== $raster->height) {
                return false;
            }
        }

        return true;
    }

    public function panel(string $id): ?PlacedPanel
    {
        foreach ($this->panels as $panel) {
            if ($panel->panel->id === $id) {
                return $panel;
            }
        }

        return null;
    }

    /**
     * How the canvas of a grid adds up, across and down: so many tracks and seams of so many px.
     *
     * @return list<array{terms: list<array{int, int}>, total: int, canvas: int}> terms as [how many, px]; none of a single panel or a free wall
     */
    public function sums(): array
    {
        if ($this->free || count($this->panels) < 2) {
            return [];
        }
        [$columns, $rows] = [[], []];
        foreach ($this->panels as $panel) {
            $columns[$panel->source->x] = $panel->source->width;
            $rows[$panel->source->y] = $panel->source->height;
        }
        return [self::sum($columns, $this->hiddenColumns, $this->canvas->width), self::sum($rows, $this->hiddenRows, $this->canvas->height)];
    }

    /**
     * @param array<int, int> $tracks px of each
     * @param list<int> $seams px of each; those of 0 px are no term
     * @return array{terms: list<array{int, int}>, total: int, canvas: int}
     */
    private static function sum(array $tracks, array $seams, int $canvas): array
    {
        $terms = [];
        foreach ([array_count_values($tracks), array_count_values(array_filter($seams))] as $counted) {
            foreach ($counted as $px => $times) {
                $terms[] = [$times, $px];
            }
        }

        return ['terms' => $terms, 'total' => array_sum($tracks) + array_sum($seams), 'canvas' => $canvas];
    }

    /** @return array<string, mixed> as `bin/upperpane wall` prints it, without findings */
    public function toArray(): array
    {
        return [
            'canvas' => $this->canvas->toArray(),
            'hidden' => ['columns' => $this->hiddenColumns, 'rows' => $this->hiddenRows],
            'panels' => array_map(static fn (PlacedPanel $panel): array => $panel->toArray(), $this->panels),
            'voids' => array_map(static fn (Rect $rect): array => $rect->toArray(), $this->voids),
            'strips' => array_map(static fn (Rect $rect): array => $rect->toArray(), $this->strips),
            'density' => round($this->density, 4),
            'size_mm' => ['width' => Box::figure($this->size->width), 'height' => Box::figure($this->size->height)],
            'error_mm' => ['x' => Box::figure($this->error['x']), 'y' => Box::figure($this->error['y'])],
            'free' => $this->free,
            'sums' => $this->sums(),
        ];
    }

    /**
     * @param non-empty-list<Panel> $panels
     * @param array{x: float, y: float} $gap
     * @param list<string> $players
     */
    private static function grid(array $panels, array $gap, bool $butt, ?Processor $processor, array $players): self
    {
        $density = self::highest($panels);
        [$columns, $rows] = [self::tracks($panels, $gap['x'], true), self::tracks($panels, $gap['y'], false)];
        [$xs, $hiddenColumns, $width] = self::laid($columns, $butt ? 0.0 : $density);
        [$ys, $hiddenRows, $height] = self::laid($rows, $butt ? 0.0 : $density);
        $canvas = Size::px($width, $height);
        [$places, $sources] = [[], []];
        foreach ($panels as $panel) {
            [$column, $row] = [(int) $panel->column, (int) $panel->row];
            $places[] = new Box($columns[$column]['mm'], $rows[$row]['mm'], $panel->hung()->width, $panel->hung()->height);
            $sources[] = Rect::at($xs[$column], $ys[$row], $columns[$column]['px'], $rows[$row]['px']);
        }
        [$hung, $voids, $strips] = [[], [], []];
        foreach ($panels as $panel) {
            $hung["$panel->column-$panel->row"] = true;
        }
        foreach (array_keys($columns) as $number => $column) {
            if (($hidden = $hiddenColumns[$number] ?? 0) > 0) {
                $strips[] = Rect::at($xs[$column] + $columns[$column]['px'], 0, $hidden, $height);
            }
            foreach (array_keys($rows) as $place => $row) {
                if (($below = $hiddenRows[$place] ?? 0) > 0) {
                    $strips[] = Rect::at($xs[$column], $ys[$row] + $rows[$row]['px'], $columns[$column]['px'], $below);
                }
                if (!isset($hung["$column-$row"])) {
                    $voids[] = Rect::at($xs[$column], $ys[$row], $columns[$column]['px'], $rows[$row]['px']);
                }
            }
        }
        $tooWide = static fn (array $tracks, array $hidden): float => $butt ? 0.0 : (float) array_sum($hidden) / $density - (float) array_sum(array_column($tracks, 'seam'));

        return new self(
            $canvas,
            self::fed($panels, $places, $sources, $processor, $players),
            $hiddenColumns,
            $hiddenRows,
            $strips,
            $voids,
            $density,
            Millimetres::of(self::end($columns), self::end($rows)),
            ['x' => $tooWide($columns, $hiddenColumns), 'y' => $tooWide($rows, $hiddenRows)],
            false,
        );
    }

    /**
     * @param non-empty-list<Panel> $panels
     * @param array{x: float, y: float} $gap
     * @param list<string> $players
     */
    private static function free(array $panels, array $gap, ?Processor $processor, array $players): self
    {
        $density = self::highest($panels);
        $origins = self::origins($panels, $gap);
        [$left, $top] = [min(array_column($origins, 'x')), min(array_column($origins, 'y'))];
        [$places, $sources] = [[], []];
        [$width, $height, $right, $bottom] = [0, 0, 0.0, 0.0];
        foreach ($panels as $index => $panel) {
            [$hung, $raster] = [$panel->hung(), $panel->raster()];
            $place = $places[] = new Box($origins[$index]['x'] - $left, $origins[$index]['y'] - $top, $hung->width, $hung->height);
            [$x, $y] = [(int) round($place->x * $density), (int) round($place->y * $density)];
            $source = $sources[] = abs($panel->pxPerMm() / $density - 1) <= self::SAME_DENSITY
                ? Rect::at($x, $y, $raster->width, $raster->height)
                : Rect::at(
                    $x,
                    $y,
                    max(1, (int) round(($place->x + $place->width) * $density) - $x),
                    max(1, (int) round(($place->y + $place->height) * $density) - $y),
                );
            [$width, $height] = [max($width, $source->right()), max($height, $source->bottom())];
            [$right, $bottom] = [max($right, $place->x + $place->width), max($bottom, $place->y + $place->height)];
        }
        $canvas = Size::px($width, $height);

        return new self(
            $canvas,
            self::fed($panels, $places, $sources, $processor, $players),
            [],
            [],
            [],
            FreeSpace::of($canvas, $sources),
            $density,
            Millimetres::of($right, $bottom),
            ['x' => 0.0, 'y' => 0.0],
            true,
        );
    }

    /**
     * The columns or rows of a grid, in order: their px, where they begin in mm, and how wide the seam behind them is.
     *
     * @param non-empty-list<Panel> $panels
     * @return array<int, array{px: int, mm: float, long: float, seam: float}>
     */
    private static function tracks(array $panels, float $gap, bool $across): array
    {
        $of = [];
        foreach ($panels as $panel) {
            $number = (int) ($across ? $panel->column : $panel->row);
            [$hung, $frame] = [$panel->hung(), $panel->frame()];
            $one = $of[$number] ?? ['px' => 0, 'long' => 0.0, 'before' => 0.0, 'after' => 0.0];
            $of[$number] = [
                'px' => max($one['px'], $across ? $panel->raster()->width : $panel->raster()->height),
                'long' => max($one['long'], $across ? $hung->width : $hung->height),
                'before' => max($one['before'], $across ? $frame->left : $frame->top),
                'after' => max($one['after'], $across ? $frame->right : $frame->bottom),
            ];
        }
        ksort($of);
        [$tracks, $at, $numbers] = [[], 0.0, array_keys($of)];
        foreach ($numbers as $index => $number) {
            $next = $of[$numbers[$index + 1] ?? -1] ?? null;
            $seam = $next === null ? 0.0 : $of[$number]['after'] + $gap + $next['before'];
            $tracks[$number] = ['px' => $of[$number]['px'], 'mm' => $at, 'long' => $of[$number]['long'], 'seam' => $seam];
            $at += $of[$number]['long'] + $seam;
        }

        return $tracks;
    }

    /**
     * @param array<int, array{px: int, mm: float, long: float, seam: float}> $tracks
     * @param float $density px hidden for one mm of seam
     * @return array{array<int, int>, list<int>, int} where each track begins, px hidden behind each but the last, and the px of all
     */
    private static function laid(array $tracks, float $density): array
    {
        [$begins, $hidden, $at] = [[], [], 0];
        foreach ($tracks as $number => $track) {
            $begins[$number] = $at;
            $hidden[] = (int) round($track['seam'] * $density);
            $at += $track['px'] + $hidden[count($hidden) - 1];
        }

        return [$begins, array_slice($hidden, 0, -1), $at];
    }

    /** @param array<int, array{px: int, mm: float, long: float, seam: float}> $tracks */
    private static function end(array $tracks): float
    {
        $last = $tracks[array_key_last($tracks) ?? 0];

        return $last['mm'] + $last['long'];
    }

    /**
     * Where active areas begin, mm: as surveyed, or in the cells of a grid of mixed panels, each at the top left of its cell.
     *
     * @param non-empty-list<Panel> $panels
     * @param array{x: float, y: float} $gap
     * @return non-empty-list<array{x: float, y: float}>
     */
    private static function origins(array $panels, array $gap): array
    {
        [$columns, $rows] = [self::tracks($panels, $gap['x'], true), self::tracks($panels, $gap['y'], false)];

        return array_map(
            static fn (Panel $panel): array => $panel->origin ?? ['x' => $columns[(int) $panel->column]['mm'], 'y' => $rows[(int) $panel->row]['mm']],
            $panels,
        );
    }

    /**
     * What feeds each panel: what the survey says, else the lowest output left, from left to right and top to bottom (common practice).
     *
     * @param non-empty-list<Panel> $panels
     * @param list<Box> $places
     * @param list<Rect> $sources
     * @param list<string> $players
     * @return non-empty-list<PlacedPanel>
     */
    private static function fed(array $panels, array $places, array $sources, ?Processor $processor, array $players): array
    {
        $taken = [];
        foreach ($panels as $panel) {
            $taken[$panel->player ?? $players[0] ?? ''][(int) $panel->output] = true;
        }
        $order = array_keys($panels);
        usort($order, static fn (int $a, int $b): int => [$sources[$a]->y, $sources[$a]->x] <=> [$sources[$b]->y, $sources[$b]->x]);
        $outputs = [];
        foreach ($order as $index) {
            $player = $panels[$index]->player ?? $players[0] ?? '';
            $output = $panels[$index]->output;
            for ($free = 1; $output === null; $free++) {
                $output = isset($taken[$player][$free]) ? null : $free;
            }
            $outputs[$index] = $output;
            $taken[$player][$output] = true;
        }

        return array_map(static fn (Panel $panel, int $index): PlacedPanel => $processor !== null
            ? new PlacedPanel($panel, $places[$index], $sources[$index], null, null)
            : new PlacedPanel($panel, $places[$index], $sources[$index], $panel->player ?? $players[0] ?? null, $outputs[$index]), $panels, array_keys($panels));
    }

    /** @param non-empty-list<Panel> $panels */
    private static function highest(array $panels): float
    {
        return max(array_map(static fn (Panel $panel): float => $panel->pxPerMm(), $panels));
    }
}
