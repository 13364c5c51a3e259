<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;

/** The frame around a panel's active area, in mm on each side of the panel unturned. */
final readonly class Bezel
{
    private function __construct(public float $left, public float $top, public float $right, public float $bottom)
    {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('left', 'top', 'right', 'bottom');
        $side = static fn (string $name): float => $node->field($name)->number(0.0, 1000.0, 'mm');

        return new self($side('left'), $side('top'), $side('right'), $side('bottom'));
    }

    /** The same frame on the sides where the viewer sees it once the panel is turned. */
    public function turned(Rotation $rotation): self
    {
        return match ($rotation) {
            Rotation::None => $this,
            Rotation::Quarter => new self($this->bottom, $this->left, $this->top, $this->right),
            Rotation::Half => new self($this->right, $this->bottom, $this->left, $this->top),
            Rotation::ThreeQuarters => new self($this->top, $this->right, $this->bottom, $this->left),
        };
    }

    /** @return array{left: float, top: float, right: float, bottom: float} in mm */
    public function toArray(): array
    {
        return ['left' => $this->left, 'top' => $this->top, 'right' => $this->right, 'bottom' => $this->bottom];
    }
}
