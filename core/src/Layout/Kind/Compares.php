<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

/** An element that says itself how it differs from what it was. */
interface Compares extends Element
{
    /**
     * @param Element $before of the same kind and id
     * @return list<string> what a viewer would see change, where it stands and how large it is apart; empty where nothing does
     */
    public function changesFrom(Element $before): array;
}
