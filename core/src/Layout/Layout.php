<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\ActRefused;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Document\UniqueIds;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Division\Recipe;
use UpperPane\Core\Layout\Kind\HasItems;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Kind\Zone\Zone;
use UpperPane\Core\Layout\Style\StyleNames;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Layout\Template\Slot;
use UpperPane\Core\Layout\Template\Slots;
use UpperPane\Core\Layout\Type\TextStyle;

/**
 * A composition on a fixed canvas as a document says it: its elements, the first lowest. What it refers to is named, not known (Composer).
 *
 * It is written back as it was read; acts on it give a new one.
 */
final readonly class Layout
{
    public const FORMAT = 'upper-pane/layout@1';

    /** Elements that are read; how many are drawn is bounded by Budget. */
    public const MOST_ELEMENTS = 10_000;

    /**
     * @param list<WrittenElement> $elements
     * @param array<string, Variant> $variants the same content on other canvases, by id
     * @param array<string, mixed> $given as it was read
     * @param list<Slot> $slots what is left open in it; none where it is no template
     */
    private function __construct(
        public string $id,
        public string $name,
        public Size $canvas,
        public Colour $background,
        public array $elements,
        public ?Recipe $recipe,
        public array $variants,
        public Guides $guides,
        private array $given,
        public array $slots = [],
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'format' => Field::constant(self::FORMAT)->required(),
            'id' => Field::id()->required(),
            'name' => Field::name()->required(),
            'canvas' => Field::object(Size::fields())->required(),
            'background' => Field::object(Fields::of(['color' => Field::colour()->required()])),
            'recipe' => Field::object(Recipe::fields()),
            'elements' => Field::list(Field::oneOf())->required(),
            'variants' => Field::list(Field::object(Variant::fields()), Variant::MOST),
            'slots' => Slots::field(),
        ])->and(Guides::fields()->all());
    }

    /**
     * @param array<mixed> $document in the format `upper-pane/layout@1`
     * @throws DocumentRefused
     */
    public static function fromArray(array $document): self
    {
        return self::fromNode(Node::root($document));
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        $node->format(self::FORMAT);
        $id = $node->field('id')->id();
        $recipe = $node->optional('recipe');
        $background = $node->optional('background')?->object('color')->field('color');
        $canvas = Size::fromNode($node->field('canvas'));
        $ids = new UniqueIds();
        [$elements, $known] = [[], []];
        $nodes = $node->field('elements')->items(self::MOST_ELEMENTS);
        foreach ($nodes as $element) {
            $known[$ids->take($element->field('id'))] = true;
            $elements[] = Kinds::read($element);
        }
        Zone::checkReferences($elements, static fn (int $place): Node => $nodes[$place]);
        /** @var array<string, mixed> $given an object has names */
        $given = is_array($node->value) ? $node->value : [];
        $layout = new self(
            $id,
            $node->field('name')->name(),
            $canvas,
            $background === null ? Colour::black() : Colour::fromNode($background),
            $elements,
            $recipe === null ? null : Recipe::fromNode($recipe),
            [],
            Guides::fromNode($node),
            $given,
            Slots::of($node->optional('slots'), $elements),
        );

        return $layout->withVariants(self::variantsOf($node, $known));
    }

    /** @return array<string, mixed> the document as it was read */
    public function toArray(): array
    {
        $written = self::fields()->written(array_diff_key($this->given, ['elements' => 1, 'variants' => 1]));
        $written['elements'] = array_map(static fn (WrittenElement $element): array => $element->toArray(), $this->elements);
        if (isset($this->given['variants'])) {
            $written['variants'] = array_map(static fn (Variant $variant): array => $variant->toArray(), array_values($this->variants));
        }

        return array_replace(array_intersect_key($this->given, $written), $written);
    }

    /** @return array<string, mixed> JSON Schema 2020-12 of the format */
    public static function schema(): array
    {
        $schema = self::fields()->schema();
        assert(is_array($schema['properties']));
        $schema['properties']['elements'] = ['type' => 'array', 'items' => ['oneOf' => Kinds::schemas()]];

        return $schema;
    }

    public function element(string $id): ?WrittenElement
    {
        foreach ($this->elements as $element) {
            if ($element->id() === $id) {
                return $element;
            }
        }

        return null;
    }

    // --- acts: each gives a new layout that has been read again ---------------------------------

    /**
     * The same with other fields.
     *
     * @param array<string, mixed> $fields null takes a field away
     * @throws DocumentRefused
     */
    public function with(array $fields): self
    {
        return self::fromArray(array_filter(array_replace($this->toArray(), $fields), static fn (mixed $value): bool => $value !== null));
    }

    /**
     * The same with these elements in place of its own. What is no more is no more in any variant, and nothing refers to it.
     *
     * @param list<WrittenElement> $elements
     * @throws DocumentRefused
     */
    public function withElements(array $elements): self
    {
        $ids = array_map(static fn (WrittenElement $element): string => $element->id(), $elements);
        $gone = array_diff($this->ids(), $ids) !== [];

        return $this->with([
            'elements' => array_map(static fn (WrittenElement $element): array => ($gone ? $element->withoutRefsBeyond(...$ids) : $element)->toArray(), $elements),
            'variants' => $this->variants === [] ? null : array_map(static fn (Variant $variant): array => $variant->among(...$ids)->toArray(), array_values($this->variants)),
        ] + ($gone ? $this->slotsAmong($ids) : []));
    }

    /**
     * What is left open, where only these elements are there.
     *
     * @param list<string> $ids
     * @return array{slots?: ?list<mixed>}
     */
    private function slotsAmong(array $ids): array
    {
        $slots = is_array($this->given['slots'] ?? null) ? Slots::among($this->given['slots'], $ids) : [];

        return $this->slots === [] ? [] : ['slots' => $slots === [] ? null : $slots];
    }

    /**
     * With what a cure says done to it. What the cure does not touch stays the same value.
     *
     * @throws Refused where it cannot be done here
     */
    public function cured(Fix $cure): self
    {
        $changed = [];
        foreach (array_unique([...array_map(strval(...), array_keys($cure->rects)), ...($cure->element === null ? [] : [$cure->element])]) as $id) {
            $element = $this->element($id) ?? throw ActRefused::because(Reason::RefUnknown, sprintf('"%s" is no element of this layout.', $id), '/element');
            $fields = ($id === $cure->element ? $cure->fields : []) + (isset($cure->rects[$id]) ? ['rect' => $cure->rects[$id]->toArray()] : []);
            $element = $fields === [] ? $element : $element->changed($fields);
            $element = $id === $cure->element && $cure->style !== [] ? $element->restyled($cure->style) : $element;
            $changed[$id] = $cure->items !== [] && $element instanceof HasItems ? $element->withItems($cure->items, $cure->set) : $element;
        }
        if ($changed === []) {
            throw ActRefused::because(Reason::RefUnknown, 'This is no cure for a layout.', '/element');
        }
        $elements = array_map(static fn (WrittenElement $element): WrittenElement => $changed[$element->id()] ?? $element, $this->elements);
        if ($cure->fields !== []) {
            Zone::checkReferences($elements, static fn (int $place): Node => Node::root($elements[$place]->toArray()));
        }
        $recipe = $cure->recipe === null ? [] : ['recipe' => $cure->recipe];

        return new self(
            $this->id,
            $this->name,
            $this->canvas,
            $this->background,
            $elements,
            $recipe === [] ? $this->recipe : Recipe::fromNode(Node::root($recipe)->field('recipe')),
            $this->variants,
            $this->guides,
            array_replace($this->given, $recipe),
            $this->slots,
        );
    }

    /** Itself, or as its variant is, whichever suits a raster best (Matching::bestOf). */
    public function for(Size $raster): self
    {
        $all = [null, ...array_keys($this->variants)];
        $best = $all[Matching::bestOf([$this->canvas, ...array_map(static fn (Variant $variant): Size => $variant->canvas, array_values($this->variants))], $raster)];

        return $best === null ? $this : $this->seenAs((string) $best);
    }

    /** @param array<string, Rect> $rects by id */
    public function placed(array $rects): self
    {
        return $this->withElements(array_map(
            static fn (WrittenElement $element): WrittenElement => isset($rects[$element->id()]) ? $element->changed(['rect' => $rects[$element->id()]->toArray()]) : $element,
            $this->elements,
        ));
    }

    /** With one more, on top, or just above another. */
    public function added(WrittenElement $element, ?string $above = null): self
    {
        $elements = $this->elements;
        $index = $above === null ? false : array_search($above, array_map(static fn (WrittenElement $one): string => $one->id(), $elements), true);
        array_splice($elements, $index === false ? count($elements) : (int) $index + 1, 0, [$element]);

        return $this->withElements($elements);
    }

    /** Without some: what followed one of them follows none. */
    public function without(string ...$ids): self
    {
        return $this->withElements(array_values(array_filter($this->elements, static fn (WrittenElement $element): bool => !in_array($element->id(), $ids, true))));
    }

    /**
     * Some together so many places higher or lower among the others: from where the topmost of them stands, or the lowest.
     *
     * @param list<string> $ids
     * @param int $by places; below 0 lower
     */
    public function restacked(array $ids, int $by): self
    {
        $isMoved = static fn (WrittenElement $element): bool => in_array($element->id(), $ids, true);
        $moved = array_filter($this->elements, $isMoved);
        if ($moved === []) {
            return $this;
        }
        $rest = array_values(array_filter($this->elements, static fn (WrittenElement $element): bool => !$isMoved($element)));
        $edge = $by > 0 ? max(array_keys($moved)) : min(array_keys($moved));
        $below = count(array_filter(array_slice($this->elements, 0, $edge), static fn (WrittenElement $element): bool => !$isMoved($element)));
        array_splice($rest, max(0, min(count($rest), $below + $by)), 0, array_values($moved));

        return $this->withElements($rest);
    }

    /**
     * Elements put in on top: these, or copies of its own. What belonged together does so again, among the copies; a leader that is not here has no followers here.
     *
     * @param list<WrittenElement> $originals
     * @param int $dx px by which they lie elsewhere
     * @param list<string> $others ids that they may not have, beside those in it
     * @return array{self, list<string>} and the ids that they have got
     * @throws DocumentRefused
     */
    public function inserted(array $originals, int $dx, int $dy, array $others = []): array
    {
        [$names, $groups] = [[], []];
        $ids = $this->ids();
        $taken = ['group' => array_filter(array_map(self::groupOf(...), $this->elements))];
        foreach ($originals as $element) {
            $names[$element->id()] = self::freeName($element->id(), [...$ids, ...$others, ...array_values($names)]);
            $group = self::groupOf($element);
            if ($group !== null) {
                $groups[$group] ??= self::freeName($group, [...$taken['group'], ...array_values($groups)]);
            }
        }
        $elements = $this->elements;
        $all = [...$ids, ...array_values($names)];
        foreach ($originals as $element) {
            $rect = $element->rect();
            $elements[] = $element->renamed($names, $groups)->changed(['rect' => Rect::at($rect->x + $dx, $rect->y + $dy, $rect->width, $rect->height)->toArray()])->withoutRefsBeyond(...$all);
        }

        return [$this->withElements($elements), array_values($names)];
    }

    /**
     * An id that no element has: the name, or the name with the first free number.
     *
     * @param list<string> $taken by others
     */
    public function freeId(string $name, array $taken = []): string
    {
        return self::freeName($name, [...$taken, ...$this->ids()]);
    }

    /** @return list<string> of its elements, the first lowest */
    public function ids(): array
    {
        return array_map(static fn (WrittenElement $element): string => $element->id(), $this->elements);
    }

    // --- house style ----------------------------------------------------------------------------

    /** @throws DocumentRefused where it is a name that means nothing */
    public function styledBackground(Styling $styling, string $path): Colour
    {
        $given = $this->given['background'] ?? null;
        $name = is_array($given) ? StyleNames::name($given['color'] ?? null) : null;

        return $name === null ? $this->background : $styling->colour($name, "$path/background/color");
    }

    /**
     * That every name in it means something, in its variants and in what may be put into it too.
     *
     * @param string $path JSON Pointer to the layout
     * @throws DocumentRefused
     */
    public function checkNames(Styling $styling, string $path): void
    {
        $this->styledBackground($styling, $path);
        foreach ($this->elements as $place => $element) {
            $element->styled($styling, "$path/elements/$place");
        }
        foreach (array_values($this->variants) as $number => $variant) {
            foreach ($variant->places as $id => $place) {
                $name = StyleNames::name($place['size_px']);
                $name === null ? null : $styling->sizePx($name, TextStyle::FAMILY, TextStyle::WEIGHT, "$path/variants/$number/places/$id/size_px");
            }
        }
        $elements = array_combine($this->ids(), $this->elements);
        foreach ($this->slots as $number => $slot) {
            $slot->checkNames($elements, $styling, "$path/slots/$number");
        }
    }

    // --- variants -------------------------------------------------------------------------------

    /** One of its variants as a layout of its own; without one, itself without any. */
    public function seenAs(?string $variant): self
    {
        $base = $this->variants === [] ? $this : $this->with(['variants' => null]);
        $chosen = $variant === null ? null : $this->variants[$variant] ?? throw DocumentRefused::because(Reason::RefUnknown, sprintf('There is no variant "%s".', $variant), '/variant');
        if ($chosen === null) {
            return $base;
        }
        $elements = [];
        $ids = array_map(strval(...), array_keys($chosen->places));
        foreach ($this->elements as $element) {
            $place = $chosen->places[$element->id()] ?? null;
            if ($place !== null) {
                $elements[] = self::arranged($element, $place['rect'], $place['size_px'])->withoutRefsBeyond(...$ids);
            }
        }
        $plain = array_diff_key($base->toArray(), ['recipe' => 1, 'guides' => 1, 'safe' => 1, 'slots' => 1]);

        return self::fromArray(array_replace($plain, [
            'canvas' => $chosen->canvas->toArray(),
            'elements' => array_map(static fn (WrittenElement $element): array => $element->toArray(), $elements),
        ], array_intersect_key($chosen->toArray(), ['recipe' => 1, 'guides' => 1, 'safe' => 1])));
    }

    /**
     * The whole layout once it, or one of its variants, has become another. A variant keeps places and sizes for itself and shares all else;
     * what is new in it is new in the layout as well; what is taken out of it stays in the layout, and goes on following whom it followed there.
     *
     * @throws DocumentRefused
     */
    public function putBack(?string $variant, self $next): self
    {
        $ids = $next->ids();
        if ($variant === null) {
            return $next->with(['variants' => $this->variants === [] ? null : array_map(static fn (Variant $one): array => $one->among(...$ids)->toArray(), array_values($this->variants))]);
        }
        [$elements, $known] = [[], []];
        $own = $this->ids();
        $absent = array_diff($own, $ids);
        $shown = $this->variants[$variant]->places ?? [];
        // What the variant shows lies in its order, in the places that it has in the layout; what it does not show stays where it is.
        $order = array_values(array_intersect($ids, $own));
        foreach ($this->elements as $element) {
            $id = in_array($element->id(), $absent, true) ? $element->id() : (string) array_shift($order);
            $known[$id] = true;
            $seen = $next->element($id);
            $mine = $this->element($id) ?? $element;
            // What it shows from now on it shows as it is.
            $elements[] = $seen === null || !isset($shown[$id]) ? $mine : self::shared($mine, $seen, $absent);
        }
        foreach ($next->elements as $element) {
            if (!isset($known[$element->id()])) {
                $elements[] = $element;
            }
        }
        $own = ['canvas' => 1, 'recipe' => 1, 'guides' => 1, 'safe' => 1, 'elements' => 1, 'variants' => 1];

        return self::fromArray(array_replace($this->toArray(), array_diff_key($next->toArray(), $own), [
            'elements' => array_map(static fn (WrittenElement $element): array => $element->toArray(), $elements),
            'variants' => array_map(static fn (Variant $one): array => ($one->id === $variant ? self::variantOf($one->id, $next) : $one)->toArray(), array_values($this->variants)),
        ]));
    }

    /** With one more variant, arranged as a layout of its own is. */
    public function withVariant(string $id, self $arranged): self
    {
        return $this->with(['variants' => array_map(static fn (Variant $variant): array => $variant->toArray(), [...array_values($this->variants), self::variantOf($id, $arranged)])]);
    }

    public function withoutVariant(string $id): self
    {
        $left = array_diff_key($this->variants, [$id => 1]);

        return $this->with(['variants' => $left === [] ? null : array_map(static fn (Variant $variant): array => $variant->toArray(), array_values($left))]);
    }

    /** An id that no variant has: the name, or the name with the first free number. */
    public function freeVariant(string $name): string
    {
        return self::freeName($name, array_map(strval(...), array_keys($this->variants)));
    }

    private static function variantOf(string $id, self $arranged): Variant
    {
        $places = [];
        foreach ($arranged->elements as $element) {
            $places[$element->id()] = ['rect' => $element->rect(), 'size_px' => self::typeSize($element)];
        }

        return Variant::of($id, $arranged->canvas, $arranged->recipe, $places, $arranged->guides);
    }

    /**
     * An element of the layout as it is shared by a variant in which it was changed: all but its place, the size of its type, and what it says of elements that are not there.
     *
     * @param array<string> $absent ids of elements that the variant does not show
     */
    private static function shared(WrittenElement $element, WrittenElement $seen, array $absent): WrittenElement
    {
        $shared = self::arranged($seen, $element->rect(), self::typeSize($element));
        $named = array_filter($element::fields()->collected($element->toArray(), Role::Element), is_string(...));
        $kept = array_diff_key($element->toArray(), $element->withoutRefsBeyond(...array_diff($named, $absent))->toArray());

        return $shared->changed($kept);
    }

    private static function arranged(WrittenElement $element, Rect $rect, float|string|null $sizePx): WrittenElement
    {
        $style = $element->toArray()['style'] ?? null;

        return $element->changed(['rect' => $rect->toArray()] + (is_array($style) && $sizePx !== null ? ['style' => array_replace($style, ['size_px' => $sizePx])] : []));
    }

    /** The size of the type of an element, px, or the name that it has in the house style; null where it has none. */
    public static function typeSize(WrittenElement $element): float|string|null
    {
        $style = $element->toArray()['style'] ?? null;
        $size = is_array($style) ? $style['size_px'] ?? null : null;

        return match (true) {
            is_int($size), is_float($size) => (float) $size,
            is_string($size) => $size,
            default => null,
        };
    }

    private static function groupOf(WrittenElement $element): ?string
    {
        $group = $element->toArray()['group'] ?? null;

        return is_string($group) ? $group : null;
    }

    /** @param list<string> $taken */
    private static function freeName(string $name, array $taken): string
    {
        $stem = rtrim($name, '0123456789') ?: $name;
        for ($n = 2, $free = $name; in_array($free, $taken, true); $n++) {
            $free = $stem . $n;
        }

        return $free;
    }

    /** @param array<string, Variant> $variants */
    private function withVariants(array $variants): self
    {
        return $variants === [] ? $this : new self($this->id, $this->name, $this->canvas, $this->background, $this->elements, $this->recipe, $variants, $this->guides, $this->given, $this->slots);
    }

    /**
     * @param array<string, true> $known ids of the elements
     * @return array<string, Variant>
     * @throws DocumentRefused
     */
    private static function variantsOf(Node $node, array $known): array
    {
        $variants = [];
        $ids = new UniqueIds();
        foreach ($node->optional('variants')?->items(Variant::MOST) ?? [] as $variant) {
            $variants[$ids->take($variant->field('id'))] = Variant::fromNode($variant, $known);
        }

        return $variants;
    }
}
