<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Layout\Check\Subject;
use UpperPane\Core\Layout\Kind\Text\Text;

/** An element whose own checks tell of its words what the checks of texts would tell as well. */
interface TellsItself extends Element
{
    /** @param string $code of a check of texts */
    public function tellsItself(string $code, Text $text, Subject $subject): bool;
}
