<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Type;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\HasWords;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Media\Swatches;
use UpperPane\Core\Text\FaceMetrics;

/** A layout as its viewers see it: how large it looks from where they stand, and how each of its texts reads and stands out. */
final readonly class AsSeen
{
    /**
     * @param Surroundings $surroundings without a display nobody is known to look: contrasts alone are told
     * @return array{from: list<array<string, mixed>>, texts: list<array<string, mixed>>}
     */
    public static function of(Composed $layout, Surroundings $surroundings): array
    {
        [$display, $faces, $swatches] = [$surroundings->display, $surroundings->faces, $surroundings->swatches];
        $mmPerPx = $display === null ? null : Matching::of($layout->canvas, $display->raster())->mmPerCanvasPx($display->pxPerMm());
        $farthest = $display?->viewing->farthestEyeMm();
        $texts = [];
        foreach ($faces === null ? [] : self::words($layout, $faces) as $text) {
            if ($faces !== null && $faces->knows($text->style->family)) {
                $texts[] = self::text($text, $layout, $faces, $swatches, $mmPerPx, $farthest);
            }
        }

        return ['from' => $display === null || $mmPerPx === null ? [] : self::from($layout, $display, $mmPerPx), 'texts' => $texts];
    }

    /** @return list<Text> all words of a layout that can be seen, as they need the most room */
    public static function words(Composed $layout, FaceMetrics $faces): array
    {
        $words = [];
        foreach ($layout->visible()->elements as $element) {
            foreach ($element instanceof HasWords ? $element->words($faces) : [] as $text) {
                if (trim($text->text) !== '') {
                    $words[] = $text;
                }
            }
        }

        return $words;
    }

    /**
     * From the back row, from halfway, and from the front: how many CSS px the canvas takes up on a screen at arm's length.
     *
     * @return list<array{distance_mm: float, width_px: float, height_px: float}>
     */
    private static function from(Composed $layout, Display $display, float $mmPerPx): array
    {
        [$nearest, $farthest] = [$display->viewing->nearestMm, $display->viewing->farthestMm];
        $from = [];
        foreach (array_unique([$farthest, ($nearest + $farthest) / 2, $nearest]) as $distance) {
            $width = Legibility::cssPx($layout->canvas->width * $mmPerPx, $display->viewing->eyeMm($distance));
            $from[] = ['distance_mm' => round($distance), 'width_px' => round($width, 1), 'height_px' => round($width * $layout->canvas->height / $layout->canvas->width, 1)];
        }

        return $from;
    }

    /** @return array<string, mixed> */
    private static function text(Text $text, Composed $layout, FaceMetrics $faces, ?Swatches $swatches, ?float $mmPerPx, ?float $farthest): array
    {
        $needed = TextContrasts::needed($text->style, $mmPerPx, $farthest);
        $worst = TextContrasts::worst($text, $layout, $faces, $swatches);
        $arcmin = $mmPerPx === null || $farthest === null
            ? null
            : Legibility::arcmin($text->smallestPx() * $faces->capShare($text->style->family, $text->style->weight) * $mmPerPx, $farthest);

        return [
            'element' => $text->id(),
            'text' => mb_strimwidth(strtr($text->text, "\n", ' '), 0, 60, '...'),
            'arcmin' => $arcmin === null ? null : round($arcmin, 1),
            'verdict' => $arcmin === null ? null : Legibility::verdict($arcmin),
            'needed' => $needed,
            'ratio' => $worst === null ? null : round($worst['ratio'], 2),
            'level' => $worst === null ? null : TextContrasts::level($worst['ratio'], $needed),
            'over' => $worst['name'] ?? null,
            'cells' => array_map(
                static fn (array $cell): array => $cell['box']->toArray() + ['level' => TextContrasts::level($cell['ratio'], $needed)],
                $worst['cells'] ?? [],
            ),
        ];
    }
}
