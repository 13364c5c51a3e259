<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Geometry\Size;

/** How a panel is turned, in degrees clockwise as the viewer sees it. */
enum Rotation: int
{
    case None = 0;
    case Quarter = 90;
    case Half = 180;
    case ThreeQuarters = 270;

    /** The raster that stands upright on a panel of this native raster. */
    public function raster(Size $native): Size
    {
        return $this->swapsSides() ? $native->swapped() : $native;
    }

    /** Whether what is wide becomes high. */
    public function swapsSides(): bool
    {
        return $this === self::Quarter || $this === self::ThreeQuarters;
    }
}
