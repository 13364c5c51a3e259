<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Time\Turn;
use UpperPane\Core\Units\Instant;

/** What each zone of a layout plays in a span, slot by slot. */
final readonly class Timeline
{
    /**
     * @param int $fromMs UTC ms, the span is [from, to)
     * @param string $timezone of the display, in which items come and go
     * @return array{zones: list<array{id: string, loop_ms: ?int, segments: list<array{from: string, to: string, item: string, offset_ms: int}>}>, meets_every_ms: ?int}
     */
    public static function of(Layout $layout, int $fromMs, int $toMs, int $anchorMs = 0, string $timezone = 'UTC'): array
    {
        $zones = [];
        $rotas = $layout->rotas($timezone, $anchorMs);
        foreach ($layout->zones as $id => $zone) {
            $loop = $layout->loops[$id];
            $items = $zone->playlist->enabled();
            $segments = [];
            [$rota, $member] = $rotas[$id] ?? [null, 0];
            foreach ($rota?->between($fromMs, $toMs) ?? [new Turn($fromMs, $toMs, $anchorMs, [$loop])] as $turn) {
                foreach ($turn->loops[$member]->between($turn->fromMs - $turn->anchorMs, $turn->toMs - $turn->anchorMs) as $piece) {
                    $segments[] = [
                        'from' => (string) Instant::ofMs($piece['from'] + $turn->anchorMs),
                        'to' => (string) Instant::ofMs($piece['to'] + $turn->anchorMs),
                        'item' => $items[$piece['item']]->id,
                        'offset_ms' => $piece['offset'],
                    ];
                }
            }
            $zones[] = ['id' => $zone->id(), 'loop_ms' => $loop->periodMs, 'segments' => $segments];
        }

        return ['zones' => $zones, 'meets_every_ms' => $layout->meetsEveryMs()];
    }
}
