<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Zone;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\ActRefused;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Composable;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\ElementHead;
use UpperPane\Core\Layout\Kind\HasItems;
use UpperPane\Core\Layout\Kind\Head;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Standby;

/** A rectangle of a layout that plays a playlist, as its document says it: the list itself or the id of one. */
final readonly class Zone implements WrittenElement, Composable, HasItems
{
    use ElementHead;

    public const KIND = 'zone';

    /**
     * @param ?Playlist $list null where it is another document
     * @param array<string, Layout> $layouts that stand in the list as a whole, by the id of their item
     * @param ?string $ref id of the playlist, where it is another document
     * @param ?string $follows id of the zone that sets the moments of this one
     * @param ?Colour $ground what is seen beside content that leaves bars
     * @param ?Standby $standby what plays whenever nothing of its list is due
     */
    private function __construct(
        private Head $head,
        public ?Playlist $list,
        public array $layouts,
        public ?string $ref,
        public ?string $follows,
        public ?Colour $ground,
        public ?Standby $standby,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'playlist' => Field::either(
                Field::object(Fields::of(['ref' => Field::id(Role::PlaylistId)->required()])),
                Field::object(Playlist::fields()),
            )->required(),
            'follows' => Field::id(Role::Element),
            'ground' => Field::colour()->saying('of the box, beside content that leaves bars'),
            'standby' => Standby::field()->saying('what plays whenever nothing of its list is due'),
        ]);
    }

    public static function begun(Rect $rect, Size $canvas): array
    {
        return ['playlist' => ['items' => []]];
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): static
    {
        $head = Head::fromNode($node, self::fields());
        $list = $node->field('playlist');
        $ref = $list->has('ref') ? $list->object('ref')->field('ref')->id() : null;
        $own = $ref === null ? Playlist::fromNode($list) : null;

        return new self(
            $head,
            $own,
            $own === null ? [] : self::layoutsIn($own),
            $ref,
            $node->optional('follows')?->id(),
            ($ground = $node->optional('ground')) ? Colour::fromNode($ground) : null,
            ($standby = $node->optional('standby')) ? Standby::fromNode($standby) : null,
        );
    }

    /** A zone in which nothing plays yet. */
    public static function empty(string $id, Rect $rect): self
    {
        return self::fromNode(Node::root(['id' => $id, 'kind' => self::KIND, 'rect' => $rect->toArray()] + self::begun($rect, $rect->size())));
    }

    /**
     * Those among elements that are zones.
     *
     * @param list<Element> $elements
     * @return array<string, self> by id, lowest first
     */
    public static function among(array $elements): array
    {
        $zones = [];
        foreach ($elements as $element) {
            if ($element instanceof self) {
                $zones[$element->id()] = $element;
            }
        }

        return $zones;
    }

    /**
     * That what elements say of one another is so: they refer to zones of the same layout, and a leader follows none itself.
     *
     * @param list<WrittenElement> $elements
     * @param \Closure(int): Node $node of the element at a place
     * @throws DocumentRefused
     */
    public static function checkReferences(array $elements, \Closure $node): void
    {
        $zones = self::among($elements);
        foreach ($elements as $place => $element) {
            foreach ($element::fields()->waysTo(Role::Element) as $way) {
                $named = array_reduce($way, static fn (?Node $at, string $name): ?Node => $at?->optional($name), $node($place));
                if ($named !== null && !isset($zones[$named->id()])) {
                    throw $named->refused(Reason::RefUnknown, sprintf('is "%s", which is no %szone of this layout.', $named->id(), $element instanceof self ? 'other ' : ''));
                }
            }
            if ($element instanceof self && $element->follows !== null) {
                $follows = $node($place)->field('follows');
                if ($element->follows === $element->id()) {
                    throw $follows->refused(Reason::RefUnknown, sprintf('is "%s", which is no other zone of this layout.', $element->follows));
                }
                if ($zones[$element->follows]->follows !== null) {
                    throw $follows->refused(Reason::RefCycle, sprintf('is "%s", which follows another zone itself; a leader follows none.', $element->follows));
                }
            }
        }
    }

    public function withItems(array $items, array $fields): static
    {
        $playlist = $this->head->given['playlist'] ?? null;
        $found = [];
        $changed = is_array($playlist) && $this->ref === null ? self::listWithItems($playlist, $items, $fields, $found) : [];
        $left = array_diff($items, $found);
        if ($left !== []) {
            throw ActRefused::because(Reason::RefUnknown, sprintf('"%s" has no item "%s" of its own.', $this->id(), $left[array_key_first($left)]), '/items');
        }

        return $this->changed(['playlist' => $changed]);
    }

    /**
     * @param array<array-key, mixed> $list of items, and of what stands between them
     * @param list<string> $items
     * @param array<string, mixed> $fields
     * @param list<string> $found those of the items that it has
     * @param-out list<string> $found
     * @return array<array-key, mixed>
     */
    private static function listWithItems(array $list, array $items, array $fields, array &$found): array
    {
        $changed = [];
        foreach (is_array($list['items'] ?? null) ? $list['items'] : [] as $item) {
            $id = is_array($item) ? $item['id'] ?? null : null;
            if (is_array($item) && is_string($id) && in_array($id, $items, true)) {
                $found[] = $id;
                $item = array_filter(array_replace($item, $fields), static fn (mixed $value): bool => $value !== null);
            }
            $changed[] = $item;
        }
        $between = $list['interleave'] ?? null;

        return array_replace($list, isset($list['items']) ? ['items' => $changed] : [], is_array($between) ? ['interleave' => self::listWithItems($between, $items, $fields, $found)] : []);
    }

    public function composed(Composer $composer, string $path): PlayingZone
    {
        return PlayingZone::of($this, $composer, $path);
    }

    public function covers(): bool
    {
        return true;
    }

    /**
     * The layouts that stand in a list as a whole.
     *
     * @return array<string, Layout> by the id of their item
     * @throws DocumentRefused
     */
    public static function layoutsIn(Playlist $list): array
    {
        $layouts = [];
        foreach ($list->all() as $item) {
            if ($item->layout !== null && !$item->layout->has('ref')) {
                $layouts[$item->id] = Layout::fromNode($item->layout);
            }
        }

        return $layouts;
    }
}
