<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** How long a loop is, how often each item comes in an hour, and which share of the time it takes. */
final readonly class CycleFigures
{
    /** Ids of a cycle that are written out. */
    private const MOST = 10_000;

    /**
     * Items that are off count 0. Where the last slot never ends it has all the time in the long run.
     *
     * @param list<Item> $all the items and the extras of the list
     * @param list<Item> $enabled those that play, as the loop counts them
     * @return array{cycle_ms: ?int, cycle_items: int, cycle: list<string>, items: list<array{id: string, plays: int, plays_per_hour: float|int, share: float|int}>}
     */
    public static function of(Loop $loop, array $all, array $enabled): array
    {
        [$plays, $ms] = [array_fill(0, count($enabled), 0), array_fill(0, count($enabled), 0)];
        foreach ($loop->items as $slot => $item) {
            $plays[$item]++;
            $ms[$item] += $loop->lengths[$slot];
        }
        $place = array_flip(array_map(static fn (Item $item): string => $item->id, $enabled));
        $endless = $loop->periodMs === null ? $loop->items[count($loop->items) - 1] : null;
        $items = [];
        foreach ($all as $item) {
            $index = $place[$item->id] ?? null;
            $items[] = [
                'id' => $item->id,
                'plays' => $index === null ? 0 : $plays[$index],
                'plays_per_hour' => $index === null || !$loop->periodMs ? 0 : round($plays[$index] * 3_600_000 / $loop->periodMs, 4),
                'share' => match (true) {
                    $index === null => 0,
                    $loop->periodMs === null => $index === $endless ? 1 : 0,
                    default => $loop->periodMs === 0 ? 0 : round($ms[$index] / $loop->periodMs, 6),
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
