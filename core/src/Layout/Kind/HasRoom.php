<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Text\FaceMetrics;

/** An element with room for so many words and no more. */
interface HasRoom extends Element
{
    /**
     * The fewest words (parts between white space) that have to be taken from the end of a text so that the rest fits, in the smallest type that is
     * allowed here; 0 where it fits, or nobody can measure it.
     */
    public function wordsTooMany(string $text, FaceMetrics $faces): int;
}
