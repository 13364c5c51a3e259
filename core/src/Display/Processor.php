<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;

/** A wall processor: one output feeds it, and it divides that picture among all panels. */
final readonly class Processor
{
    /** @param ?string $player that feeds it; null where the display has none */
    private function __construct(public ?string $player, public int $output, public Size $raster)
    {
    }

    /**
     * @param Size $canvas of the display, which is its raster unless it says otherwise
     * @throws DocumentRefused
     */
    public static function fromNode(Node $node, Size $canvas): self
    {
        $node->object('player', 'output', 'raster');

        return new self($node->field('player')->id(), $node->field('output')->int(1, 64), ($raster = $node->optional('raster')) ? Size::fromNode($raster) : $canvas);
    }

    /** What LED cabinets hang behind: one output of the raster of the sign. */
    public static function ofCanvas(?string $player, Size $canvas): self
    {
        return new self($player, 1, $canvas);
    }

    /** @return array{width: float, height: float} px of its raster for one px of the canvas */
    public function factor(Size $canvas): array
    {
        return ['width' => $this->raster->width / $canvas->width, 'height' => $this->raster->height / $canvas->height];
    }

    /** @return float share of the canvas's px that its raster has no place for, 0 to 1 */
    public function lost(Size $canvas): float
    {
        $factor = $this->factor($canvas);

        return 1 - min(1.0, $factor['width']) * min(1.0, $factor['height']);
    }
}
