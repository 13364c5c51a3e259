<?php

declare(strict_types=1);

namespace UpperPane\Core\Finding;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Rect;

/**
 * A cure in one press: what it says, and what it changes: places of elements, fields of an element, of the style of its words or of items
 * of its list, of a booking, a panel or a display. Each kind of document does what it says by its own `cured`.
 */
final readonly class Fix
{
    /**
     * @param array<array-key, Rect> $rects new places, canvas px, by element id
     * @param list<string> $items of the list of the element
     * @param array<string, mixed> $set fields of each of the items, of the booking, the panel, or the display; null takes one away
     * @param array<string, mixed> $style fields of the style of the words of the element; null takes one away
     * @param array<string, mixed> $fields of the element itself; null takes one away
     * @param ?array<string, mixed> $recipe of the layout, where the new places ask for another
     */
    private function __construct(
        public string $label,
        public ?string $element = null,
        public array $rects = [],
        public array $items = [],
        public array $set = [],
        public array $style = [],
        public array $fields = [],
        public ?string $booking = null,
        public ?string $panel = null,
        public ?array $recipe = null,
        private bool $isOfOneItem = false,
    ) {
    }

    public static function rect(string $label, string $element, Rect $rect): self
    {
        return new self($label, $element, [$element => $rect]);
    }

    /** @param non-empty-array<array-key, Rect> $rects by element id: one cure that moves them together */
    public static function rects(string $label, array $rects): self
    {
        return new self($label, rects: $rects);
    }

    /** @param array<string, mixed> $set fields of the item; null takes the field away */
    public static function item(string $label, string $element, string $item, array $set): self
    {
        return new self($label, $element, items: [$item], set: $set, isOfOneItem: true);
    }

    /**
     * @param list<string> $items
     * @param array<string, mixed> $set fields of each of the items; null takes the field away
     */
    public static function items(string $label, string $element, array $items, array $set): self
    {
        return new self($label, $element, items: $items, set: $set);
    }

    /** @param array<string, mixed> $set fields of the style of a text; null takes the field away */
    public static function style(string $label, string $element, array $set, ?Rect $rect = null): self
    {
        return new self($label, $element, $rect === null ? [] : [$element => $rect], style: $set);
    }

    /** @param array<string, mixed> $set fields of the element itself; null takes the field away */
    public static function element(string $label, string $element, array $set): self
    {
        return new self($label, $element, fields: $set);
    }

    /** @param array<string, mixed> $set fields of a booking; null takes the field away */
    public static function booking(string $label, string $booking, array $set): self
    {
        return new self($label, set: $set, booking: $booking);
    }

    /** @param array<string, mixed> $set fields of a panel of the display */
    public static function panel(string $label, string $panel, array $set): self
    {
        return new self($label, set: $set, panel: $panel);
    }

    /** @param array<string, mixed> $set fields of the display */
    public static function display(string $label, array $set): self
    {
        return new self($label, set: $set);
    }

    /**
     * As it is written beside a finding.
     *
     * @throws DocumentRefused
     */
    public static function fromNode(Node $node): self
    {
        $node->object('label', 'element', 'rect', 'rects', 'item', 'items', 'set', 'style', 'fields', 'booking', 'panel', 'recipe');
        $element = $node->optional('element')?->id();
        $item = $node->optional('item')?->id();
        $rects = [];
        foreach ($node->optional('rects')?->members(10_000) ?? [] as $id => $rect) {
            $rects[$id] = Rect::fromNode($rect);
        }
        if (($rect = $node->optional('rect')) !== null) {
            $rects[$element ?? $node->field('element')->id()] = Rect::fromNode($rect);
        }
        $fields = static fn (string $name): array => $node->optional($name)?->fields() ?? [];

        return new self(
            $node->field('label')->text(),
            $element,
            $rects,
            $item === null ? array_map(static fn (Node $one): string => $one->id(), $node->optional('items')?->items(10_000) ?? []) : [$item],
            $fields('set'),
            $fields('style'),
            $fields('fields'),
            $node->optional('booking')?->id(),
            $node->optional('panel')?->id(),
            $node->optional('recipe')?->fields(),
            $item !== null,
        );
    }

    /**
     * The same with the recipe told anew.
     *
     * @param array<string, mixed> $recipe
     */
    public function withRecipe(array $recipe): self
    {
        return new self(
            $this->label,
            $this->element,
            $this->rects,
            $this->items,
            $this->set,
            $this->style,
            $this->fields,
            $this->booking,
            $this->panel,
            $recipe,
            $this->isOfOneItem,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $rects = array_map(static fn (Rect $rect): array => $rect->toArray(), $this->rects);
        $moved = match (true) {
            $rects === [] => [],
            $this->element !== null => ['rect' => $rects[$this->element]],
            default => ['rects' => $rects],
        };

        return array_filter([
            'label' => $this->label,
            'element' => $this->element,
            'booking' => $this->booking,
            'panel' => $this->panel,
            'style' => $this->style,
            'fields' => $this->fields,
            'item' => $this->isOfOneItem ? $this->items[0] : null,
            'items' => $this->isOfOneItem ? [] : $this->items,
            'set' => $this->set,
            'recipe' => $this->recipe,
        ], static fn (mixed $value): bool => $value !== null && $value !== []) + $moved;
    }
}
