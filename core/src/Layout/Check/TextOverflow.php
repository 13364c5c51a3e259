<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Kind\HasWords;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Text\SetText;

/** `text.overflow`: words that need more room than their box has; what stands beyond it is cut off. */
final readonly class TextOverflow implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'text.overflow',
                'warning',
                'words set in their face, broken into lines, against their box, plate included',
                'what stands beyond the box is cut off',
                'HarfBuzz; UAX 14 by ICU, between ASCII signs as Chromium breaks; held against `hb-shape` and Chromium',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        $faces = $subject->faces;
        if ($faces === null) {
            return;
        }
        foreach ($subject->measurable() as $text) {
            $set = $text->set($faces);
            // What runs through its box, or is cut where it ends, has room by itself.
            if (!$text->overflows($set) || $subject->isToldItself('text.overflow', $text)) {
                continue;
            }
            $fits = $text->largestThatFits($faces, (int) ceil($text->style->sizePx) - 1);
            yield new Finding(
                'text.overflow',
                Level::Warning,
                [$text->id()],
                sprintf(
                    '"%s" needs %d x %d px for %s, its box has %s.',
                    $text->id(),
                    (int) ceil($set->widthPx + 2 * ($text->style->plate->px ?? 0)),
                    (int) ceil($set->heightPx + 2 * ($text->style->plate->px ?? 0)),
                    count($set->lines) === 1 ? 'one line' : count($set->lines) . ' lines',
                    $text->rect()->size(),
                ),
                ['width_px' => round($set->widthPx, 2), 'height_px' => round($set->heightPx, 2), 'lines' => count($set->lines), 'fits_px' => $fits],
                $text->rect(),
                $this->cures($subject, $text, $set, $fits),
            );
        }
    }

    /**
     * The box as high as the words need, where the canvas has the room; before that the largest type that fits if it is little smaller, else behind it.
     *
     * @return list<Fix>
     */
    private function cures(Subject $subject, Text $text, SetText $set, ?int $fits): array
    {
        $rect = $text->rect();
        $height = (int) ceil($set->heightPx + 2 * ($text->style->plate->px ?? 0));
        $smaller = $fits === null ? [] : [Fix::style("Make its type $fits px", $text->id(), ['size_px' => $fits])];
        $higher = Rect::at($rect->x, $rect->y, $rect->width, max($height, $rect->height));
        $free = $text->ownBox && $set->widthPx <= $rect->width && $higher->bottom() <= $subject->layout->canvas->height;
        foreach ($free ? $subject->layout->elements : [] as $other) {
            if ($other->id() !== $text->id() && $other instanceof HasWords && $other->rect()->intersection($higher) !== null && $other->rect()->intersection($rect) === null) {
                $free = false;
            }
        }
        $larger = $free ? [Fix::rect("Make its box $height px high", $text->id(), $higher)] : [];

        return $fits !== null && $fits >= 0.85 * $text->style->sizePx ? [...$smaller, ...$larger] : [...$larger, ...$smaller];
    }
}
