<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Colour\Contrast;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Media\Pixels;
use UpperPane\Core\Text\FaceMetrics;

/**
 * How a text stands out from what lies under its words: WCAG 2.2 contrast ratios at points of its lines, of which the 5th percentile counts.
 *
 * With a plate the words stand on that; an outline of at least a 25th of the type counts as their ground where it is the better one
 * (common practice, no source).
 */
final readonly class TextContrasts
{
    /** What share of the points may be worse. */
    private const PERCENTILE = 0.05;
    /** Points that are looked at for one text. */
    private const POINTS = 320;
    /** An outline thinner than this share of the type does not part it from its ground. Common practice, no source. */
    public const OUTLINE_SHARE = 0.04;

    /** @return ?array{ratio: float, zone: ?string, item: ?string, name: ?string} the worst ground; null where none is known */
    public static function worst(Text $text, Layout $layout, FaceMetrics $faces, ?Pixels $pixels): ?array
    {
        $points = self::points($text->lineBoxes($text->set($faces)));
        $worst = null;
        foreach (Ground::under($text, $layout, $pixels)->colours($points) as $ground) {
            $ratio = self::percentile(self::ratios($text->style, $ground['colours']));
            if ($worst === null || $ratio < $worst['ratio']) {
                $worst = ['ratio' => $ratio, 'zone' => $ground['zone'], 'item' => $ground['item'], 'name' => $ground['name']];
            }
        }

        return $worst;
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
     * Points spread evenly over the lines of words.
     *
     * @param list<Box> $lines
     * @return list<array{float, float}>
     */
    private static function points(array $lines): array
    {
        $area = array_sum(array_map(static fn (Box $line): float => $line->width * $line->height, $lines));
        $step = max(1.0, sqrt($area / self::POINTS));
        $points = [];
        foreach ($lines as $line) {
            $rows = max(1, (int) round($line->height / $step));
            $columns = max(1, (int) round($line->width / $step));
            for ($row = 0; $row < $rows; $row++) {
                for ($column = 0; $column < $columns; $column++) {
                    $points[] = [$line->x + ($column + 0.5) * $line->width / $columns, $line->y + ($row + 0.5) * $line->height / $rows];
                }
            }
        }

        return $points;
    }
}
