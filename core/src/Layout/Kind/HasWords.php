<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Text\FaceMetrics;

/** An element with words that viewers have to read. */
interface HasWords extends Element
{
    /**
     * Its words as they need the most room, for the checks.
     *
     * @return list<Text\Text> with the id of the element
     */
    public function words(FaceMetrics $faces): array;

    /** @return list<TextStyle> in which it is set, in the smallest size that any part of it has */
    public function styles(): array;

    /** How many words somebody has to read in it. */
    public function wordCount(): int;

    /** What it is told by: its words, or its id where they change. */
    public function title(): string;
}
