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

    /**
     * @param list<Item> $items
     * @param list<Item> $extras what is put in between
     * @param int $every after how many items one of the extras comes
     * @param ?string $interleaved id of the playlist that the extras are from; null where they stand in this one
     * @param ?string $id of its document; null where it stands inside a zone without one
     */
    private function __construct(public array $items, public array $extras = [], public int $every = 1, public ?string $interleaved = null, public ?string $id = null)
    {
    }

    /**
     * The list as it stands inside a zone, or as a document of its own.
     *
     * @param ?\Closure(Node): self $other the playlist that a ref of an interleave means
     * @throws DocumentRefused
     */
    public static function fromNode(Node $node, ?\Closure $other = null): self
    {
        $node->object('format', 'id', 'name', 'items', 'interleave');
        if ($node->has('format')) {
            $node->format(self::FORMAT);
            $node->field('id');
            $node->field('name');
        }
        $id = $node->optional('id')?->id();
        $node->optional('name')?->text();
        $ids = new UniqueIds();
        $items = self::itemsOf($node->field('items'), $ids);
        $interleave = $node->optional('interleave');
        if ($interleave === null) {
            return self::whole(new self($items, id: $id), $node->field('items'));
        }
        $interleave->object('every', 'items', 'ref');
        $every = $interleave->field('every')->int(1, 1000);
        $ref = $interleave->optional('ref');
        if ($ref === null) {
            return self::whole(new self($items, self::itemsOf($interleave->field('items'), $ids), $every, id: $id), $interleave);
        }
        if ($interleave->has('items')) {
            throw $ref->refused('field.unknown', 'stands beside items; extras are from another playlist, or stand here.');
        }
        $from = $other === null ? throw $ref->refused('ref.unknown', sprintf('is "%s", and no playlist of that id is given.', $ref->id())) : $other($ref);
        // Under its own ids one of them could be taken for one of these.
        $extras = array_map(static fn (Item $item): Item => $item->named($ref->id() . '/' . $item->id), $from->items);

        return self::whole(new self($items, $extras, $every, $ref->id(), $id), $interleave);
    }

    /** One picture or film alone. */
    public static function ofMedia(Media $media): self
    {
        return new self([Item::ofMedia($media)]);
    }

    /** @return list<Item> the items and the extras, also those that are off */
    public function all(): array
    {
        return [...$this->items, ...$this->extras];
    }

    /** @return list<Item> the items and the extras that play */
    public function enabled(): array
    {
        return [...self::on($this->items), ...self::on($this->extras)];
    }

    /**
     * The order in which they play until all begins again.
     *
     * @param ?list<int> $due those that are due, where not all are
     * @return list<int> indices into the enabled ones
     */
    public function cycle(?array $due = null): array
    {
        [$main, $extras] = [self::on($this->items), self::on($this->extras)];
        if ($due === null) {
            return Cycle::of($main, $extras, $this->every);
        }
        $all = [...$main, ...$extras];
        $these = array_map(static fn (int $index): Item => $all[$index], $due);
        $count = count(array_filter($due, static fn (int $index): bool => $index < count($main)));
        $cycle = Cycle::of(array_slice($these, 0, $count), array_slice($these, $count), $this->every);

        return array_map(static fn (int $index): int => $due[$index], $cycle);
    }

    /**
     * @param list<Item> $items
     * @return list<Item>
     */
    private static function on(array $items): array
    {
        return array_values(array_filter($items, static fn (Item $item): bool => $item->enabled));
    }

    /**
     * @return list<Item>
     * @throws DocumentRefused
     */
    private static function itemsOf(Node $node, UniqueIds $ids): array
    {
        $items = [];
        foreach ($node->items() as $item) {
            $items[] = Item::fromNode($item);
            $ids->take($item->field('id'));
        }

        return $items;
    }

    /** @throws DocumentRefused where the cycle is too long to be written out */
    private static function whole(self $playlist, Node $node): self
    {
        $slots = Cycle::length(self::on($playlist->items), self::on($playlist->extras), $playlist->every);
        if ($slots > Cycle::MOST) {
            throw $node->refused('value.range', sprintf(
                'makes a cycle of %s before all begins again; at most %s are played. Other counts or weights meet sooner.',
                $slots === PHP_INT_MAX ? 'more items than can be counted' : number_format($slots) . ' items',
                number_format(Cycle::MOST),
            ));
        }

        return $playlist;
    }
}
