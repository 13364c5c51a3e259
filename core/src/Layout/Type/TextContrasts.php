<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Type;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Colour\Contrast;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Paint\GroundColours;
use UpperPane\Core\Media\Swatches;
use UpperPane\Core\Text\FaceMetrics;

/**
 * How a text stands out from what lies under its words: WCAG 2.2 contrast ratios at points of its lines, of which the 5th percentile counts.
 *
 * With a plate the words stand on that; an outline of at least a 25th of the type counts as their ground where it is the better one
 * (common practice, no source).
 */
final readonly class TextContrasts
{
    private const LARGE_PX = 24.0;
    private const LARGE_BOLD_PX = 18.66;
    /** What share of the points may be worse. */
    private const PERCENTILE = 0.05;
    /** Points that are looked at for one text. */
    private const POINTS = 320;
    /** An outline thinner than this share of the type does not part it from its ground. Common practice, no source. */
    public const OUTLINE_SHARE = 0.04;

    /**
     * The ratio that a type needs: 4.5, or 3 for large type (WCAG 2.2, 1.4.3), which is 24 CSS px, or 18.66 px if it is bold.
     *
     * A CSS px is an angle (CSS Values 4, 6.2), so on a display the angle under which the farthest viewer sees the type decides.
     *
     * @param ?float $mmPerPx of the canvas on the display; null where no display is known: then px of the canvas count
     */
    public static function needed(TextStyle $style, ?float $mmPerPx, ?float $farthestMm): float
    {
        $cssPx = $mmPerPx === null || $farthestMm === null ? $style->sizePx : Legibility::cssPx($style->sizePx * $mmPerPx, $farthestMm);

        return $cssPx >= ($style->weight >= 700 ? self::LARGE_BOLD_PX : self::LARGE_PX) ? Contrast::LARGE : Contrast::NORMAL;
    }

    /**
     * The worst of what lies under it by turns.
     *
     * @return ?array{ratio: float, zone: ?string, item: ?string, name: ?string, ...} null where no ground is known
     */
    public static function worstOf(Text $text, Composed $layout, FaceMetrics $faces, ?Swatches $swatches): ?array
    {
        $plain = trim($text->text) === '' ? null : GroundColours::under($text, $layout, $swatches)->plain(static fn (): array => $text->lineBoxes($text->set($faces)));
        if ($plain === null) {
            return self::worst($text, $layout, $faces, $swatches);
        }
        // On the bare background, and on one fill, all points are alike, and none needs to be looked at.
        $styles = [$text->style];
        foreach ($text->marks as $mark) {
            if ($mark->color !== null) {
                $styles[] = $text->style->coloured($mark->color);
            }
        }

        return ['ratio' => min(array_map(static fn (TextStyle $style): float => self::ratio($style, $plain), $styles)), 'zone' => null, 'item' => null, 'name' => null];
    }

    /**
     * The worst of what lies under it by turns, with the ratio at each point that was looked at.
     *
     * @return ?array{ratio: float, zone: ?string, item: ?string, name: ?string, cells: list<array{box: Box, ratio: float}>} null where no ground is known
     */
    public static function worst(Text $text, Composed $layout, FaceMetrics $faces, ?Swatches $swatches): ?array
    {
        $cells = self::cells($text->lineBoxes($text->set($faces)));
        $points = array_map(static fn (Box $cell): array => [$cell->x + $cell->width / 2, $cell->y + $cell->height / 2], $cells);
        $worst = null;
        foreach (GroundColours::under($text, $layout, $swatches)->colours($points) as $ground) {
            $ratios = self::ratios($text->style, $ground['colours']);
            foreach ($text->marks as $mark) {
                $own = $mark->color === null ? $ratios : self::ratios($text->style->coloured($mark->color), $ground['colours']);
                $ratios = array_map(static fn (float $a, float $b): float => min($a, $b), $ratios, $own);
            }
            $ratio = self::percentile($ratios);
            if ($worst === null || $ratio < $worst['ratio']) {
                $worst = ['ratio' => $ratio, 'zone' => $ground['zone'], 'item' => $ground['item'], 'name' => $ground['name'], 'ratios' => $ratios];
            }
        }
        if ($worst === null) {
            return null;
        }
        $seen = array_map(static fn (Box $cell, float $ratio): array => ['box' => $cell, 'ratio' => $ratio], $cells, $worst['ratios']);

        return ['ratio' => $worst['ratio'], 'zone' => $worst['zone'], 'item' => $worst['item'], 'name' => $worst['name'], 'cells' => $seen];
    }

    /**
     * The ratio at each of these grounds.
     *
     * @param list<Colour> $grounds opaque
     * @return list<float>
     */
    public static function ratios(TextStyle $style, array $grounds): array
    {
        $known = [];
        $ratios = [];
        foreach ($grounds as $ground) {
            $ratios[] = $known[$ground->hex] ??= self::ratio($style, $ground);
        }

        return $ratios;
    }

    /**
     * How near a ratio comes to what is needed: under three quarters of it letters are lost. Common practice, no source.
     *
     * @return 'enough'|'nearly'|'lost'
     */
    public static function level(float $ratio, float $needed): string
    {
        return $ratio >= $needed ? 'enough' : ($ratio >= 0.75 * $needed ? 'nearly' : 'lost');
    }

    /** Which black or white around the letters lifts the contrast to what is wanted; null where neither does. */
    public static function lifting(Colour $text, float $wanted): ?Colour
    {
        $best = null;
        foreach (['#000000', '#ffffff'] as $hex) {
            $around = Colour::of($hex);
            if (Contrast::of($text, $around)->ratio >= $wanted && ($best === null || Contrast::of($text, $around)->ratio > Contrast::of($text, $best)->ratio)) {
                $best = $around;
            }
        }

        return $best;
    }

    private static function ratio(TextStyle $style, Colour $ground): float
    {
        $below = $style->plate === null ? $ground : $style->plate->color->over($ground);
        $ratio = Contrast::of($style->color, $below)->ratio;
        if ($style->outline === null || $style->outline->px < self::OUTLINE_SHARE * $style->sizePx) {
            return $ratio;
        }

        return max($ratio, Contrast::of($style->color, $style->outline->color->over($below))->ratio);
    }

    /** @param list<float> $ratios */
    private static function percentile(array $ratios): float
    {
        sort($ratios);

        return $ratios[(int) floor(self::PERCENTILE * count($ratios))] ?? 21.0;
    }

    /**
     * The lines of words cut into cells of about the same size.
     *
     * @param list<Box> $lines
     * @return list<Box>
     */
    private static function cells(array $lines): array
    {
        $area = array_sum(array_map(static fn (Box $line): float => $line->width * $line->height, $lines));
        $step = max(1.0, sqrt($area / self::POINTS));
        $cells = [];
        foreach ($lines as $line) {
            $rows = max(1, (int) round($line->height / $step));
            $columns = max(1, (int) round($line->width / $step));
            [$width, $height] = [$line->width / $columns, $line->height / $rows];
            for ($row = 0; $row < $rows; $row++) {
                for ($column = 0; $column < $columns; $column++) {
                    $cells[] = new Box($line->x + $column * $width, $line->y + $row * $height, $width, $height);
                }
            }
        }

        return $cells;
    }
}
