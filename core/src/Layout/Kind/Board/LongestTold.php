<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Layout\Kind\Text\Text;

/** Of one text of a pattern the value that needs the most room. */
final readonly class LongestTold
{
    /** @param int $row place of the row among the chosen ones, from 0 */
    public function __construct(public Text $text, public int $row)
    {
    }
}
