<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Text\FaceMetrics;

/** `text.small`: capitals that the farthest viewer sees under less than 16 arc minutes, or that have too few px on an LED raster (Display\Legibility). */
final readonly class TextSmall implements Check
{
    /** A box that had to grow further is another design, not a repair. */
    private const MOST_GROWTH = 3;

    public static function explained(): array
    {
        return [
            new Explanation(
                'text.small',
                'warning',
                'capitals as the farthest viewer sees them, from the eye to the middle of the display: under 16 arc minutes; under 7 px on an LED raster',
                'nobody reads it',
                'ISO 9241-303 (from memory); 7 px: common practice',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        $mmPerPx = $subject->mmPerCanvasPx();
        if ($subject->display === null || $mmPerPx === null || $subject->faces === null) {
            return;
        }
        $viewing = $subject->display->viewing;
        $farthest = $viewing->farthestEyeMm();
        $led = $subject->display->led;
        foreach ($subject->measurable() as $text) {
            $share = $subject->faces->capShare($text->style->family, $text->style->weight);
            $capPx = $text->smallestPx() * $share;
            // What is smaller than the text itself stays so in proportion.
            $part = $text->smallestPx() / $text->style->sizePx;
            $arcmin = Legibility::arcmin($capPx * $mmPerPx, $farthest);
            $rasterPx = $capPx * $subject->displayScale();
            $fewPx = $led && $rasterPx < Legibility::LEAST_CAP_PX_LED;
            if (($arcmin >= Legibility::LIMIT_ARCMIN && !$fewPx) || $subject->isToldItself('text.small', $text)) {
                continue;
            }
            $sizes = [];
            foreach ([Legibility::COMFORTABLE_ARCMIN, Legibility::LIMIT_ARCMIN] as $wanted) {
                $cap = Legibility::capMm($wanted, $farthest) / $mmPerPx;
                $sizes[] = (int) ceil(round(max($cap, $led ? Legibility::LEAST_CAP_PX_LED / $subject->displayScale() : 0.0) / $share / $part, 6));
            }
            $cures = $this->cures($subject, $text, $sizes);
            yield new Finding(
                'text.small',
                Level::Warning,
                [$text->id()],
                ($fewPx && $arcmin >= Legibility::LIMIT_ARCMIN
                    ? sprintf('"%s": capitals have %s px on this LED display; %d are needed.', $text->id(), round($rasterPx, 1), Legibility::LEAST_CAP_PX_LED)
                    : sprintf(
                        '"%s": capitals are %s mm on %s, %s′ at %s m; %d′ are needed, type of %d px.',
                        $text->id(),
                        round($capPx * $mmPerPx, 1),
                        $subject->display->name,
                        round($arcmin, 1),
                        round($viewing->farthestMm / 1000, 1),
                        Legibility::LIMIT_ARCMIN,
                        $sizes[1],
                    )) . ($cures === [] ? ' On this canvas it has no room there.' : ''),
                [
                    'arcmin' => round($arcmin, 2),
                    'cap_mm' => round($capPx * $mmPerPx, 2),
                    'cap_px' => round($rasterPx, 2),
                    'distance_mm' => round($farthest, 1),
                    'size_px' => ['comfortable' => $sizes[0], 'limit' => $sizes[1]],
                ],
                $text->rect(),
                $cures,
            );
        }
    }

    /**
     * The type that reads comfortably, or else just reads, where it fits the box.
     *
     * @param list<int> $sizes px, the better first
     * @return list<Fix>
     */
    private function cures(Subject $subject, Text $text, array $sizes): array
    {
        $cures = [];
        $longest = $subject->faces === null ? 0.0 : self::longestWord($text, $subject->faces);
        foreach ($sizes as $size) {
            if ($subject->faces !== null && $longest * $size <= $text->rect()->width && !$text->overflows($text->set($subject->faces, (float) $size))) {
                $cures[] = Fix::style("Make its type $size px", $text->id(), ['size_px' => $size]);
            }
        }
        foreach ($sizes as $size) {
            $box = $this->roomFor($subject, $text, (float) $size, $longest * $size);
            if ($box !== null) {
                $cures[] = Fix::style("Make its type $size px and its box {$box->size()}", $text->id(), ['size_px' => $size], $box);
            }
        }

        return $cures;
    }

    /** How wide its longest word is that no line breaks within, of type of 1 px: what is too wide for a box needs not be set. */
    private static function longestWord(Text $text, FaceMetrics $faces): float
    {
        $longest = 0.0;
        preg_match_all('/(?<!\S)[A-Za-z0-9]+(?!\S)/', $text->marks === [] ? $text->text : '', $words);
        foreach (array_unique($words[0]) as $word) {
            $longest = max($longest, $faces->advance($word, $text->style->family, $text->style->weight));
        }

        return $longest;
    }

    /** The box grown downwards, and to the right where it must be, as far as the words of this size want; null where that is too far, or narrower than the longest of them. */
    private function roomFor(Subject $subject, Text $text, float $sizePx, float $leastWidth): ?Rect
    {
        if ($subject->faces === null || !$text->ownBox) {
            return null;
        }
        $canvas = $subject->layout->canvas;
        $rect = $text->rect();
        foreach ([$rect->width, $canvas->width - $rect->x] as $width) {
            if ($width < $rect->width || $width < $leastWidth) {
                continue;
            }
            $set = $text->set($subject->faces, $sizePx, $width);
            $plate = 2 * ($text->style->plate->px ?? 0.0);
            $height = max($rect->height, (int) ceil($set->heightPx + $plate));
            if ($set->widthPx + $plate <= $width && $rect->y + $height <= $canvas->height && $height <= self::MOST_GROWTH * $rect->height) {
                return Rect::at($rect->x, $rect->y, max($rect->width, (int) ceil($set->widthPx + $plate)), $height);
            }
        }

        return null;
    }
}
