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
        $value = $telling->value($this->name);
        $decimals = $this->type === null && (is_int($value) || is_float($value)) ? $telling->decimals($this->name) : null;
        [$type, $style] = $decimals === null ? [$this->type, $this->style] : ['number', $decimals === 0 ? '::precision-integer' : '::.' . str_repeat('0', $decimals)];

        return $telling->formats->told($value, $type, $style) ?? $telling->missing($this->name);
    }

    public function inPart(Telling $telling): array
    {
        return $telling->isGiven($this->name)
            ? [[true, $this->told($telling)]]
            : [[false, '{' . $this->name . ($this->type === null ? '' : ", $this->type") . ($this->style === '' ? '' : ", $this->style") . '}']];
    }

    public function names(): array
    {
        return [$this->name];
    }
}
