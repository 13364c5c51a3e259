<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Layout\Kind\HasWords;

/** An element that says one text, which may be a message, and may stand there in several languages (TellsMessage). */
interface SaysText extends TakesTurns, TellsRows, HasWords
{
}
