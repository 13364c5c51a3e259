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

    private ?string $figure = '#';

    /**
     * @param array<string, string|int|float|bool|Instant|Day|null> $values
     * @param array<string, ?string> $fallbacks by name
     * @param array<string, int> $decimals that a number has where no format is said, by name
     */
    public function __construct(public readonly Formats $formats, private readonly array $values, private readonly array $fallbacks, private readonly array $decimals = [])
    {
    }

    /** Whether it is known what stands there, if only that nothing does. */
    public function isGiven(string $name): bool
    {
        return array_key_exists($name, $this->values);
    }

    public function decimals(string $name): ?int
    {
        return $this->decimals[$name] ?? null;
    }

    public function value(string $name): string|int|float|bool|Instant|Day|null
    {
        return $this->values[$name] ?? $this->formats->place[$name] ?? null;
    }

    /** What is told in the place of a value that is missing, or does not fit. */
    public function missing(string $name): string
    {
        $this->absent[$name] = true;

        return $this->fallbacks[$name] ?? self::FALLBACK;
    }

    /** @param list<Piece> $pieces */
    public function all(array $pieces, ?string $figure): string
    {
        return implode('', $this->with($figure, $pieces, fn (Piece $piece): string => $piece->told($this)));
    }

    /**
     * With the arguments that are given told.
     *
     * @param list<Piece> $pieces
     * @param ?string $figure what # tells there; null where that is not known yet
     * @return list<array{bool, string}> whether it is words, and what
     */
    public function allInPart(array $pieces, ?string $figure): array
    {
        return array_merge(...$this->with($figure, $pieces, fn (Piece $piece): array => $piece->inPart($this)));
    }

    /**
     * The same as a pattern.
     *
     * @param list<Piece> $pieces
     * @param bool $isPlural whether they stand in a plural
     */
    public function pattern(array $pieces, ?string $figure, bool $isPlural): string
    {
        // Words beside words are quoted together: two quotes side by side would be an apostrophe.
        [$pattern, $words] = ['', ''];
        foreach ([...$this->allInPart($pieces, $figure), [false, '']] as [$isWords, $text]) {
            $words .= $isWords ? $text : '';
            if (!$isWords) {
                [$pattern, $words] = [$pattern . Words::quoted($words, $isPlural) . $text, ''];
            }
        }

        return $pattern;
    }

    /**
     * @template T
     * @param list<Piece> $pieces
     * @param \Closure(Piece): T $of
     * @return list<T>
     */
    private function with(?string $figure, array $pieces, \Closure $of): array
    {
        $outer = $this->figure;
        $this->figure = $figure;
        $all = array_map($of, $pieces);
        $this->figure = $outer;

        return $all;
    }

    public function figure(): ?string
    {
        return $this->figure;
    }
}
