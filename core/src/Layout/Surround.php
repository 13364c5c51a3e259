<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Box;

/** What lies around letters: an outline of so many px outside their edges, or a plate that goes so many px beyond the words. */
final readonly class Surround
{
    private function __construct(public float $px, public Colour $color)
    {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('px', 'color');

        return new self($node->field('px')->number(0.0, 10_000, 'px'), Colour::fromNode($node->field('color')));
    }

    /** @return array{px: float|int, color: string} */
    public function toArray(float $scale = 1.0): array
    {
        return ['px' => Box::figure($this->px * $scale), 'color' => $this->color->hex];
    }
}
