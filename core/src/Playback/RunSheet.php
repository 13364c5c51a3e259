<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Layout;

/**
 * The compiled timing of a layout, as a player reads it (`upper-pane/run-sheet@1`, docs/formats/run-sheet.md).
 *
 * For each zone the segments of one period: `start_ms`, `length_ms` (null without end), what fades in and what is drawn.
 * To know what is due a player takes (t - anchor) mod period and looks the segment up; nothing else is computed there.
 */
final readonly class RunSheet
{
    public const FORMAT = 'upper-pane/run-sheet@1';

    /** @return array<string, mixed> */
    public static function of(Layout $layout, int $anchorMs = 0, ?Means $means = null): array
    {
        return [
            'format' => self::FORMAT,
            'canvas' => $layout->canvas->toArray(),
            'background' => $layout->background->hex,
            'anchor_ms' => $anchorMs,
            'layers' => self::layers(Plan::of($layout, $means ?? new Means())->layers),
        ];
    }

    /**
     * @param list<Part|ZonePlan> $layers
     * @return list<array<string, mixed>>
     */
    private static function layers(array $layers): array
    {
        $written = [];
        foreach ($layers as $layer) {
            if ($layer instanceof Part) {
                $written[] = ['part' => $layer->toArray() + ($layer->changing?->compiled() ?? [])];
                continue;
            }
            $loop = $layer->loop;
            $segments = [];
            $last = count($loop->items) - 1;
            foreach ($loop->items as $slot => $item) {
                $segments[] = [
                    'start_ms' => $loop->starts[$slot],
                    'length_ms' => $loop->periodMs === null && $slot === $last ? null : $loop->lengths[$slot],
                    'fade_ms' => $layer->fades[$item],
                    'scene' => $item,
                ];
            }
            $written[] = [
                'zone' => $layer->element,
                'period_ms' => $loop->periodMs,
                'segments' => $segments,
                'scenes' => array_map(self::layers(...), $layer->scenes),
            ];
        }

        return $written;
    }
}
