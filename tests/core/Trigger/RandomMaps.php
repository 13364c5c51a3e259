<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Trigger;

use Random\Randomizer;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;

/** Maps of signals that come by their names, and what happens to them. */
final class RandomMaps
{
    /** @return array<string, mixed> */
    public static function one(Randomizer $random): array
    {
        $ids = array_slice(['idle', 'a', 'b', 'c', 'd', 'e'], 0, $random->getInt(2, 6));
        $signals = array_slice(['u', 'v', 'w', 'x'], 0, $random->getInt(1, 4));
        $any = static fn (array $of): string => (string) $of[$random->getInt(0, count($of) - 1)];
        $states = [];
        foreach (array_slice($ids, 1) as $id) {
            $linger = $random->getInt(0, 4) === 0 ? ['linger' => 'endless'] : [];
            $states[] = Docs::state($id, 500 * $random->getInt(1, 8), $linger + ($random->getInt(0, 1) === 1 ? ['then' => $any($ids)] : []));
        }
        $ways = [];
        for ($n = $random->getInt(1, 10); $n > 0; $n--) {
            $from = $random->getInt(0, 4) === 0 ? ['*'] : array_values(array_unique([$any($ids), $any($ids)]));
            $ways[] = ['from' => $from, 'on' => $any($signals), 'to' => $any($ids)] + ($random->getInt(0, 2) === 0 ? ['cooldown_ms' => 500 * $random->getInt(1, 10)] : [])
                + ($random->getInt(0, 3) === 0 ? ['again' => false] : []);
        }

        return Docs::map($states, array_map(Docs::operator(...), $signals), $ways);
    }

    /**
     * @param array<string, mixed> $map
     * @return list<array{at: int, signal: string}> ms
     */
    public static function entries(Randomizer $random, array $map): array
    {
        $signals = array_column(is_array($map['signals']) ? $map['signals'] : [], 'id');
        $entries = [];
        for ($ms = 0; count($entries) < 60; $ms += 500 * $random->getInt(0, 3)) {
            $entries[] = ['at' => $ms, 'signal' => (string) $signals[$random->getInt(0, count($signals) - 1)]];
        }

        return $entries;
    }

    /**
     * Of every kind of signal, on the sensors of TriggerDocuments and a keyboard.
     *
     * @return array<string, mixed>
     */
    public static function ofAllKinds(Randomizer $random, int $fromMs): array
    {
        $map = self::one($random);
        $time = static fn (): string => substr((string) Instant::ofMs($fromMs + 1000 * $random->getInt(0, 30)), 0, 19);
        $rows = ['source' => 's', 'sort' => [['by' => 'n']]];
        $edge = 60 * $random->getInt(0, 4);
        $map['signals'] = [
            ['id' => 'u', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [1, 2], 'dwell_ms' => 500 * $random->getInt(0, 3)],
            ['id' => 'v', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [3], 'rows' => $rows],
            ['id' => 'w', 'kind' => 'absence', 'sensor' => 's1', 'after_ms' => 500 * $random->getInt(0, 4)],
            ['id' => 'x', 'kind' => 'value', 'rows' => $rows, 'field' => 'n', 'rises_to' => 5] + ($random->getInt(0, 1) === 1 ? ['falls_below' => 2] : []),
            ['id' => 'press', 'kind' => 'press', 'sensor' => 'b1', 'button' => '2', 'rows' => $rows],
            ['id' => 'key', 'kind' => 'key', 'key' => 'F4'],
            ['id' => 'area', 'kind' => 'touch', 'rect' => Docs::rect($edge, 0, 100, 100)],
            ['id' => 'other', 'kind' => 'touch', 'rect' => Docs::rect($edge + 50, 0, 100, 100)],
            ['id' => 'noon', 'kind' => 'time', 'start' => $time(), 'rrule' => 'FREQ=SECONDLY;INTERVAL=' . $random->getInt(5, 20)],
            ['id' => 'falls', 'kind' => 'value', 'rows' => $rows, 'field' => 'n', 'falls_below' => 0],
        ];
        $signals = array_column($map['signals'], 'id');
        foreach ($map['transitions'] as $place => $way) {
            $carries = $random->getInt(0, 1) === 1 ? ['carries' => true] : [];
            $map['transitions'][$place] = ['on' => (string) $signals[$random->getInt(0, count($signals) - 1)]] + $way + $carries;
        }

        return $map;
    }

    /** @return list<array<string, mixed>> what is said to these within a minute, with `at` in ms */
    public static function readings(Randomizer $random): array
    {
        $entries = [];
        for ($ms = 0; $ms < 55_000; $ms += 250 * $random->getInt(0, 8)) {
            $entries[] = ['at' => $ms] + match ($random->getInt(0, 6)) {
                0 => ['sensor' => 's1', 'band' => $random->getInt(0, 4)],
                1 => ['sensor' => 'b1', 'button' => ['1', '2', '17'][$random->getInt(0, 2)]],
                2 => ['key' => ['F4', 'z', 'q'][$random->getInt(0, 2)]],
                3 => ['touch' => ['x' => 10 * $random->getInt(0, 40), 'y' => 20]],
                4 => ['sensor' => 's1', 'mm' => null],
                default => ['sensor' => 's1', 'mm' => 10 * $random->getInt(0, 450)],
            };
        }

        return $entries;
    }
}
