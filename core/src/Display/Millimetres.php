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

    /** @throws DocumentRefused unless both are above 0 */
    public static function of(float $width, float $height): self
    {
        return self::fromNode(Node::root(['width' => $width, 'height' => $height]));
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
