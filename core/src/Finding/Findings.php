<?php

declare(strict_types=1);

namespace UpperPane\Core\Finding;

/** Findings in the order stops, warnings, hints; within a level as they were found. */
final readonly class Findings
{
    /** @var list<Finding> */
    public array $all;

    /** @param list<Finding> $findings */
    public function __construct(array $findings)
    {
        $byLevel = ['stop' => [], 'warning' => [], 'hint' => []];
        foreach ($findings as $finding) {
            $byLevel[$finding->level->value][] = $finding;
        }
        $this->all = [...$byLevel['stop'], ...$byLevel['warning'], ...$byLevel['hint']];
    }

    /** The same, with no cure offered. */
    public function withoutCures(): self
    {
        return new self(array_map(static fn (Finding $finding): Finding => $finding->curedBy(null), $this->all));
    }

    /** @param list<Finding> $more */
    public function and(array $more): self
    {
        return $more === [] ? $this : new self([...$more, ...$this->all]);
    }

    public function count(Level $level): int
    {
        return count(array_filter($this->all, static fn (Finding $f): bool => $f->level === $level));
    }

    public function stopsHandover(): bool
    {
        return $this->count(Level::Stop) > 0;
    }

    /** @return array{findings: list<array<string, mixed>>, stops: int, warnings: int, hints: int} */
    public function toArray(): array
    {
        return [
            'findings' => array_map(static fn (Finding $f): array => $f->toArray(), $this->all),
            'stops' => $this->count(Level::Stop),
            'warnings' => $this->count(Level::Warning),
            'hints' => $this->count(Level::Hint),
        ];
    }
}
