<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;

/** A physical width and height in mm, both above 0. */
final readonly class Millimetres
{
    private function __construct(public float $width, public float $height)
    {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('width', 'height');

        return new self($node->field('width')->positive('mm'), $node->field('height')->positive('mm'));
    }

    public function swapped(): self
    {
        return new self($this->height, $this->width);
    }

    /** @return array{width: float, height: float} */
    public function toArray(): array
    {
        return ['width' => $this->width, 'height' => $this->height];
    }
}
