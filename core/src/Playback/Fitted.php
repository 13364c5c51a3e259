<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;

/** Where one canvas lies on another: fitted into a part of it. */
final readonly class Fitted
{
    public function __construct(public Size $canvas, private Rect $part, private Fit $fit)
    {
    }

    /** Whether each of its px is one of the other, where that lies. */
    public function isWhole(): bool
    {
        return $this->part->equals(Rect::whole($this->canvas)) && $this->fit->source->equals($this->canvas);
    }

    /** Whether nothing of the other canvas is left beside it. */
    public function covers(): bool
    {
        return $this->part->equals(Rect::whole($this->canvas)) && $this->fit->empty() === 0.0;
    }

    public function placing(): Placing
    {
        return Placing::outermost()->into(Box::ofRect($this->part), $this->fit);
    }

    /** Its colour, below all that it draws. */
    public function ground(string $element, Colour $colour): Part
    {
        $drawn = $this->fit->drawn->placed(1.0, 1.0, $this->part->x, $this->part->y);

        return new Part($element, 'background', null, null, $drawn->clippedTo(Box::ofRect($this->part)), $drawn, ['fill' => $colour->hex]);
    }
}
