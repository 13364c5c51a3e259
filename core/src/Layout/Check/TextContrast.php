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
                self::cures($text, $wanted, $worst['name'] !== null),
            );
        }
    }

    /**
     * Over pictures an outline, else a plate; a plate on a plain ground, and where the type is too small for an outline.
     *
     * @return list<Fix>
     */
    private static function cures(Text $text, float $wanted, bool $overPicture): array
    {
        $around = TextContrasts::lifting($text->style->color, $wanted);
        if ($around === null) {
            return [];
        }
        $name = $around->hex === '#000000' ? 'black' : 'white';
        $px = (int) ceil(TextContrasts::OUTLINE_SHARE * $text->style->sizePx);
        $plate = Fix::style("Put it on a $name plate", $text->id(), ['plate' => ['px' => 0, 'color' => $around->hex]]);

        return $overPicture && $text->style->sizePx >= 20.0
            ? [Fix::style("Outline it in $name, $px px", $text->id(), ['outline' => ['px' => $px, 'color' => $around->hex]]), $plate]
            : [$plate];
    }
}
