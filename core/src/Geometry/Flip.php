<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

/** How a picture is mirrored: left for right, top for bottom, or both. */
enum Flip: string
{
    case None = 'none';
    case Across = 'across';
    case Down = 'down';
    case Both = 'both';

    public function isAcross(): bool
    {
        return $this === self::Across || $this === self::Both;
    }

    public function isDown(): bool
    {
        return $this === self::Down || $this === self::Both;
    }

    /** @return list<string> */
    public static function names(): array
    {
        return array_column(self::cases(), 'value');
    }
}
