<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\RowField;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Told\SaysText;

/** A slot for an argument of the message of an element. It has a head, the id of the element, the name of the argument, and what stands there otherwise. */
trait OpensArgument
{
    use OpensElement;

    /** @return array<string, Field> */
    private static function argumentFields(): array
    {
        return ['element' => Field::id()->required(), 'argument' => Field::pattern(RowField::NAME)->required()->saying('of the message of the element')];
    }

    /** @throws Refused */
    private static function argumentOf(Node $node): string
    {
        $field = $node->field('argument');
        $argument = $field->text(1, 80);
        if (preg_match('/' . RowField::NAME . '/D', $argument) !== 1) {
            throw $field->refused(Reason::ValueRange, 'is no name that a message could say; letters, figures and underscores are right, a letter first.');
        }
        if (str_starts_with($argument, Formats::PLACE)) {
            throw $field->refused(Reason::ValueRange, sprintf('is "%s"; what begins with %s is told by the place.', $argument, Formats::PLACE));
        }

        return $argument;
    }

    public function argument(): string
    {
        return $this->argument;
    }

    public function check(array $elements, Node $node): void
    {
        $field = $node->field('element');
        $element = self::opened($elements, $field, SaysText::class, 'one that says a message');
        if (!$element instanceof SaysText || !$element->tells()) {
            throw $field->refused(Reason::ValueUnknown, sprintf('is "%s", whose text is no message; "message": true makes it one.', $field->id()));
        }
    }

    public function nothing(): Value
    {
        return $this->default ?? new ArgumentValue($this, $this->element, $this->argument, null);
    }
}
