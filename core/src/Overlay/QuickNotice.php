<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Style\NamedSize;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Text\SetText;

/**
 * Words in a hurry: how large they are, and how wide they lie, follows from the display and from who reads it there.
 *
 * Capitals of 22 arc minutes for the farthest viewer (ISO 9241-303: 20 to 22 are preferred; from memory), as long as all of it stays within a part of the canvas.
 */
final readonly class QuickNotice
{
    private const ARCMIN = 22.0;

    /** Of the shorter side: smaller is no notice, larger covers all else. Common practice, no source. */
    private const LEAST = 1 / 30;
    private const MOST = 1 / 7;

    /** No more of the height than this. */
    private const HIGH = 0.45;

    private const PADDING = 0.02;

    /** White on ink: 15.2 to 1, whatever plays below. */
    private const LOOK = ['plate' => '#17272e', 'padding' => self::PADDING];
    private const COLOUR = '#ffffff';

    /**
     * @param Size $canvas of the display
     * @param string $place one of the nine
     * @return array<string, mixed> the fields that say how it looks
     */
    public static function on(Size $canvas, Surroundings $surroundings, string $text, string $place): array
    {
        $width = $canvas->isPortrait() ? 0.9 : ($canvas->width > 2 * $canvas->height ? 0.5 : 0.7);
        $shorter = min($canvas->width, $canvas->height);
        $style = TextStyle::of(['size_px' => 1]);
        $display = $surroundings->display;
        $wanted = $display === null ? $shorter / 20 : NamedSize::fromNode(Node::root([NamedSize::ARCMIN => self::ARCMIN]))->px(
            $canvas,
            1 / $display->pxPerMm(),
            $display->viewing->farthestEyeMm(),
            $surroundings->faces?->capShare($style->family, 700) ?? 0.7,
        );
        $least = max(1, (int) ceil($shorter * self::LEAST));
        $size = (int) max($least, min($wanted, floor($shorter * self::MOST)));
        $line = max(1.0, $width * $canvas->width - 2 * self::PADDING * $shorter);
        while ($size > $least && $surroundings->faces !== null) {
            $set = SetText::of($text, $surroundings->faces, $style->family, 700, $size, 1.2, $line);
            if ($set->heightPx <= self::HIGH * $canvas->height && $set->widthPx <= $line) {
                break;
            }
            $size = max($least, $size - max(1, intdiv($size, 12)));
        }

        return self::LOOK + [
            'kind' => 'notice', 'text' => $text, 'place' => $place, 'width' => $width,
            'style' => ['family' => $style->family, 'size_px' => $size, 'weight' => 700, 'color' => self::COLOUR, 'align' => 'center'],
        ];
    }
}
