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

    /** Letters of a word, the space behind it included (common practice, no source). */
    public const WORD = 6;

    /** So many letters more are not counted any further. */
    public const MANY_LETTERS = 999;

    /**
     * For about how many letters more there is room behind a text, in the smallest type that is allowed here: as many as fit of an n and an n and so on,
     * in words of five (common practice, no source). 0 where the text does not fit, MANY_LETTERS where there are as many or more; null where nobody can
     * measure it.
     */
    public function lettersLeft(string $text, FaceMetrics $faces): ?int;
}
