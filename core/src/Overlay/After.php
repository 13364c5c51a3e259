<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;

/** At the end of every n-th item of a zone, for so long. */
final readonly class After
{
    /**
     * @param ?string $zone id; null for the zone that is as large as the canvas
     * @param string $path JSON Pointer to where it stands
     */
    private function __construct(public int $every, public ?string $zone, public int $lastsMs, public string $path)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of(['every' => Field::int(1, 100_000)->required(), 'zone' => Field::id()->saying('without it the zone that is as large as the canvas')]);
    }

    /** @throws DocumentRefused */
    public static function fromNodes(Node $node, Node $lasts): self
    {
        $node->object(...self::fields()->names());

        return new self($node->field('every')->int(1, 100_000), $node->optional('zone')?->id(), $lasts->int(1, 86_400_000, 'ms'), $node->path);
    }
}
