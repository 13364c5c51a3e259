<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Arrange;

use UpperPane\Core\Display\Wall;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Division\Recipe;

/** Known divisions to begin with, for the shape of a raster: landscape, portrait, or stretched. Common practice, no source. */
final readonly class Divisions
{
    /** From this aspect on, a screen is a bar: it is divided along its length alone. */
    private const STRETCHED = 2.4;

    private const LANDSCAPE = [
        ['Main and side', '7fr 3fr', '1fr', ['main side']],
        ['Main, side and footer', '7fr 3fr', '4fr 1fr', ['main side', 'foot foot']],
        ['Side, main and footer', '3fr 7fr', '4fr 1fr', ['side main', 'foot foot']],
        ['Main and footer', '1fr', '5fr 1fr', ['main', 'foot']],
        ['Head, main and footer', '1fr', '1fr 6fr 1fr', ['head', 'main', 'foot']],
        ['Main and two at the side', '2fr 1fr', '1fr 1fr', ['main upper', 'main lower']],
        ['Two halves', '1fr 1fr', '1fr', ['left right']],
        ['Thirds', '1fr 1fr 1fr', '1fr', ['left middle right']],
        ['Quarters', '1fr 1fr', '1fr 1fr', ['nw ne', 'sw se']],
    ];

    private const PORTRAIT = [
        ['Two halves', '1fr', '1fr 1fr', ['upper', 'lower']],
        ['Main and footer', '1fr', '4fr 1fr', ['main', 'foot']],
        ['Head, main and footer', '1fr', '1fr 4fr 1fr', ['head', 'main', 'foot']],
        ['Main over side and footer', '1fr', '5fr 3fr 1fr', ['main', 'side', 'foot']],
        ['Main over two', '1fr 1fr', '2fr 1fr', ['main main', 'left right']],
        ['Thirds', '1fr', '1fr 1fr 1fr', ['upper', 'middle', 'lower']],
        ['Quarters', '1fr 1fr', '1fr 1fr', ['nw ne', 'sw se']],
    ];

    private const BAR = [
        ['Two halves', ['1fr', '1fr'], ['left', 'right']],
        ['Main and end', ['3fr', '1fr'], ['main', 'end']],
        ['Beginning, main and end', ['1fr', '4fr', '1fr'], ['begin', 'main', 'end']],
        ['Thirds', ['1fr', '1fr', '1fr'], ['left', 'middle', 'right']],
        ['Quarters', ['1fr', '1fr', '1fr', '1fr'], ['one', 'two', 'three', 'four']],
    ];

    /** @return array<string, Recipe> by name; the first is the canvas as one zone */
    public static function for(Size $raster): array
    {
        $longest = max($raster->width, $raster->height) / min($raster->width, $raster->height);
        $rows = match (true) {
            $longest >= self::STRETCHED => array_map(static fn (array $bar): array => $raster->isPortrait()
                ? [$bar[0], '1fr', implode(' ', $bar[1]), $bar[2]]
                : [$bar[0], implode(' ', $bar[1]), '1fr', [implode(' ', $bar[2])]], self::BAR),
            $raster->isPortrait() => self::PORTRAIT,
            default => self::LANDSCAPE,
        };
        $divisions = [];
        foreach ([['One zone', '1fr', '1fr', ['main']], ...$rows] as [$name, $columns, $lines, $areas]) {
            $divisions[$name] = Recipe::fromNode(Node::root(['columns' => $columns, 'rows' => $lines, 'areas' => $areas]));
        }

        return $divisions;
    }

    /**
     * Divisions at the panels of a wall that hangs on a grid; what is hidden between panels belongs to no zone.
     *
     * @return array<string, Recipe> by name; empty for a single panel, and where panels hang freely
     */
    public static function ofWall(Wall $wall): array
    {
        [$columns, $rows, $cells] = [[], [], []];
        foreach ($wall->panels as $placed) {
            [$column, $row, $source] = [$placed->panel->column, $placed->panel->row, $placed->source];
            if ($column === null || $row === null) {
                return [];
            }
            $columns[$column] = [$source->x, $source->width];
            $rows[$row] = [$source->y, $source->height];
            $cells[$row][$column] = $placed->panel->id;
        }
        if (count($wall->panels) < 2) {
            return [];
        }
        ksort($columns);
        ksort($rows);
        [$across, $down] = [self::tracks($columns, $wall->canvas->width), self::tracks($rows, $wall->canvas->height)];
        $divisions = ['A zone for each panel' => self::recipe($across, $down, array_map(
            static fn (array $line): string => implode(' ', array_map(
                static fn (array $track): string => $line[1] === null || $track[1] === null ? '.' : $cells[$line[1]][$track[1]] ?? '.',
                $across,
            )),
            $down,
        ))];
        if (count($columns) > 1 && count($rows) > 1) {
            $divisions['A zone for each column'] = self::recipe($across, [['1fr', 0]], [implode(' ', self::named($across, 'column'))]);
            $divisions['A zone for each row'] = self::recipe([['1fr', 0]], $down, self::named($down, 'row'));
        }

        return $divisions;
    }

    /**
     * @param non-empty-array<int, array{int, int}> $panels from where and how long, px, by their place
     * @return non-empty-list<array{string, ?int}> tracks, and which panels lie there; null between panels
     */
    private static function tracks(array $panels, int $length): array
    {
        [$tracks, $end] = [[], 0];
        foreach ($panels as $place => [$from, $px]) {
            if ($from > $end) {
                $tracks[] = [$from - $end . 'px', null];
            }
            $tracks[] = ["{$px}px", $place];
            $end = $from + $px;
        }

        return $end < $length ? [...$tracks, [$length - $end . 'px', null]] : $tracks;
    }

    /**
     * @param non-empty-list<array{string, ?int}> $tracks
     * @return list<string> an area for each in which panels lie
     */
    private static function named(array $tracks, string $name): array
    {
        return array_map(static fn (array $track): string => $track[1] === null ? '.' : $name . ($track[1] + 1), $tracks);
    }

    /**
     * @param non-empty-list<array{string, ?int}> $across
     * @param non-empty-list<array{string, ?int}> $down
     * @param list<string> $areas
     */
    private static function recipe(array $across, array $down, array $areas): Recipe
    {
        return Recipe::fromNode(Node::root(['columns' => implode(' ', array_column($across, 0)), 'rows' => implode(' ', array_column($down, 0)), 'areas' => $areas]));
    }
}
