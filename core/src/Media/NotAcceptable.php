<?php

declare(strict_types=1);

namespace UpperPane\Core\Media;

use UpperPane\Core\UpperPaneError;

/** A file that cannot be played: what is wrong and what would be right, as the end of a sentence that begins with its name. */
final class NotAcceptable extends \RuntimeException implements UpperPaneError
{
}
