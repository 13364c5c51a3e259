<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Document\Refused;

/** A kind of written element with a list of items of its own. */
interface HasItems
{
    /**
     * The same with other fields of some of its items.
     *
     * @param list<string> $items ids
     * @param array<string, mixed> $fields null takes a field away
     * @throws Refused where its list is another document, or has not all of them
     */
    public function withItems(array $items, array $fields): static;
}
