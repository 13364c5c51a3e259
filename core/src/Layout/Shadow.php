<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Box;

/** The shadow of letters: moved by so many px, blurred over so many (CSS Text Decoration 3, text-shadow). */
final readonly class Shadow
{
    private function __construct(public float $xPx, public float $yPx, public float $blurPx, public Colour $color)
    {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('x_px', 'y_px', 'blur_px', 'color');

        return new self(
            $node->optional('x_px')?->number(-10_000, 10_000, 'px') ?? 0.0,
            $node->optional('y_px')?->number(-10_000, 10_000, 'px') ?? 0.0,
            $node->optional('blur_px')?->number(0.0, 10_000, 'px') ?? 0.0,
            Colour::fromNode($node->field('color')),
        );
    }

    /** @return array{x_px: float|int, y_px: float|int, blur_px: float|int, color: string} */
    public function toArray(float $scale = 1.0): array
    {
        return [
            'x_px' => Box::figure($this->xPx * $scale),
            'y_px' => Box::figure($this->yPx * $scale),
            'blur_px' => Box::figure($this->blurPx * $scale),
            'color' => $this->color->hex,
        ];
    }
}
