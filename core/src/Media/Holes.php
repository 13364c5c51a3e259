<?php

declare(strict_types=1);

namespace UpperPane\Core\Media;

use UpperPane\Core\Geometry\Rect;

/** Whoever can look through pictures. */
interface Holes
{
    /** The largest rectangle of a picture that is wholly transparent, in its own px (Geometry\Hole); null where there is none, or nobody knows. */
    public function largest(Media $picture): ?Rect;
}
