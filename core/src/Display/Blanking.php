<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

/** How much of each line and picture a timing spends on blanking, VESA CVT 1.2. */
enum Blanking: string
{
    case Normal = 'normal';
    case Reduced = 'reduced';
    case Reduced2 = 'reduced2';
}
