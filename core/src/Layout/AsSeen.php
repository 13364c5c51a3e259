<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Media\Pixels;
use UpperPane\Core\Text\FaceMetrics;

/** A layout as its viewers see it: how large it looks from where they stand, and how each of its texts reads and stands out. */
final readonly class AsSeen
{
    /**
     * @param ?Display $display without it nobody is known to look: contrasts alone are told
     * @return array{from: list<array<string, mixed>>, texts: list<array<string, mixed>>}
     */
    public static function of(Layout $layout, ?Display $display, FaceMetrics $faces, ?Pixels $pixels): array
    {
        $mmPerPx = $display === null ? null : Matching::of($layout->canvas, $display->raster())->mmPerCanvasPx($display->pxPerMm());
        $farthest = $display?->viewing->farthestMm;
        $texts = [];
        foreach (self::words($layout, $faces) as $text) {
            if ($faces->knows($text->style->family)) {
                $texts[] = self::text($text, $layout, $faces, $pixels, $mmPerPx, $farthest);
            }
        }

        return ['from' => $display === null || $mmPerPx === null ? [] : self::from($layout, $display, $mmPerPx), 'texts' => $texts];
    }

    /** @return list<Text> all words of a layout that can be seen, as they need the most room */
    public static function words(Layout $layout, FaceMetrics $faces): array
    {
        $words = [];
        foreach ($layout->visible()->elements as $element) {
            foreach ($element instanceof Worded ? $element->words($faces) : [] as $text) {
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
    private static function from(Layout $layout, Display $display, float $mmPerPx): array
    {
        [$nearest, $farthest] = [$display->viewing->nearestMm, $display->viewing->farthestMm];
        $from = [];
        foreach (array_unique([$farthest, ($nearest + $farthest) / 2, $nearest]) as $distance) {
            $width = Legibility::cssPx($layout->canvas->width * $mmPerPx, $distance);
            $from[] = ['distance_mm' => round($distance), 'width_px' => round($width, 1), 'height_px' => round($width * $layout->canvas->height / $layout->canvas->width, 1)];
        }

        return $from;
    }

    /** @return array<string, mixed> */
    private static function text(Text $text, Layout $layout, FaceMetrics $faces, ?Pixels $pixels, ?float $mmPerPx, ?float $farthest): array
    {
        $needed = TextContrasts::needed($text->style, $mmPerPx, $farthest);
        $worst = TextContrasts::worst($text, $layout, $faces, $pixels);
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
