<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Units\Instant;

/** One thing of a template that is left open for whoever fills it in. A new kind implements this and has a line in Slots. */
interface Slot
{
    /** The fields that this kind has beside those of every slot. */
    public static function fields(): Fields;

    /** @throws Refused */
    public static function fromNode(Node $node): static;

    public function head(): SlotHead;

    /** @return list<string> ids of the elements that it opens, each once */
    public function elements(): array;

    /**
     * That it opens what is there, and what can be opened so.
     *
     * @param array<string, WrittenElement> $elements of the template, by id
     * @param Node $node of the slot
     * @throws Refused
     */
    public function check(array $elements, Node $node): void;

    /**
     * What somebody has filled in, or what stands there otherwise.
     *
     * @throws Refused where it is of another type
     */
    public function read(Node $node): Value;

    /** Whether something stands there where nobody has filled anything in, which then counts as filled in. */
    public function hasDefault(): bool;

    /** What is put there where nobody has filled anything in; null where the template stays as it is. */
    public function nothing(): ?Value;

    /** What somebody would fill in for what a field of a row of data says; a text, a number, true, false, or null for nothing. */
    public function ofField(string|int|float|bool|Instant|Day|null $value, Formats $formats): string|int|float|bool|null;

    /**
     * What a template is looked at with; null where the slot stays as it is where nobody has filled anything in.
     *
     * @param FilledView $view of the template where nobody has filled anything in
     */
    public function sample(Sample $sample, FilledView $view): mixed;

    /**
     * That the names of the house style that it may bring in mean something.
     *
     * @param array<string, WrittenElement> $elements of the template, by id
     * @param string $path JSON Pointer to the slot
     * @throws Refused
     */
    public function checkNames(array $elements, Styling $styling, string $path): void;
}
