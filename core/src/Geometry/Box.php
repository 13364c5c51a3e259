<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

/** A rectangle in fractions of a pixel: where something is drawn once it has been scaled. */
final readonly class Box
{
    public function __construct(public float $x, public float $y, public float $width, public float $height)
    {
    }

    public static function ofRect(Rect $rect): self
    {
        return new self($rect->x, $rect->y, $rect->width, $rect->height);
    }

    /** Scaled by the factors about the origin, then moved. */
    public function placed(float $scaleX, float $scaleY, float $dx, float $dy): self
    {
        return new self($this->x * $scaleX + $dx, $this->y * $scaleY + $dy, $this->width * $scaleX, $this->height * $scaleY);
    }

    /** The common part; without one, a box of no width or height. */
    public function clippedTo(self $clip): self
    {
        $x = max($this->x, $clip->x);
        $y = max($this->y, $clip->y);

        return new self(
            $x,
            $y,
            max(0.0, min($this->x + $this->width, $clip->x + $clip->width) - $x),
            max(0.0, min($this->y + $this->height, $clip->y + $clip->height) - $y),
        );
    }

    /** @return array{x: float|int, y: float|int, width: float|int, height: float|int} to 0.01 px, whole numbers as integers */
    public function toArray(): array
    {
        return [
            'x' => self::figure($this->x),
            'y' => self::figure($this->y),
            'width' => self::figure($this->width),
            'height' => self::figure($this->height),
        ];
    }

    /** To 0.01, and as an integer where it is one, so that 480.0 is written 480. */
    public static function figure(float $value): float|int
    {
        $rounded = round($value, 2);

        return $rounded === floor($rounded) ? (int) $rounded : $rounded;
    }
}
