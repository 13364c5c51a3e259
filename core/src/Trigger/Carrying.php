<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\Instant;

/** The rows that the ways of a map may carry, each with a number, as far as they are known beforehand: a player can tell these alone. 0 is one of which nothing is known. */
final readonly class Carrying
{
    /** Of a signal. */
    private const MOST = 200;

    /**
     * @param non-empty-list<array<string, string|int|float|bool|Instant|Day|null>> $rows by number
     * @param array<string, list<int>> $ofSignals numbers of the rows that a signal may bring
     * @param array<string, list<int>> $intoStates numbers of the rows that may be carried to a state
     */
    private function __construct(public array $rows, private array $ofSignals, private array $intoStates)
    {
    }

    /** @throws Refused where rows cannot be worked out */
    public static function of(Contents $contents): self
    {
        [$rows, $known, $ofSignals, $intoStates] = [[[]], [], [], []];
        foreach ($contents->map->transitions as $transition) {
            if (!$transition->carries) {
                continue;
            }
            $signal = $transition->on;
            if (!isset($ofSignals[$signal])) {
                $ofSignals[$signal] = [];
                foreach (array_slice($contents->rows($signal)?->rows() ?? [], 0, self::MOST) as $row) {
                    $key = serialize($row);
                    if (!isset($known[$key])) {
                        $known[$key] = count($rows);
                        $rows[] = $row;
                    }
                    $ofSignals[$signal][] = $known[$key];
                }
                $ofSignals[$signal] = array_values(array_unique($ofSignals[$signal]));
            }
            $intoStates[$transition->to] = array_values(array_unique([...$intoStates[$transition->to] ?? [0], ...$ofSignals[$signal]]));
        }

        return new self($rows, $ofSignals, $intoStates);
    }

    /** @return list<int> numbers of the rows that may be carried to a state; none where no way carries anything there */
    public function into(string $state): array
    {
        return $this->intoStates[$state] ?? [];
    }

    /**
     * What a player is told of them.
     *
     * @param int $fromMs Unix ms
     * @return array{rows: list<object>, ofs: object, firsts: object} the rows as they are told; numbers of those of each signal; and from when which of them is its first, Unix ms
     * @throws Refused
     */
    public function compiled(Contents $contents, int $fromMs, int $toMs): array
    {
        $numbers = array_flip(array_map(serialize(...), $this->rows));
        $firsts = [];
        foreach (array_keys($this->ofSignals) as $signal) {
            $rows = $contents->rows($signal);
            if ($rows === null) {
                continue;
            }
            for ($at = $fromMs; $at !== null && $at < max($toMs, $fromMs + 1); $at = $rows->changesAfter($at)) {
                $firsts[$signal][] = [$at, $numbers[serialize($rows->at($at)->rows[0] ?? [])] ?? 0];
            }
        }
        $told = static fn (mixed $value): mixed => $value instanceof Instant || $value instanceof Day ? (string) $value : $value;

        return [
            'rows' => array_map(static fn (array $row): object => (object) array_map($told, $row), $this->rows),
            'ofs' => (object) $this->ofSignals,
            'firsts' => (object) $firsts,
        ];
    }
}
