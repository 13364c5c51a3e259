<?php

declare(strict_types=1);

namespace UpperPane\Core\Colour;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;

/** An sRGB colour as `#rrggbb` or `#rrggbbaa`. */
final readonly class Colour
{
    private function __construct(public string $hex)
    {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $hex = $node->text(1, 40);
        if (preg_match('/^#([0-9a-f]{6}|[0-9a-f]{8})$/Di', $hex) !== 1) {
            throw $node->refused('value.range', sprintf('is "%s"; a colour is #rrggbb or #rrggbbaa.', $hex));
        }

        return new self(strtolower($hex));
    }

    public static function black(): self
    {
        return new self('#000000');
    }

    public function isOpaque(): bool
    {
        return strlen($this->hex) === 7 || str_ends_with($this->hex, 'ff');
    }
}
