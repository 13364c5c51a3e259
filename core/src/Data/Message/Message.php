<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Units\Instant;

/** A text with places for data (ICU MessageFormat). */
final readonly class Message
{
    /** @param list<Piece> $pieces */
    private function __construct(public string $pattern, private array $pieces)
    {
    }

    /**
     * @param string $path of the document in which it stands
     * @throws DataRefused where it cannot be read; `offset` is where, in characters from 0
     */
    public static function parse(string $pattern, string $path = ''): self
    {
        return new self($pattern, (new MessageParser($pattern, $path))->message());
    }

    /**
     * @param array<string, string|int|float|bool|Instant|Day|null> $values by name
     * @param array<string, ?string> $fallbacks what is told for a value that is missing, by name
     */
    public function tell(array $values, Formats $formats, array $fallbacks = []): Told
    {
        $telling = new Telling($formats, $values, $fallbacks);

        return new Told($telling->all($this->pieces, '#'), array_map(strval(...), array_keys($telling->absent)));
    }

    /**
     * The same as a pattern in which some arguments have been told, and all others still stand.
     *
     * @param array<string, string|int|float|bool|Instant|Day|null> $values of those, by name; null is told by its fallback
     * @param array<string, int> $decimals that a number has where no format is said, by name
     */
    public function toldInPart(array $values, Formats $formats, array $decimals = []): self
    {
        return self::parse((new Telling($formats, $values, [], $decimals))->pattern($this->pieces, '#', false));
    }

    /** @return list<string> the arguments that it names, in any branch, each once */
    public function names(): array
    {
        $names = [];
        foreach ($this->pieces as $piece) {
            array_push($names, ...$piece->names());
        }

        return array_values(array_unique($names));
    }
}
