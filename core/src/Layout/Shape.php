<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;

/** A filled rectangle, its corners rounded by so many px, or an ellipse; it may fill up as a zone goes on. */
final readonly class Shape implements Element
{
    use ElementHead;

    public const KIND = 'shape';

    private function __construct(
        private Head $head,
        public string $shape,
        public Colour $fill,
        public float $radiusPx,
        public ?Progress $progress,
    ) {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $head = Head::fromNode($node, 'shape', 'fill', 'radius_px', 'progress');

        return new self(
            $head,
            $node->optional('shape')?->oneOf('rectangle', 'ellipse') ?? 'rectangle',
            Colour::fromNode($node->field('fill')),
            $node->optional('radius_px')?->number(0.0, 100_000, 'px') ?? 0.0,
            ($progress = $node->optional('progress')) ? Progress::fromNode($progress) : null,
        );
    }

    public function kind(): string
    {
        return self::KIND;
    }

    public function covers(): bool
    {
        return $this->progress === null && $this->shape === 'rectangle' && $this->radiusPx === 0.0 && $this->fill->isOpaque();
    }
}
