<?php

declare(strict_types=1);

namespace UpperPane\Core\Media;

use UpperPane\Core\Geometry\Size;

/** Which rasters a player can be asked to draw. Common practice, no source: textures of 16,384 px and 100 Mpx decode everywhere. */
final readonly class Acceptable
{
    public const LONGEST_SIDE = 16_384;
    public const MOST_PIXELS = 100_000_000;

    /** The sentence that refuses this raster, or null where it is fine. */
    public static function refusal(Size $size): ?string
    {
        if (max($size->width, $size->height) > self::LONGEST_SIDE) {
            return sprintf('It is %s px; no side may be longer than %s px. Bring in a smaller version.', $size, number_format(self::LONGEST_SIDE));
        }
        if ($size->area() > self::MOST_PIXELS) {
            return sprintf('It has %.0f million pixels; %.0f million are the most. Bring in a smaller version.', $size->area() / 1e6, self::MOST_PIXELS / 1e6);
        }

        return null;
    }
}
