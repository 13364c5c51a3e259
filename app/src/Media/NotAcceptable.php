<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

/** A file that is no picture or film that can be played, in a sentence for whoever brought it in. */
final class NotAcceptable extends \RuntimeException
{
}
