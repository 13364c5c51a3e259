<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

/** From when the zones of a layout count. */
enum Begins
{
    /** From an instant that is the same for all time. */
    case Anchor;
    /** With the booking that plays the layout: what is due goes on changing while it lasts. */
    case Booking;
    /** With the item of another zone: what is due at its beginning stays until it ends. */
    case Item;
}
