<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

/** In which order what happens at one instant is answered; the linger of a state ends before all of them. */
enum Rank: int
{
    case Time = 0;
    case Presence = 1;
    case Value = 2;
    case Others = 3;
}
