<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Units\Instant;

/** A slot that opens one element. It has a head, the id of the element, and what stands there otherwise. */
trait OpensElement
{
    public function head(): SlotHead
    {
        return $this->head;
    }

    public function elements(): array
    {
        return [$this->element];
    }

    public function hasDefault(): bool
    {
        return $this->default !== null;
    }

    public function nothing(): ?Value
    {
        return $this->default;
    }

    public function ofField(string|int|float|bool|Instant|Day|null $value, Formats $formats): string|int|float|bool|null
    {
        return $value instanceof Instant || $value instanceof Day ? (string) $value : $value;
    }

    public function sample(Sample $sample, FilledView $view): mixed
    {
        return null;
    }

    public function checkNames(array $elements, Styling $styling, string $path): void
    {
        $this->default?->checkNames($styling, "$path/default");
    }

    /**
     * @param array<string, WrittenElement> $elements by id
     * @param class-string $class of what can be opened so
     * @param string $what that is
     * @throws Refused
     */
    private static function opened(array $elements, Node $field, string $class, string $what): WrittenElement
    {
        $element = $elements[$field->id()] ?? throw $field->refused(Reason::RefUnknown, sprintf('is "%s", which is no element of this layout.', $field->id()));
        if (!$element instanceof $class) {
            throw $field->refused(Reason::ValueUnknown, sprintf('is "%s", a %s; %s is right.', $field->id(), $element->kind(), $what));
        }

        return $element;
    }
}
