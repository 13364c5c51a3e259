<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Text\FaceMetrics;

/** An element of which a designer likes to know more while she works on it, in one sentence with its figures. */
interface Describes extends Element
{
    /** @param ?float $mmPerPx of the canvas on the display; null where none is known */
    public function described(FaceMetrics $faces, ?float $mmPerPx): ?string;
}
