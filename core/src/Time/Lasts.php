<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** Where an item's duration comes from when it is not stated. */
enum Lasts: string
{
    /** As long as the film, or the nested layout's loop. */
    case Own = 'own';
    /** Until the loop of the nested layout's leader ends; in a following zone, until the leader changes. */
    case Leader = 'leader';
    /** Never ends. */
    case Endless = 'endless';
}
