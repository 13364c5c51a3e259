<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Programme;

use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\ElementHead;
use UpperPane\Core\Layout\Kind\Head;
use UpperPane\Core\Layout\Kind\WrittenElement;

/** Where in the layout of a window what plays goes on, fitted in. Anywhere else it is black: nothing plays there. */
final readonly class Programme implements WrittenElement
{
    use ElementHead;

    public const KIND = 'programme';

    private function __construct(private Head $head)
    {
    }

    /** The opening of a layout; null where it has none. */
    public static function in(Composed $layout): ?Element
    {
        foreach ($layout->visible()->elements as $element) {
            if ($element instanceof self) {
                return $element;
            }
        }

        return null;
    }

    public static function fields(): Fields
    {
        return Fields::of([]);
    }

    public static function begun(Rect $rect, Size $canvas): array
    {
        return [];
    }

    public static function fromNode(Node $node): static
    {
        return new self(Head::fromNode($node, self::fields()));
    }

    public function covers(): bool
    {
        return true;
    }
}
