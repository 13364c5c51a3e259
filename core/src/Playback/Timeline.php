<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Units\Instant;

/** What each zone of a layout plays in a span, slot by slot. */
final readonly class Timeline
{
    /**
     * @param int $fromMs UTC ms, the span is [from, to)
     * @return array{zones: list<array{id: string, loop_ms: ?int, segments: list<array{from: string, to: string, item: string, offset_ms: int}>}>, meets_every_ms: ?int}
     */
    public static function of(Layout $layout, int $fromMs, int $toMs, int $anchorMs = 0): array
    {
        $zones = [];
        foreach ($layout->zones as $id => $zone) {
            $loop = $layout->loops[$id];
            $items = $zone->playlist->enabled();
            $segments = [];
            foreach ($loop->between($fromMs - $anchorMs, $toMs - $anchorMs) as $piece) {
                $segments[] = [
                    'from' => (string) Instant::ofMs($piece['from'] + $anchorMs),
                    'to' => (string) Instant::ofMs($piece['to'] + $anchorMs),
                    'item' => $items[$piece['item']]->id,
                    'offset_ms' => $piece['offset'],
                ];
            }
            $zones[] = ['id' => $zone->id(), 'loop_ms' => $loop->periodMs, 'segments' => $segments];
        }

        return ['zones' => $zones, 'meets_every_ms' => $layout->meetsEveryMs()];
    }
}
