<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Style\StyleNames;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Time\Item;

/** Items that a zone plays. */
final readonly class ListValue implements Value
{
    /** @param list<array<string, mixed>> $items as they were read */
    public function __construct(private ListSlot $slot, private string $element, private array $items)
    {
    }

    public function isEmpty(): bool
    {
        return $this->items === [];
    }

    public function put(Draft $draft): void
    {
        $draft->play($this->element, $this->items);
    }

    public function checkNames(Styling $styling, string $path): void
    {
        foreach ($this->items as $number => $item) {
            StyleNames::replaced(Item::fields(), $item, $styling, "$path/$number");
        }
    }

    public function findings(FilledView $view): iterable
    {
        $count = count($this->items);
        if ($this->slot->atMost !== null && $count > $this->slot->atMost) {
            yield $view->finding(
                $this->slot,
                'slot.count',
                Level::Stop,
                sprintf('"%s" has %d items; at most %d are right.', $this->slot->head()->name, $count, $this->slot->atMost),
                ['count' => $count, 'at_most' => $this->slot->atMost],
            );
        }
    }
}
