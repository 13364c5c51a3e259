<?php

declare(strict_types=1);

namespace UpperPane\Core\Media;

/** Who has looked at the pictures. The core asks for the colours of a medium; who decodes files is somebody else's matter. */
interface Swatches
{
    /** A small picture of the medium, of a film one of its frames; null where nobody has looked at it. */
    public function of(Media $media): ?Swatch;
}
