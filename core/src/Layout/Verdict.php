<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

/** How a canvas sits on a raster. */
enum Verdict: string
{
    case Exact = 'exact';
    case Scaled = 'scaled';
    case Padded = 'padded';
    case Crossed = 'crossed';
}
