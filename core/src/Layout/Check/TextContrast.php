<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Colour\Contrast;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Text;
use UpperPane\Core\Layout\TextContrasts;

/**
 * `text.contrast`: words that do not stand out from what lies under them. WCAG 2.2, 1.4.3: 4.5 for normal type, 3 for large type.
 *
 * Large is type of 24 CSS px, or 18.66 px if it is bold. A CSS px is an angle, 0.0213 degrees (CSS Values 4, 6.2), so on a display
 * the angle under which the farthest viewer sees the type decides; where no display is known, px of the canvas do.
 */
final readonly class TextContrast implements Check
{
    private const CSS_PX_DEGREES = 0.0213;
    private const LARGE_PX = 24.0;
    private const LARGE_BOLD_PX = 18.66;

    public function findings(Subject $subject): iterable
    {
        $faces = $subject->faces;
        if ($faces === null) {
            return;
        }
        foreach ($subject->measurable() as $text) {
            $worst = TextContrasts::worst($text, $subject->layout, $faces, $subject->pixels);
            $wanted = self::isLarge($subject, $text) ? Contrast::LARGE : Contrast::NORMAL;
            if ($worst === null || $worst['ratio'] >= $wanted) {
                continue;
            }
            yield new Finding(
                'text.contrast',
                Level::Warning,
                [$text->id()],
                sprintf(
                    '"%s": %.1f to 1 against %s; %s to 1 is needed for type %s.',
                    $text->id(),
                    floor($worst['ratio'] * 10) / 10,
                    $worst['name'] === null ? 'its ground' : sprintf('"%s"', $worst['name']),
                    $wanted,
                    $wanted === Contrast::LARGE ? 'seen as large' : 'of this size',
                ),
                ['ratio' => round($worst['ratio'], 3), 'needed' => $wanted] + ($worst['item'] === null ? [] : ['zone' => $worst['zone'], 'item' => $worst['item']]),
                $text->rect(),
                $this->fix($text, $wanted, $worst['name'] !== null),
            );
        }
    }

    /** Over pictures an outline; a plate on a plain ground, and where the type is too small for an outline. */
    private function fix(Text $text, float $wanted, bool $overPicture): ?Fix
    {
        $around = TextContrasts::lifting($text->style->color, $wanted);
        if ($around === null || !$overPicture) {
            return $around === null ? null : self::plate($text, $around->hex);
        }
        $px = (int) ceil(TextContrasts::OUTLINE_SHARE * $text->style->sizePx);

        return $text->style->sizePx < 20.0
            ? self::plate($text, $around->hex)
            : Fix::style(sprintf('Outline it in %s, %d px', $around->hex === '#000000' ? 'black' : 'white', $px), $text->id(), ['outline' => ['px' => $px, 'color' => $around->hex]]);
    }

    private static function plate(Text $text, string $hex): Fix
    {
        return Fix::style(sprintf('Put it on a %s plate', $hex === '#000000' ? 'black' : 'white'), $text->id(), ['plate' => ['px' => 0, 'color' => $hex]]);
    }

    private static function isLarge(Subject $subject, Text $text): bool
    {
        $large = $text->style->weight >= 700 ? self::LARGE_BOLD_PX : self::LARGE_PX;
        $mmPerPx = $subject->mmPerCanvasPx();
        if ($subject->display === null || $mmPerPx === null) {
            return $text->style->sizePx >= $large;
        }
        $degrees = rad2deg(2 * atan($text->style->sizePx * $mmPerPx / (2 * $subject->display->viewing->farthestMm)));

        return $degrees >= $large * self::CSS_PX_DEGREES;
    }
}
