<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Layout\Kind\WrittenElement;

/** The pattern of a board as it is told over one row. */
final readonly class ToldRow
{
    /**
     * @param list<WrittenElement> $elements
     * @param list<string> $missing arguments that were told by their fallback
     * @param int $words that somebody has to read in it
     */
    public function __construct(public array $elements, public array $missing, public int $words)
    {
    }
}
