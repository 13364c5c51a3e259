<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

/** A part that is cut out of a picture for a box: how much is left out, and whether it is sharp there. */
final readonly class Cut
{
    /** Drawn at a larger scale than this it looks soft; what rounding makes is none. */
    private const SHARP = 1.001;

    /** @param float $lost share of the area of the picture that is left out, 0 to 1; $scale px of the box for one of the picture */
    private function __construct(public float $lost, public float $scale)
    {
    }

    /** @param Rect $part of the picture, in its px */
    public static function of(Size $picture, Rect $part, Size $box): self
    {
        $fit = Fit::of($part->size(), $box, FitMode::Cover);

        return new self(1 - $part->area() / $picture->area(), max($fit->scaleX, $fit->scaleY));
    }

    public function isSoft(): bool
    {
        return $this->scale > self::SHARP;
    }

    /** @return array{lost: float, scale: float, soft: bool} */
    public function toArray(): array
    {
        return ['lost' => round($this->lost, 4), 'scale' => round($this->scale, 4), 'soft' => $this->isSoft()];
    }
}
