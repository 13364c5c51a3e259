<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Colour\Contrast;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Type\TextContrasts;

/** `text.contrast`: words that do not stand out from what lies under them (Layout\TextContrasts). */
final readonly class TextContrast implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'text.contrast',
                'warning',
                'letters against what lies under their lines, the 5th percentile of some 320 points, for each thing that plays there: ' .
                'under 4.5, or 3 for type of 24 CSS px (18.66 px bold) as the farthest viewer sees it',
                'it does not stand out',
                'WCAG 2.2, 1.4.3; CSS Values 4 for the angle of a px; an outline of a 25th of the type counts: common practice',
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
            $worst = TextContrasts::worstOf($text, $subject->layout, $faces, $subject->swatches);
            $wanted = TextContrasts::needed($text->style, $subject->mmPerCanvasPx(), $subject->display?->viewing->farthestEyeMm());
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
}
