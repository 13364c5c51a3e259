<?php

declare(strict_types=1);

namespace UpperPane\Core\Finding;

use UpperPane\Core\Geometry\Rect;

/** A cure in one press: what it says, and the rectangle it gives to an element or the fields it sets on an item, the style of a text, a booking, a panel or a display. */
final readonly class Fix
{
    /** @param array<string, mixed> $change */
    private function __construct(public string $label, public array $change)
    {
    }

    public static function rect(string $label, string $element, Rect $rect): self
    {
        return new self($label, ['element' => $element, 'rect' => $rect->toArray()]);
    }

    /** @param non-empty-array<array-key, Rect> $rects by element id: one cure that moves them together */
    public static function rects(string $label, array $rects): self
    {
        return new self($label, ['rects' => array_map(static fn (Rect $rect): array => $rect->toArray(), $rects)]);
    }

    /** @param array<string, mixed> $set fields of the item; null takes the field away */
    public static function item(string $label, string $element, string $item, array $set): self
    {
        return new self($label, ['element' => $element, 'item' => $item, 'set' => $set]);
    }

    /**
     * @param list<string> $items
     * @param array<string, mixed> $set fields of each of the items; null takes the field away
     */
    public static function items(string $label, string $element, array $items, array $set): self
    {
        return new self($label, ['element' => $element, 'items' => $items, 'set' => $set]);
    }

    /** @param array<string, mixed> $set fields of the style of a text; null takes the field away */
    public static function style(string $label, string $element, array $set, ?Rect $rect = null): self
    {
        return new self($label, ['element' => $element, 'style' => $set] + ($rect === null ? [] : ['rect' => $rect->toArray()]));
    }

    /** @param array<string, mixed> $set fields of the element itself; null takes the field away */
    public static function element(string $label, string $element, array $set): self
    {
        return new self($label, ['element' => $element, 'fields' => $set]);
    }

    /** @param array<string, mixed> $set fields of a booking; null takes the field away */
    public static function booking(string $label, string $booking, array $set): self
    {
        return new self($label, ['booking' => $booking, 'set' => $set]);
    }

    /** @param array<string, mixed> $set fields of a panel of the display */
    public static function panel(string $label, string $panel, array $set): self
    {
        return new self($label, ['panel' => $panel, 'set' => $set]);
    }

    /** @param array<string, mixed> $set fields of the display */
    public static function display(string $label, array $set): self
    {
        return new self($label, ['set' => $set]);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['label' => $this->label] + $this->change;
    }
}
