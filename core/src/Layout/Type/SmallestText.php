<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Type;

use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\HasWords;
use UpperPane\Core\Layout\Matching;

/** The text of a layout whose capitals are the smallest on a display. */
final readonly class SmallestText
{
    private function __construct(public string $element, public string $text, public float $typePx, public float $capPx)
    {
    }

    /**
     * @param array<string, float> $capShares height of a capital over the size of the type, by `family weight`; what is not there counts as usual
     * @return ?self its sizes in px of the raster; null where the layout has no words
     */
    public static function of(Composed $layout, Size $raster, array $capShares): ?self
    {
        $scale = Matching::of($layout->canvas, $raster)->scale;
        $smallest = null;
        foreach ($layout->visible()->elements as $element) {
            if (!$element instanceof HasWords) {
                continue;
            }
            foreach ($element->styles() as $style) {
                $type = $style->sizePx * $scale;
                $cap = $type * ($capShares["$style->family $style->weight"] ?? Legibility::CAP_SHARE);
                if (trim($element->title()) !== '' && ($smallest === null || $cap < $smallest->capPx)) {
                    $smallest = new self($element->id(), mb_strimwidth(strtr($element->title(), "\n", ' '), 0, 60, '...'), $type, $cap);
                }
            }
        }

        return $smallest;
    }

    /** @return array{element: string, text: string, type_px: float, cap_px: float} */
    public function toArray(): array
    {
        return ['element' => $this->element, 'text' => $this->text, 'type_px' => round($this->typePx, 2), 'cap_px' => round($this->capPx, 2)];
    }
}
