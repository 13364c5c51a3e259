<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Trigger;

use Random\Randomizer;
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
}
