<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;

/** What lies above: one of the kinds of Kinds::ALL. */
interface Kind
{
    /** The fields that it has beside those of every overlay. */
    public static function fields(): Fields;

    /** @throws Refused */
    public static function fromNode(Node $node): self;

    /** Whether it may be shown after every so many items. */
    public static function mayFollow(): bool;

    /** @return list<Elsewhere> where else it could lie */
    public function elsewhere(): array;
}
