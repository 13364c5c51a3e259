<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Document\UniqueIds;
use UpperPane\Core\Media\Media;

/** What a zone or a whole display plays, in order. */
final readonly class Playlist
{
    public const FORMAT = 'upper-pane/playlist@1';

    /** @var list<Item> the items that play */
    private array $main;

    /** @var list<Item> the extras that play */
    private array $between;

    /**
     * @param list<Item> $items
     * @param list<Item> $extras what is put in between
     * @param int $every after how many items one of the extras comes
     * @param ?string $interleaved id of the playlist that the extras are from; null where they stand in this one
     * @param ?string $id of its document; null where it stands inside a zone without one
     * @param ?Standby $standby what plays where nothing is due, where it is handed over whole
     * @param array<string, mixed> $given as it was read
     */
    private function __construct(
        public array $items,
        public array $extras = [],
        public int $every = 1,
        public ?string $interleaved = null,
        public ?string $id = null,
        public ?string $name = null,
        public ?Standby $standby = null,
        private array $given = [],
    ) {
        [$this->main, $this->between] = [self::on($items), self::on($extras)];
    }

    /** Of a document of its own; inside a zone only the items are needed. */
    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;
        $items = Field::list(Field::object(Item::fields()));


        return $fields ??= Fields::of([
            'format' => Field::constant(self::FORMAT),
            'id' => Field::id(),
            'name' => Field::name(),
            'items' => $items->required(),
            'interleave' => Field::object(Fields::of([
                'every' => Field::int(1, 1000)->required()->saying('after how many items one is put in, in turn, counting on across rounds'),
                'items' => $items,
                'ref' => Field::id(Role::PlaylistId)->saying('another playlist, without an interleave of its own'),
            ])->where(['oneOf' => [['required' => ['items']], ['required' => ['ref']]]])->named('Interleave')),
            'standby' => Standby::field()->saying('what plays where nothing is due, where the list is handed over whole'),
        ]);
    }

    /** @return array<string, mixed> JSON Schema 2020-12 of a document of its own */
    public static function schema(): array
    {
        $schema = self::fields()->schema();
        assert(is_array($schema['properties']));

        return array_replace($schema, ['required' => ['format', 'id', 'name', 'items']]);
    }

    /**
     * The list as it stands inside a zone, or as a document of its own. Extras that another list has are not known yet (interleavedWith()).
     *
     * @throws DocumentRefused
     */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        if ($node->has('format')) {
            $node->format(self::FORMAT);
            $node->field('id');
            $node->field('name');
        }
        /** @var array<string, mixed> $given an object has names */
        $given = is_array($node->value) ? $node->value : [];
        [$id, $name] = [$node->optional('id')?->id(), $node->optional('name')?->name()];
        $standby = ($field = $node->optional('standby')) ? Standby::fromNode($field) : null;
        $ids = new UniqueIds();
        $items = self::itemsOf($node->field('items'), $ids);
        $interleave = $node->optional('interleave');
        if ($interleave === null) {
            return new self($items, id: $id, name: $name, standby: $standby, given: $given);
        }
        $interleave->object('every', 'items', 'ref');
        $every = $interleave->field('every')->int(1, 1000);
        $ref = $interleave->optional('ref');
        if ($ref !== null && $interleave->has('items')) {
            throw $ref->refused(Reason::FieldUnknown, 'stands beside items; extras are from another playlist, or stand here.');
        }
        $extras = $ref === null ? self::itemsOf($interleave->field('items'), $ids) : [];

        return new self($items, $extras, $every, $ref?->id(), $id, $name, $standby, $given);
    }

    /** The list with the extras that another one has, each under `id of the list/id of the item`, so that none is taken for one of these. */
    public function interleavedWith(self $other): self
    {
        $extras = array_map(fn (Item $item): Item => $item->named("$this->interleaved/$item->id"), $other->items);

        return new self($this->items, $extras, $this->every, $this->interleaved, $this->id, $this->name, $this->standby, $this->given);
    }

    /**
     * The list with the items that rows make, each in the place of the one that they are made of.
     *
     * @param array<string, RowItems> $rows by id of the item
     */
    public function rowByRow(array $rows): self
    {
        $made = static function (array $items) use ($rows): array {
            $all = [];
            foreach ($items as $item) {
                assert($item instanceof Item);
                array_push($all, ...(isset($rows[$item->id]) ? array_map($item->ofRow(...), array_keys($rows[$item->id]->rows)) : [$item]));
            }

            return $all;
        };

        return $rows === [] ? $this : new self($made($this->items), $made($this->extras), $this->every, $this->interleaved, $this->id, $this->name, $this->standby, $this->given);
    }

    /** @return array<string, mixed> as it was read */
    public function toArray(): array
    {
        return self::fields()->written($this->given);
    }

    /** One picture or film alone. */
    public static function ofMedia(Media $media): self
    {
        return new self([Item::ofMedia($media)], given: [
            'items' => [['id' => 'i1', 'media' => $media->toArray()] + ($media->isFilm() ? [] : ['lasts' => Lasts::Endless->value])],
        ]);
    }

    /** Whether marks of the house style stand in the place of media in it; what stands in layouts within it is another matter. */
    public function namesMarks(): bool
    {
        foreach ($this->all() as $item) {
            if ($item->media?->isNamed === true) {
                return true;
            }
        }

        return $this->standby?->media?->isNamed === true;
    }

    /** Whether extras are put in between. */
    public function isInterleaved(): bool
    {
        return isset($this->given['interleave']);
    }

    /** How many slots its cycle has until all begins again. */
    public function slots(): int
    {
        return Cycle::length($this->main, $this->between, $this->every);
    }

    /** @return list<Item> the items and the extras, also those that are off */
    public function all(): array
    {
        return [...$this->items, ...$this->extras];
    }

    /** @return list<Item> the items and the extras that play */
    public function enabled(): array
    {
        return [...$this->main, ...$this->between];
    }

    /** How many of those that play are items of the list itself, and no extras. */
    public function mains(): int
    {
        return count($this->main);
    }

    /**
     * The order in which they play until all begins again.
     *
     * @param ?list<int> $due those that are due, where not all are
     * @return list<int> indices into the enabled ones
     */
    public function cycle(?array $due = null): array
    {
        if ($due === null) {
            return Cycle::of($this->main, $this->between, $this->every);
        }
        $mains = $this->mains();
        [$items, $extras] = [[], []];
        foreach ($due as $index) {
            if ($index < $mains) {
                $items[] = $this->main[$index];
            } else {
                $extras[] = $this->between[$index - $mains];
            }
        }
        $cycle = Cycle::of($items, $extras, $this->every);

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
     * Items as they stand in a list.
     *
     * @param UniqueIds $ids those that are taken
     * @return list<Item>
     * @throws DocumentRefused
     */
    public static function itemsOf(Node $node, UniqueIds $ids = new UniqueIds()): array
    {
        $items = [];
        foreach ($node->items() as $item) {
            $items[] = Item::fromNode($item);
            $ids->take($item->field('id'));
        }

        return $items;
    }
}
