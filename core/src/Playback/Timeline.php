<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** What each zone of a layout plays in a span, slot by slot. */
final readonly class Timeline
{
    /**
     * @param int $fromMs UTC ms, the span is [from, to)
     * @param string $timezone of the display, in which items come and go
     * @return array{zones: list<array{id: string, loop_ms: ?int, segments: list<array{from: string, to: string, item: ?string, offset_ms: int, row?: int, standby?: string}>}>, meets_every_ms: ?int}
     */
    public static function of(Composed $layout, int $fromMs, int $toMs, int $anchorMs = 0, string $timezone = 'UTC'): array
    {
        $zones = [];
        $turns = $layout->turns(WallClock::in($timezone), $anchorMs);
        $count = 0;
        foreach ($layout->zones as $id => $zone) {
            $loop = $layout->loops[$id];
            $items = $zone->playlist->enabled();
            $segments = [];
            foreach ($turns[$id]->between($fromMs, $toMs) as $turn) {
                $pieces = $turn->loop->between($turn->fromMs - $turn->anchorMs, $turn->toMs - $turn->anchorMs, Budget::SEGMENTS - $count + 1);
                Budget::ofSegments($count += count($pieces), '/to');
                foreach ($pieces as $piece) {
                    $segments[] = [
                        'from' => (string) Instant::ofMs($piece['from'] + $turn->anchorMs),
                        'to' => (string) Instant::ofMs($piece['to'] + $turn->anchorMs),
                        'item' => $items[$piece['item']]->id ?? null,
                        'offset_ms' => $piece['offset'],
                    ] + self::row($zone, $items[$piece['item']] ?? null, $piece['from'] + $turn->anchorMs)
                        + (isset($items[$piece['item']]) || $zone->standby === null ? [] : ['standby' => $zone->standby->id]);
                }
            }
            $zones[] = ['id' => $zone->id(), 'loop_ms' => $loop->periodMs, 'segments' => $segments];
        }

        return ['zones' => $zones, 'meets_every_ms' => $layout->meetsEveryMs()];
    }

    /** @return array{row?: int} which of the rows it tells that are chosen at an instant, where it is one of those that rows make */
    private static function row(PlayingZone $zone, ?Item $item, int $ms): array
    {
        $place = $item?->row === null ? false : array_search($item->row, $zone->each[$item->id]->items->due($ms), true);

        return $place === false ? [] : ['row' => $place];
    }
}
