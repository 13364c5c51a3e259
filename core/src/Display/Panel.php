<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;

/** One physical screen: native raster, active area and bezel as the panel stands unturned, and how it is turned. */
final readonly class Panel
{
    private function __construct(
        public string $id,
        public Size $native,
        public Millimetres $active,
        public Bezel $bezel,
        public Rotation $rotation,
    ) {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('id', 'column', 'row', 'origin_mm', 'native', 'active_mm', 'bezel_mm', 'rotation', 'output', 'player');
        if ($origin = $node->optional('origin_mm')) {
            $origin->object('x', 'y');
            $origin->field('x')->number(unit: 'mm');
            $origin->field('y')->number(unit: 'mm');
        } else {
            $node->field('column')->int(0, 999);
            $node->field('row')->int(0, 999);
        }
        $node->optional('output')?->int(1, 64);
        $node->optional('player')?->id();
        $turn = $node->field('rotation');
        $rotation = Rotation::tryFrom($turn->int())
            ?? throw $turn->refused('value.unknown', sprintf('is %d; one of 0, 90, 180, 270 is right.', $turn->int()));

        return new self(
            $node->field('id')->id(),
            Size::fromNode($node->field('native')),
            Millimetres::fromNode($node->field('active_mm')),
            Bezel::fromNode($node->field('bezel_mm')),
            $rotation,
        );
    }
}
