<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Time\When;

/** An element as a document says it: read once, and written back as it was read. A new kind implements this and has a line in Kinds. */
interface WrittenElement extends Element
{
    /** The fields that this kind has beside those of every element. */
    public static function fields(): Fields;

    /**
     * What stands in a box that has just been drawn: something that can be seen at once, and typed over.
     *
     * @return array<string, mixed> its own fields, but for those that nobody can guess, such as the media of a picture
     */
    public static function begun(Rect $rect, Size $canvas): array;

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): static;

    /** Only while what is chosen of data it is drawn; null for always. */
    public function when(): ?When;

    /** Whether hands leave it alone. */
    public function isLocked(): bool;

    /**
     * The same with other fields.
     *
     * @param array<string, mixed> $fields null takes a field away
     * @throws DocumentRefused
     */
    public function changed(array $fields): static;

    /**
     * The same with its words set otherwise.
     *
     * @param array<string, mixed> $style fields of their style; null takes one away
     * @throws Refused where it has no words
     */
    public function restyled(array $style): static;

    /**
     * The same elsewhere, its px scaled: type, corners, outlines, speed.
     *
     * @throws DocumentRefused
     */
    public function scaled(Rect $rect, float $factor): static;

    /**
     * A copy under other names.
     *
     * @param array<string, string> $elements new ids by old ones; also of what it refers to
     * @param array<string, string> $groups new names by old ones
     * @throws DocumentRefused
     */
    public function renamed(array $elements, array $groups): static;

    /**
     * The same with what the names of the house style in it mean.
     *
     * @param string $path JSON Pointer to the element
     * @throws DocumentRefused where one of them means nothing
     */
    public function styled(Styling $styling, string $path): static;

    /** The same without what it says of elements that are not among these, such as its leader. */
    public function withoutRefsBeyond(string ...$ids): static;
}
