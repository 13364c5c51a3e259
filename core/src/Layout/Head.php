<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Rect;

/** What every kind of element has: its id, its rectangle in canvas px, and whether it is left out for the time being. */
final readonly class Head
{
    private function __construct(public string $id, public Rect $rect, public bool $hidden)
    {
    }

    /**
     * @param string ...$own the fields that this kind has beside these
     * @throws DocumentRefused on a field that this kind does not have
     */
    public static function fromNode(Node $node, string ...$own): self
    {
        $node->object('id', 'kind', 'name', 'rect', 'hidden', 'locked', 'group', ...$own);
        $node->optional('name')?->text();
        $node->optional('locked')?->bool();
        $node->optional('group')?->id();

        return new self($node->field('id')->id(), Rect::fromNode($node->field('rect')), $node->optional('hidden')?->bool() ?? false);
    }

    public static function of(string $id, Rect $rect): self
    {
        return new self($id, $rect, false);
    }
}
