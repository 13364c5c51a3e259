<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** How an item takes over from the one before. */
enum TransitionKind: string
{
    case Cut = 'cut';
    case Fade = 'fade';
}
