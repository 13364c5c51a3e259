<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;

/** A field of an element, and what an option puts there. */
final readonly class ChoiceSet
{
    /** @param non-empty-list<string> $way to the field, from the outside in */
    private function __construct(public string $element, public array $way, public mixed $value)
    {
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        $field = $node->object('element', 'field', 'value')->field('field');
        $way = explode('/', $field->text(1, 200));
        if (in_array('', $way, true)) {
            throw $field->refused(Reason::ValueRange, sprintf('is "%s"; the name of a field, or a path such as style/color is right.', $field->text(1, 200)));
        }
        if (in_array($way[0], ['id', 'kind'], true)) {
            throw $field->refused(Reason::FieldUnknown, sprintf('is "%s", by which the element is known; any other field of it is right.', $way[0]));
        }

        return new self($node->field('element')->id(), $way, $node->field('value')->value);
    }

    /** @return array<string, mixed> the field as if the element had no other */
    public function alone(): array
    {
        return Draft::changedAt([], $this->way, $this->value);
    }
}
