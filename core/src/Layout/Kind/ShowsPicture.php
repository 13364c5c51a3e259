<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

/** An element that is one picture. */
interface ShowsPicture extends HasMedia, FitsContent
{
}
