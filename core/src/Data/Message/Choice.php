<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

use UpperPane\Core\Units\Decimal;

/** One of several messages, by a word (select) or by the plural of a number. */
final readonly class Choice implements Piece
{
    /** @param array<string, list<Piece>> $branches by selector; one of them is `other` */
    public function __construct(private string $name, private ChoiceKind $kind, private float $offset, private array $branches)
    {
    }

    public function told(Telling $telling): string
    {
        [$pieces, $figure] = $this->chosen($telling);

        return $telling->all($pieces, $figure);
    }

    public function inPart(Telling $telling): array
    {
        if ($telling->isGiven($this->name)) {
            [$pieces, $figure] = $this->chosen($telling);

            return $telling->allInPart($pieces, $figure);
        }
        $isCounted = $this->kind !== ChoiceKind::Select;
        $branches = [];
        foreach ($this->branches as $selector => $pieces) {
            $branches[] = sprintf('%s {%s}', $selector, $telling->pattern($pieces, $isCounted ? null : $telling->figure(), $isCounted));
        }
        $offset = $this->offset === 0.0 ? '' : sprintf('offset:%s ', Decimal::text($this->offset));

        return [[false, sprintf('{%s, %s, %s%s}', $this->name, $this->kind->value, $offset, implode(' ', $branches))]];
    }

    /** @return array{list<Piece>, ?string} the branch, and what # tells there */
    private function chosen(Telling $telling): array
    {
        $value = $telling->value($this->name);
        if ($this->kind === ChoiceKind::Select) {
            $word = match (true) {
                is_bool($value) => $value ? 'true' : 'false',
                is_int($value), is_float($value) => Decimal::text($value),
                default => $value === null ? null : (string) $value,
            };
            if ($word === null) {
                $telling->missing($this->name);
            }

            return [$this->branches[$word ?? 'other'] ?? $this->branches['other'], $telling->figure()];
        }
        $number = Formats::number($value);
        if ($number === null) {
            return [$this->branches['other'], $telling->missing($this->name)];
        }
        $branch = null;
        foreach ($this->branches as $selector => $pieces) {
            // PHP takes a text of figures for a number where it is a key.
            $selector = (string) $selector;
            if ($selector[0] === '=' && (float) substr($selector, 1) === (float) $number) {
                $branch = $pieces;
                break;
            }
        }
        $rest = $this->offset === 0.0 ? $number : $number - $this->offset;
        $branch ??= $this->branches[$telling->formats->plural($rest, $this->kind === ChoiceKind::Ordinal)] ?? $this->branches['other'];

        return [$branch, $telling->formats->told($rest, 'number', '') ?? ''];
    }

    public function names(): array
    {
        $names = [$this->name];
        foreach ($this->branches as $pieces) {
            foreach ($pieces as $piece) {
                array_push($names, ...$piece->names());
            }
        }

        return $names;
    }
}
