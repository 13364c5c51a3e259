<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** How long a loop is, how often each item comes in an hour, and which share of the time it takes. */
final readonly class CycleFigures
{
    /** Ids of a cycle that are written out. */
    private const MOST = 10_000;

    /**
     * Items that are off count 0; what rows make of one counts together. Where the last slot never ends it has all the time in the long run.
     *
     * @param list<Item> $all the items and the extras of the list
     * @param list<Item> $enabled those that play, as the loop counts them
     * @return array{cycle_ms: ?int, cycle_items: int, cycle: list<string>, items: list<array{id: string, plays: int, plays_per_hour: float|int, share: float|int}>}
     */
    public static function of(Loop $loop, array $all, array $enabled): array
    {
        [$plays, $ms] = [[], []];
        foreach ($loop->items as $slot => $item) {
            $id = $enabled[$item]->id;
            $plays[$id] = ($plays[$id] ?? 0) + 1;
            $ms[$id] = ($ms[$id] ?? 0) + $loop->lengths[$slot];
        }
        $endless = $loop->periodMs === null ? $enabled[$loop->items[count($loop->items) - 1]]->id : null;
        $items = [];
        foreach ($all as $item) {
            $times = $plays[$item->id] ?? 0;
            $items[] = [
                'id' => $item->id,
                'plays' => $times,
                'plays_per_hour' => $times === 0 || !$loop->periodMs ? 0 : round($times * 3_600_000 / $loop->periodMs, 4),
                'share' => match (true) {
                    $times === 0 => 0,
                    $loop->periodMs === null => $item->id === $endless ? 1 : 0,
                    default => $loop->periodMs === 0 ? 0 : round($ms[$item->id] / $loop->periodMs, 6),
                },
            ];
        }

        return [
            'cycle_ms' => $loop->periodMs,
            'cycle_items' => count($loop->items),
            'cycle' => array_map(static fn (int $item): string => $enabled[$item]->id, array_slice($loop->items, 0, self::MOST)),
            'items' => $items,
        ];
    }
}
