<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;

/** A canvas, and what strips that squeeze leave of it. All shares are of the canvas; edges count from what is left. */
final readonly class Room
{
    /** Figures that are worked out differ from exact ones by less. */
    private const DIGITS = 6;

    private function __construct(public Size $canvas, public Rect $rest)
    {
    }

    public static function whole(Size $canvas): self
    {
        return new self($canvas, Rect::whole($canvas));
    }

    public function leaving(Rect $rest): self
    {
        return new self($this->canvas, $rest);
    }

    public function shorter(): int
    {
        return min($this->canvas->width, $this->canvas->height);
    }

    /** Whole px, half up, of an exact figure. */
    public static function px(float $exact): int
    {
        return (int) floor(round($exact, self::DIGITS) + 0.5);
    }

    /**
     * Where something of a size lies at a place, so far from the edges; what is centred has its odd px to the right or bottom.
     *
     * @param 'top'|'middle'|'bottom' $high
     * @param 'left'|'middle'|'right' $along
     */
    public function at(string $high, string $along, int $width, int $height, int $away): Rect
    {
        $rest = $this->rest;

        return Rect::at(
            match ($along) {
                'left' => $rest->x + $away,
                'right' => $rest->right() - $away - $width,
                default => $rest->x + (int) floor(($rest->width - $width) / 2),
            },
            match ($high) {
                'top' => $rest->y + $away,
                'bottom' => $rest->bottom() - $away - $height,
                default => $rest->y + (int) floor(($rest->height - $height) / 2),
            },
            $width,
            $height,
        );
    }
}
