<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;

/** A connector through which a display's player takes a live picture in. */
final readonly class LiveInput
{
    private function __construct(public string $id, public string $name, public Size $raster)
    {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('id', 'name', 'raster');

        return new self($node->field('id')->id(), $node->field('name')->name(), Size::fromNode($node->field('raster')));
    }
}
