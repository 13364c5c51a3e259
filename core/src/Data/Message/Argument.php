<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

/** `{name}` or `{name, type, style}`. */
final readonly class Argument implements Piece
{
    /** @param ?string $type null where none is said: the value tells by itself how it is told */
    public function __construct(private string $name, private ?string $type, private string $style)
    {
    }

    public function told(Telling $telling): string
    {
        return $telling->formats->told($telling->value($this->name), $this->type, $this->style) ?? $telling->missing($this->name);
    }

    public function names(): array
    {
        return [$this->name];
    }
}
