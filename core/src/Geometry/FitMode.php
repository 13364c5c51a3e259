<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

/** The values of CSS Images 3, 5.5 `object-fit`. */
enum FitMode: string
{
    case Contain = 'contain';
    case Cover = 'cover';
    case Fill = 'fill';
    case None = 'none';
    case ScaleDown = 'scale-down';

    /** @return list<string> */
    public static function names(): array
    {
        return array_column(self::cases(), 'value');
    }
}
