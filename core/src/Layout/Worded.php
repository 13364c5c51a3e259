<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Text\FaceMetrics;

/** An element with words that viewers have to read. */
interface Worded extends Element
{
    /**
     * Its words as they need the most room, for the checks.
     *
     * @return list<Text> with the id of the element
     */
    public function words(FaceMetrics $faces): array;

    /** @return list<TextStyle> in which it is set */
    public function styles(): array;

    /** How many words somebody has to read in it. */
    public function wordCount(): int;
}
