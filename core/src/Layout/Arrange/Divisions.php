<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Arrange;

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
}
