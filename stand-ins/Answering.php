<?php

declare(strict_types=1);

namespace UpperPane\StandIns;

/** What a player of the Bench answers: maps of triggers, as far as operators ask for it. */
final class Answering
{
    /** @var list<array{id: string, rest: string, states: list<array{id: string, linger_ms: ?int, then: ?string}>, signals: list<array{id: string}>,
     *     transitions: list<array{from: list<string>, on: string, to: string}>}> */
    private array $maps = [];

    /** @var array<string, array{map: string, state: string, why: string, since: string}> */
    private array $answers = [];

    /** @var list<string> */
    private array $took = [];

    /** @param \Closure(string): mixed $read what lies at an address */
    public function take(\Closure $read, string $release): void
    {
        /** @var array{planes?: array{base: array{sheet: array{url: string}}}} $manifest */
        $manifest = $read($release);
        $sheet = $manifest['planes']['base']['sheet']['url'] ?? null;
        /** @var array{triggers?: list<array{id: string, rest: string, states: list<array{id: string, linger_ms: ?int, then: ?string}>, signals: list<array{id: string}>,
         *     transitions: list<array{from: list<string>, on: string, to: string}>}>} $told */
        $told = $sheet === null ? [] : $read($sheet);
        $this->maps = $told['triggers'] ?? [];
        $this->answers = array_intersect_key($this->answers, array_column($this->maps, 'id', 'id'));
    }

    /** @param list<array{id: string, signal: string, until: string}> $said as its pointer says */
    public function pass(array $said): void
    {
        foreach ($this->maps as $map) {
            $this->answers[$map['id']] ??= self::entered($map['id'], $map['rest'], 'start');
            foreach ($said as ['id' => $id, 'signal' => $signal, 'until' => $until]) {
                if (in_array($id, $this->took, true) || strtotime($until) < time() || !in_array($signal, array_column($map['signals'], 'id'), true)) {
                    continue;
                }
                $this->took = array_slice([$id, ...$this->took], 0, 20);
                $state = $this->answers[$map['id']]['state'];
                $ways = array_filter($map['transitions'], static fn (array $way): bool => $way['on'] === $signal && array_intersect(['*', $state], $way['from']) !== []);
                $way = reset($ways);
                if ($way !== false) {
                    $this->answers[$map['id']] = self::entered($map['id'], $way['to'], $signal);
                }
            }
            ['state' => $state, 'since' => $since] = $this->answers[$map['id']];
            foreach ($map['states'] as $one) {
                if ($one['id'] === $state && $one['linger_ms'] !== null && time() > strtotime($since) + $one['linger_ms'] / 1000) {
                    $this->answers[$map['id']] = self::entered($map['id'], $one['then'] ?? $map['rest'], 'lapse');
                }
            }
        }
    }

    /** @return array<string, mixed> as its report tells it; nothing where nothing answers */
    public function told(): array
    {
        return array_filter(['answers' => array_values($this->answers), 'took' => $this->took]);
    }

    /** @return array{map: string, state: string, why: string, since: string} */
    private static function entered(string $map, string $state, string $why): array
    {
        return ['map' => $map, 'state' => $state, 'why' => $why, 'since' => gmdate('Y-m-d\TH:i:s\Z')];
    }
}
