<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Fit;

/** Where a canvas lies on the outermost one: its scale and shift, what clips it, and the ids of the way to it. */
final readonly class Placing
{
    private function __construct(
        private float $scaleX,
        private float $scaleY,
        private float $dx,
        private float $dy,
        private ?Box $clip,
        private string $way,
    ) {
    }

    public static function outermost(): self
    {
        return new self(1.0, 1.0, 0.0, 0.0, null, '');
    }

    /** The placing of a canvas that is fitted into a zone of this one. */
    public function inside(string $element, Box $zone, Fit $fit): self
    {
        return new self(
            $this->scaleX * $fit->scaleX,
            $this->scaleY * $fit->scaleY,
            ($zone->x + $fit->drawn->x) * $this->scaleX + $this->dx,
            ($zone->y + $fit->drawn->y) * $this->scaleY + $this->dy,
            $this->rect($zone),
            $this->element($element) . '/',
        );
    }

    /** The placing of a canvas that is fitted onto this whole one, whose elements keep their names. */
    public function onto(Box $whole, Fit $fit): self
    {
        return new self(
            $this->scaleX * $fit->scaleX,
            $this->scaleY * $fit->scaleY,
            $fit->drawn->x * $this->scaleX + $this->dx,
            $fit->drawn->y * $this->scaleY + $this->dy,
            $this->rect($whole),
            $this->way,
        );
    }

    /** The placing of a canvas that is fitted into a part of this one, whose elements keep their names. */
    public function into(Box $part, Fit $fit): self
    {
        return new self(
            $this->scaleX * $fit->scaleX,
            $this->scaleY * $fit->scaleY,
            ($part->x + $fit->drawn->x) * $this->scaleX + $this->dx,
            ($part->y + $fit->drawn->y) * $this->scaleY + $this->dy,
            $this->rect($part),
            $this->way,
        );
    }

    /** The placing of a canvas as large as a zone of this one, whose elements are called as that zone is. */
    public function in(Box $zone): self
    {
        return new self($this->scaleX, $this->scaleY, $zone->x * $this->scaleX + $this->dx, $zone->y * $this->scaleY + $this->dy, $this->rect($zone), $this->way);
    }

    /** A box of this canvas as it lies on the outermost one. */
    public function box(Box $box): Box
    {
        return $box->placed($this->scaleX, $this->scaleY, $this->dx, $this->dy);
    }

    /** The same, cut to what can be seen of this canvas. */
    public function rect(Box $box): Box
    {
        $placed = $this->box($box);

        return $this->clip === null ? $placed : $placed->clippedTo($this->clip);
    }

    public function element(string $id): string
    {
        return $this->way . $id;
    }

    /** By how much type grows: the smaller of the two scales. */
    public function typeScale(): float
    {
        return min($this->scaleX, $this->scaleY);
    }
}
