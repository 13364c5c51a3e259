<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Layout\Kind\HasItems;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\Playlist;

/** The items of a zone, in the place of those that the template has there; what is put in between stays. */
final readonly class ListSlot implements Slot
{
    use OpensElement;

    public const KIND = 'list';
    private const MOST_ITEMS = 10_000;

    private function __construct(private SlotHead $head, private string $element, public ?int $atMost, private ?ListValue $default)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of(['element' => Field::id()->required(), 'at_most' => Field::int(1, self::MOST_ITEMS), 'default' => Field::list(Field::object(Item::fields()))]);
    }

    public static function fromNode(Node $node): static
    {
        $head = SlotHead::fromNode($node, self::fields());
        $slot = new self($head, $node->field('element')->id(), $node->optional('at_most')?->int(1, self::MOST_ITEMS), null);

        return ($default = $node->optional('default')) === null ? $slot : new self($head, $slot->element, $slot->atMost, $slot->read($default));
    }

    public function check(array $elements, Node $node): void
    {
        self::opened($elements, $node->field('element'), HasItems::class, 'a zone');
    }

    public function read(Node $node): ListValue
    {
        foreach (Playlist::itemsOf($node) as $item) {
            if ($item->layout !== null && !$item->layout->has('ref')) {
                Layout::fromNode($item->layout);
            }
        }
        /** @var list<array<string, mixed>> $items have been read */
        $items = is_array($node->value) ? array_values($node->value) : [];

        return new ListValue($this, $this->element, $items);
    }
}
