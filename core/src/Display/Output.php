<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;

/** A numbered connector of a player. */
final readonly class Output
{
    private function __construct(public int $number, public string $link)
    {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('number', 'link');

        return new self($node->field('number')->int(1, 64), $node->field('link')->text(1, 40));
    }
}
