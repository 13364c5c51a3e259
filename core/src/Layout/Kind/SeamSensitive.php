<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

/** An element that is lost where the seam of a wall goes through it. What runs crosses seams as it runs. */
interface SeamSensitive extends Element
{
}
