<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Units\Instant;

/** One message being told: the values, and which of them were not there. */
final class Telling
{
    public const FALLBACK = '–';

    /** @var array<string, true> in the order of telling */
    public array $absent = [];

    private string $figure = '#';

    /**
     * @param array<string, string|int|float|bool|Instant|Day|null> $values
     * @param array<string, ?string> $fallbacks by name
     */
    public function __construct(public readonly Formats $formats, private readonly array $values, private readonly array $fallbacks)
    {
    }

    public function value(string $name): string|int|float|bool|Instant|Day|null
    {
        return $this->values[$name] ?? null;
    }

    /** What is told in the place of a value that is missing, or does not fit. */
    public function missing(string $name): string
    {
        $this->absent[$name] = true;

        return $this->fallbacks[$name] ?? self::FALLBACK;
    }

    /** @param list<Piece> $pieces */
    public function all(array $pieces, string $figure): string
    {
        $outer = $this->figure;
        $this->figure = $figure;
        $text = '';
        foreach ($pieces as $piece) {
            $text .= $piece->told($this);
        }
        $this->figure = $outer;

        return $text;
    }

    public function figure(): string
    {
        return $this->figure;
    }
}
