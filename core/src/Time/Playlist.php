<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\UniqueIds;
use UpperPane\Core\Media\Media;

/** What a zone or a whole display plays, in order. */
final readonly class Playlist
{
    public const FORMAT = 'upper-pane/playlist@1';

    /** @param list<Item> $items */
    private function __construct(public array $items)
    {
    }

    /**
     * The list as it stands inside a zone, or as a document of its own.
     *
     * @throws DocumentRefused
     */
    public static function fromNode(Node $node): self
    {
        $node->object('format', 'id', 'name', 'items', 'interleave');
        if ($node->has('format')) {
            $node->format(self::FORMAT);
            $node->field('id');
            $node->field('name');
        }
        $node->optional('id')?->id();
        $node->optional('name')?->text();
        if ($interleave = $node->optional('interleave')) {
            throw $interleave->refused('kind.unbuilt', 'is not read yet; leave the field out.');
        }
        $ids = new UniqueIds();
        $items = [];
        foreach ($node->field('items')->items() as $item) {
            $items[] = Item::fromNode($item);
            $ids->take($item->field('id'));
        }

        return new self($items);
    }

    /** One picture or film alone. */
    public static function ofMedia(Media $media): self
    {
        return new self([Item::ofMedia($media)]);
    }

    /** @return list<Item> the items that play */
    public function enabled(): array
    {
        return array_values(array_filter($this->items, static fn (Item $item): bool => $item->enabled));
    }
}
