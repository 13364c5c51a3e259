<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\UniqueIds;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Told\SaysText;

/** The kinds of slots that there are. A new one is a class and a line in this table. */
final readonly class Slots
{
    public const MOST = 200;

    /** @var array<string, class-string<Slot>> */
    private const ALL = [
        TextSlot::KIND => TextSlot::class,
        PictureSlot::KIND => PictureSlot::class,
        NumberSlot::KIND => NumberSlot::class,
        DateSlot::KIND => DateSlot::class,
        SwitchSlot::KIND => SwitchSlot::class,
        ChoiceSlot::KIND => ChoiceSlot::class,
        ListSlot::KIND => ListSlot::class,
    ];

    /** @return list<string> */
    public static function kinds(): array
    {
        return array_keys(self::ALL);
    }

    public static function field(): Field
    {
        return Field::list(Field::either(...array_map(
            static fn (string $kind): Field => Field::object(
                self::ALL[$kind]::fields()->and(array_replace(SlotHead::fields()->all(), ['kind' => Field::constant($kind)->required()]))->named(ucfirst($kind) . 'Slot'),
            ),
            self::kinds(),
        )), self::MOST)->saying('what is left open for whoever fills it in; all else of a template is locked');
    }

    /**
     * @param list<WrittenElement> $elements of the layout
     * @return list<Slot>
     * @throws Refused
     */
    public static function of(?Node $node, array $elements): array
    {
        [$slots, $ids, $arguments] = [[], new UniqueIds(), []];
        $byId = array_combine(array_map(static fn (WrittenElement $element): string => $element->id(), $elements), $elements);
        foreach ($node?->items(self::MOST) ?? [] as $one) {
            $slot = self::ALL[$one->field('kind')->oneOf(...self::kinds())]::fromNode($one);
            $ids->take($one->field('id'));
            $slot->check($byId, $one);
            if ($slot instanceof NumberSlot || $slot instanceof DateSlot) {
                $argument = $slot->elements()[0] . ' ' . $slot->argument();
                if (isset($arguments[$argument])) {
                    throw $one->field('argument')->refused(Reason::IdTwice, sprintf('is "%s" of "%s", which another slot opens already.', $slot->argument(), $slot->elements()[0]));
                }
                $arguments[$argument] = true;
            }
            $slots[] = $slot;
        }

        return $slots;
    }

    /**
     * What the messages of elements tell that a slot could say: not what the place says of itself, nor what rows of their own do.
     *
     * @param list<WrittenElement> $elements
     * @return array<string, list<string>> names by the id of the element
     * @throws Refused
     */
    public static function arguments(array $elements): array
    {
        $arguments = [];
        foreach ($elements as $element) {
            ['text' => $text, 'rows' => $rows] = $element->toArray() + ['text' => null, 'rows' => null];
            if ($element instanceof SaysText && $element->tells() && is_string($text) && $rows === null) {
                $names = array_filter(Message::parse($text)->names(), static fn (string $name): bool => !str_starts_with($name, Formats::PLACE));
                $arguments[$element->id()] = array_values($names);
            }
        }

        return $arguments;
    }

    /**
     * What choices may set, as fields of elements that have no others.
     *
     * @param array<mixed> $slots as they stand in a layout
     * @return list<array{string, array<string, mixed>}> the id of the element, and its field
     */
    public static function sets(array $slots): array
    {
        $sets = [];
        foreach ($slots as $slot) {
            foreach (is_array($slot) && is_array($slot['options'] ?? null) ? $slot['options'] : [] as $option) {
                foreach (is_array($option) && is_array($option['set'] ?? null) ? $option['set'] : [] as $set) {
                    if (is_array($set) && is_string($set['element'] ?? null) && is_string($set['field'] ?? null) && $set['field'] !== '') {
                        $sets[] = [$set['element'], Draft::changedAt([], explode('/', $set['field']), $set['value'] ?? null)];
                    }
                }
            }
        }

        return $sets;
    }

    /**
     * Slots as they stand in a layout, without what they say of elements that are not among these.
     *
     * @param array<mixed> $slots
     * @param list<string> $ids
     * @return list<mixed>
     */
    public static function among(array $slots, array $ids): array
    {
        $left = [];
        foreach ($slots as $slot) {
            if (!is_array($slot)) {
                continue;
            }
            if (is_array($slot['elements'] ?? null)) {
                $slot['elements'] = array_values(array_filter($slot['elements'], static fn (mixed $id): bool => in_array($id, $ids, true)));
            }
            if (is_array($slot['options'] ?? null)) {
                $isThere = static fn (mixed $set): bool => is_array($set) && in_array($set['element'] ?? null, $ids, true);
                $slot['options'] = array_map(static fn (mixed $option): mixed => is_array($option) && is_array($option['set'] ?? null)
                    ? array_replace($option, ['set' => array_values(array_filter($option['set'], $isThere))])
                    : $option, $slot['options']);
            }
            $isOpen = match (true) {
                isset($slot['element']) => in_array($slot['element'], $ids, true),
                isset($slot['elements']) => $slot['elements'] !== [],
                default => array_filter(is_array($slot['options'] ?? null) ? $slot['options'] : [], static fn (mixed $option): bool => is_array($option) && ($option['set'] ?? []) !== []) !== [],
            };
            if ($isOpen) {
                $left[] = $slot;
            }
        }

        return $left;
    }
}
