<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** A media that is to be shown, and of which no file is there. */
final class MediaMissing extends Refused
{
}
