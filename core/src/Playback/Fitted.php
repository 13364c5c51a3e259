<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;

/** Where one canvas lies on another, outermost one. */
final readonly class Fitted
{
    /** What is worked out differs from exact figures by less. */
    private const NOTHING_PX = 1e-6;

    /**
     * @param Size $canvas the outermost one
     * @param Placing $placing of what lies there
     * @param Size $source the canvas that lies there
     * @param bool $onBlack whether all of the other canvas beside it is black
     */
    public function __construct(public Size $canvas, public Placing $placing, private Size $source, private bool $onBlack = true)
    {
    }

    /** Fitted into a part of it. */
    public static function into(Size $canvas, Rect $part, Fit $fit): self
    {
        return new self($canvas, Placing::outermost()->into(Box::ofRect($part), $fit), $fit->source);
    }

    /** Whether each of its px is one of the other, where that lies. */
    public function isWhole(): bool
    {
        return $this->onBlack && $this->source->equals($this->canvas) && $this->drawn() == Box::ofRect(Rect::whole($this->canvas));
    }

    /** Whether nothing of the other canvas is left beside it. */
    public function covers(): bool
    {
        $drawn = $this->drawn();

        return $this->onBlack && max(
            $drawn->x,
            $drawn->y,
            $this->canvas->width - $drawn->x - $drawn->width,
            $this->canvas->height - $drawn->y - $drawn->height,
        ) < self::NOTHING_PX;
    }

    /** Its colour, below all that it draws; null where that is seen by itself. */
    public function ground(string $element, Colour $colour): ?Part
    {
        return $this->covers() ? null : $this->plate($element, $colour);
    }

    /** The same, also where it covers all of it. */
    public function plate(string $element, Colour $colour): ?Part
    {
        $isSeen = $this->onBlack && $colour->hex === Colour::black()->hex;

        return $isSeen ? null : new Part($element, 'background', null, null, $this->placing->rect(Box::ofRect(Rect::whole($this->source))), $this->drawn(), ['fill' => $colour->hex]);
    }

    private function drawn(): Box
    {
        return $this->placing->box(Box::ofRect(Rect::whole($this->source)));
    }
}
