<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** How an item takes over from the one before. */
enum TransitionKind: string
{
    case Cut = 'cut';
    case Fade = 'fade';
    /** Comes in from a side and moves the one before out at the other. */
    case Push = 'push';
    /** Is uncovered from a side, over the one before. */
    case Wipe = 'wipe';
}
