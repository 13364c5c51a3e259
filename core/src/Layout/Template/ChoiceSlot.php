<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\UniqueIds;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Style\StyleNames;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Units\Instant;

/** One of several options, each of which sets some fields of some elements. */
final readonly class ChoiceSlot implements Slot
{
    public const KIND = 'choice';
    private const MOST_OPTIONS = 100;
    private const MOST_SETS = 200;

    /** @param array<string, ChoiceOption> $options by id */
    private function __construct(private SlotHead $head, private array $options, private ?string $default)
    {
    }

    public static function fields(): Fields
    {
        $set = Fields::of([
            'element' => Field::id()->required(),
            'field' => Field::text(1, 200)->required()->saying('of the element; of an object in it as a path, such as style/color'),
            'value' => Field::any()->required(),
        ])->named('ChoiceSet');

        return Fields::of([
            'options' => Field::list(Field::object(Fields::of([
                'id' => Field::id()->required(),
                'name' => Field::name()->required(),
                'set' => Field::list(Field::object($set), self::MOST_SETS)->required(),
            ])->named('ChoiceOption')), self::MOST_OPTIONS, 1)->required(),
            'default' => Field::id(),
        ]);
    }

    public static function fromNode(Node $node): static
    {
        $head = SlotHead::fromNode($node, self::fields());
        $field = $node->field('options');
        [$options, $ids] = [[], new UniqueIds()];
        foreach ($field->items(self::MOST_OPTIONS) as $one) {
            $one->object('id', 'name', 'set');
            $one->field('name')->name();
            $id = $ids->take($one->field('id'));
            $options[$id] = new ChoiceOption(array_map(ChoiceSet::fromNode(...), $one->field('set')->items(self::MOST_SETS)));
        }
        if ($options === []) {
            throw $field->refused(Reason::ValueRange, 'is empty; an option at the least is right.');
        }
        $slot = new self($head, $options, null);
        $default = $node->optional('default');
        if ($default === null) {
            return $slot;
        }
        $slot->read($default);

        return new self($head, $options, $default->id());
    }

    public function head(): SlotHead
    {
        return $this->head;
    }

    public function elements(): array
    {
        return array_values(array_unique(array_merge(...array_map(static fn (ChoiceOption $option): array => $option->elements(), array_values($this->options)))));
    }

    public function check(array $elements, Node $node): void
    {
        $nodes = $node->field('options')->items(self::MOST_OPTIONS);
        foreach (array_values($this->options) as $number => $option) {
            $sets = $nodes[$number]->field('set')->items(self::MOST_SETS);
            $changed = [];
            foreach ($option->sets as $place => $set) {
                $element = $elements[$set->element] ?? throw $sets[$place]->field('element')->refused(Reason::RefUnknown, sprintf('is "%s", which is no element of this layout.', $set->element));
                $changed[$set->element] = Draft::changedAt($changed[$set->element] ?? $element->toArray(), $set->way, $set->value);
            }
            foreach ($changed as $id => $fields) {
                try {
                    Kinds::read(Node::root($fields));
                } catch (Refused $e) {
                    throw self::atFault($e, $option, (string) $id, $sets);
                }
            }
        }
    }

    /**
     * What an option does wrong, at the set that does it.
     *
     * @param list<Node> $sets
     */
    private static function atFault(Refused $e, ChoiceOption $option, string $element, array $sets): Refused
    {
        $last = null;
        foreach ($option->sets as $place => $set) {
            if ($set->element !== $element) {
                continue;
            }
            $last = $sets[$place];
            $way = '/' . implode('/', $set->way);
            if ($e->path === $way && $e->reason === Reason::FieldUnknown) {
                return $e->in('', $last->field('field')->path);
            }
            if ($e->path === $way || str_starts_with($e->path, "$way/")) {
                return $e->in('', $last->field('value')->path . substr($e->path, strlen($way)));
            }
        }

        return $last === null ? $e : $e->in('', $last->field('value')->path);
    }

    public function read(Node $node): ChoiceValue
    {
        return new ChoiceValue($this->options[$node->oneOf(...array_map(strval(...), array_keys($this->options)))]);
    }

    public function hasDefault(): bool
    {
        return $this->default !== null;
    }

    public function nothing(): ?Value
    {
        return $this->default === null ? null : new ChoiceValue($this->options[$this->default]);
    }

    public function ofField(string|int|float|bool|Instant|Day|null $value, Formats $formats): string|int|float|bool|null
    {
        return $value instanceof Instant || $value instanceof Day ? (string) $value : $value;
    }

    public function sample(Sample $sample, FilledView $view): ?string
    {
        return null;
    }

    public function checkNames(array $elements, Styling $styling, string $path): void
    {
        foreach (array_values($this->options) as $number => $option) {
            foreach ($option->sets as $place => $set) {
                $way = '/' . implode('/', $set->way);
                try {
                    StyleNames::replaced(Kinds::fieldsOf($elements[$set->element]->kind()), $set->alone(), $styling, '');
                } catch (Refused $e) {
                    throw $e->in('', "$path/options/$number/set/$place/value" . (str_starts_with($e->path, $way) ? substr($e->path, strlen($way)) : ''));
                }
            }
        }
    }
}
