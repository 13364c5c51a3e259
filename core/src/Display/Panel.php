<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Size;

/** One physical screen: native raster, active area and bezel as the panel stands unturned, how it is turned, and where it hangs. */
final readonly class Panel
{
    /**
     * @param ?int $column of the grid, from the left; null where it hangs freely
     * @param ?int $row of the grid, from the top; null where it hangs freely
     * @param ?array{x: float, y: float} $origin mm, top left of its active area as hung; null on a grid
     * @param ?string $player that feeds it; null where the survey does not say
     * @param ?int $output of that player; null where the survey does not say
     */
    private function __construct(
        public string $id,
        public ?int $column,
        public ?int $row,
        public ?array $origin,
        public Size $native,
        public Millimetres $active,
        public Bezel $bezel,
        public Rotation $rotation,
        public ?string $player,
        public ?int $output,
    ) {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('id', 'column', 'row', 'origin_mm', 'native', 'active_mm', 'bezel_mm', 'rotation', 'output', 'player');
        $origin = $node->optional('origin_mm')?->object('x', 'y');
        foreach ($origin === null ? [] : ['column', 'row'] as $name) {
            if ($field = $node->optional($name)) {
                throw $field->refused(Reason::FieldUnknown, 'stands beside origin_mm; a panel hangs on the grid or freely.');
            }
        }
        $turn = $node->field('rotation');
        $rotation = Rotation::tryFrom($turn->int())
            ?? throw $turn->refused(Reason::ValueUnknown, sprintf('is %d; one of 0, 90, 180, 270 is right.', $turn->int()));

        return new self(
            $node->field('id')->id(),
            $origin === null ? $node->field('column')->int(0, 999) : null,
            $origin === null ? $node->field('row')->int(0, 999) : null,
            $origin === null ? null : ['x' => $origin->field('x')->number(-1e6, 1e6, 'mm'), 'y' => $origin->field('y')->number(-1e6, 1e6, 'mm')],
            Size::fromNode($node->field('native')),
            Millimetres::fromNode($node->field('active_mm')),
            Bezel::fromNode($node->field('bezel_mm')),
            $rotation,
            $node->optional('player')?->id(),
            $node->optional('output')?->int(1, 64),
        );
    }

    /** The raster as it stands upright before the viewer, px. */
    public function raster(): Size
    {
        return $this->rotation->raster($this->native);
    }

    /** The active area as it hangs. */
    public function hung(): Millimetres
    {
        return $this->rotation->swapsSides() ? $this->active->swapped() : $this->active;
    }

    /** The frame as it hangs. */
    public function frame(): Bezel
    {
        return $this->bezel->turned($this->rotation);
    }

    /** Px to one mm, across, as it hangs. */
    public function pxPerMm(): float
    {
        return $this->raster()->width / $this->hung()->width;
    }
}
