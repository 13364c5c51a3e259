<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Units\Instant;

/** Whether some elements are there. */
final readonly class SwitchSlot implements Slot
{
    public const KIND = 'switch';

    /** @param non-empty-list<string> $elements */
    private function __construct(private SlotHead $head, private array $elements, private ?bool $default)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'elements' => Field::list(Field::id(), Layout::MOST_ELEMENTS, 1)->required()->saying('that it shows and hides'),
            'default' => Field::bool(),
        ]);
    }

    public static function fromNode(Node $node): static
    {
        $head = SlotHead::fromNode($node, self::fields());
        $field = $node->field('elements');
        $elements = array_map(static fn (Node $one): string => $one->id(), $field->items(Layout::MOST_ELEMENTS));

        return $elements === []
            ? throw $field->refused(Reason::ValueRange, 'is empty; the elements that it shows and hides are right.')
            : new self($head, $elements, $node->optional('default')?->bool());
    }

    public function head(): SlotHead
    {
        return $this->head;
    }

    public function elements(): array
    {
        return array_values(array_unique($this->elements));
    }

    public function check(array $elements, Node $node): void
    {
        foreach ($node->field('elements')->items(Layout::MOST_ELEMENTS) as $one) {
            if (!isset($elements[$one->id()])) {
                throw $one->refused(Reason::RefUnknown, sprintf('is "%s", which is no element of this layout.', $one->id()));
            }
        }
    }

    public function read(Node $node): SwitchValue
    {
        return new SwitchValue($this->elements(), $node->bool());
    }

    public function hasDefault(): bool
    {
        return $this->default !== null;
    }

    public function nothing(): ?Value
    {
        return $this->default === null ? null : new SwitchValue($this->elements(), $this->default);
    }

    public function ofField(string|int|float|bool|Instant|Day|null $value, Formats $formats): string|int|float|bool|null
    {
        return $value instanceof Instant || $value instanceof Day ? (string) $value : $value;
    }

    public function sample(Sample $sample, FilledView $view): ?bool
    {
        return $sample === Sample::Nothing ? null : $sample === Sample::Longest;
    }

    public function checkNames(array $elements, Styling $styling, string $path): void
    {
        // It names nothing.
    }
}
