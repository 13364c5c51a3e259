<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Layout\Kind\Describes;
use UpperPane\Core\Text\FaceMetrics;

/** What is worth knowing of each element of a layout, in one sentence with its figures. */
final readonly class Described
{
    /**
     * @param ?float $mmPerPx of the canvas on the display; null where none is known
     * @return array<string, string> by id of the element; elements of which nothing is to be said are left out
     */
    public static function of(Composed $layout, FaceMetrics $faces, ?float $mmPerPx): array
    {
        $told = [];
        foreach ($layout->visible()->elements as $element) {
            $sentence = $element instanceof Describes ? $element->described($faces, $mmPerPx) : null;
            if ($sentence !== null) {
                $told[$element->id()] = $sentence;
            }
        }

        return $told;
    }
}
