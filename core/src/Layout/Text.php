<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Rect;

/** Words on the canvas. */
final readonly class Text implements Element
{
    use ElementHead;

    public const KIND = 'text';

    private function __construct(private string $id, private Rect $rect, public string $text, public TextStyle $style)
    {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        self::head($node, 'text', 'style');

        return new self(
            $node->field('id')->id(),
            Rect::fromNode($node->field('rect')),
            $node->field('text')->text(0, 10_000),
            TextStyle::fromNode($node->field('style')),
        );
    }

    public function kind(): string
    {
        return self::KIND;
    }

    public function covers(): bool
    {
        return false;
    }
}
