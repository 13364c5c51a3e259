<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Rect;

/** A filled rectangle, its corners rounded by so many px, or an ellipse. */
final readonly class Shape implements Element
{
    use ElementHead;

    public const KIND = 'shape';

    private function __construct(
        private string $id,
        private Rect $rect,
        public string $shape,
        public Colour $fill,
        public float $radiusPx,
    ) {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        self::head($node, 'shape', 'fill', 'radius_px');

        return new self(
            $node->field('id')->id(),
            Rect::fromNode($node->field('rect')),
            $node->optional('shape')?->oneOf('rectangle', 'ellipse') ?? 'rectangle',
            Colour::fromNode($node->field('fill')),
            $node->optional('radius_px')?->number(0.0, 100_000, 'px') ?? 0.0,
        );
    }

    public function kind(): string
    {
        return self::KIND;
    }

    public function covers(): bool
    {
        return $this->shape === 'rectangle' && $this->radiusPx === 0.0 && $this->fill->isOpaque();
    }
}
