<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Rota;
use UpperPane\Core\Time\Transition;
use UpperPane\Core\Time\TransitionKind;

/**
 * The compiled timing of a layout, as a player reads it (`upper-pane/run-sheet@1`, docs/formats/run-sheet.md).
 *
 * For each zone the segments of one period: `start_ms`, `length_ms` (null without end), what fades in and what is drawn.
 * To know what is due a player takes (t - anchor) mod period and looks the segment up; nothing else is computed there.
 */
final readonly class RunSheet
{
    public const FORMAT = 'upper-pane/run-sheet@1';

    /**
     * @param int $fromMs UTC ms; where items come and go, what is due is written out for [from, to)
     * @return array<string, mixed>
     */
    public static function of(Layout $layout, int $anchorMs = 0, ?Means $means = null, int $fromMs = 0, int $toMs = 0): array
    {
        return [
            'format' => self::FORMAT,
            'canvas' => $layout->canvas->toArray(),
            'background' => $layout->background->hex,
            'anchor_ms' => $anchorMs,
            'layers' => self::layers(Plan::of($layout, $means ?? new Means(), $anchorMs)->layers, $fromMs, $toMs),
        ];
    }

    /**
     * @param list<Part|ZonePlan> $layers
     * @return list<array<string, mixed>>
     */
    private static function layers(array $layers, int $fromMs, int $toMs): array
    {
        $written = [];
        foreach ($layers as $layer) {
            if ($layer instanceof Part) {
                $written[] = ['part' => $layer->toArray() + ($layer->changing?->compiled() ?? [])];
                continue;
            }
            $written[] = ['zone' => $layer->element, 'rect' => $layer->box->toArray()] + self::loop($layer->loop, $layer->transitions) + [
                'scenes' => array_map(static fn (array $scene): array => self::layers($scene, $fromMs, $toMs), $layer->scenes),
            ] + ($layer->rota === null ? [] : self::turns($layer, $layer->rota, $fromMs, $toMs));
        }

        return $written;
    }

    /**
     * @param list<Transition> $transitions
     * @return array{period_ms: ?int, segments: list<array<string, mixed>>}
     */
    private static function loop(Loop $loop, array $transitions): array
    {
        $segments = [];
        $last = count($loop->items) - 1;
        foreach ($loop->items as $slot => $item) {
            $transition = $transitions[$item];
            $segments[] = [
                'start_ms' => $loop->starts[$slot],
                'length_ms' => $loop->periodMs === null && $slot === $last ? null : $loop->lengths[$slot],
                'fade_ms' => $transition->kind === TransitionKind::Fade ? $transition->ms : 0,
                'scene' => $item,
            ] + (in_array($transition->kind, [TransitionKind::Push, TransitionKind::Wipe], true) ? ['moves' => $transition->toArray()] : []);
        }

        return ['period_ms' => $loop->periodMs, 'segments' => $segments];
    }

    /**
     * Each loop once, and from when which of them is gone through.
     *
     * @return array{loops: list<array<string, mixed>>, turns: list<array{from_ms: int, anchor_ms: ?int, loop: int}>}
     */
    private static function turns(ZonePlan $zone, Rota $rota, int $fromMs, int $toMs): array
    {
        $loops = [];
        $places = [];
        $turns = [];
        $place = static function (Loop $loop) use (&$loops, &$places, $zone): int {
            $key = serialize([$loop->items, $loop->lengths]);
            if (!isset($places[$key])) {
                $places[$key] = count($loops);
                $loops[] = self::loop($loop, $zone->transitions);
            }

            return $places[$key];
        };
        if ($zone->nested) {
            foreach ([$fromMs, ...$rota->changes($fromMs, $toMs)] as $from) {
                $turns[] = ['from_ms' => $from, 'anchor_ms' => null, 'loop' => $place($rota->begunAt($from)[$zone->member])];
            }
        } else {
            foreach ($rota->between($fromMs, max($toMs, $fromMs + 1)) as $turn) {
                $turns[] = ['from_ms' => $turn->fromMs, 'anchor_ms' => $turn->anchorMs, 'loop' => $place($turn->loops[$zone->member])];
            }
        }

        return ['loops' => $loops, 'turns' => $turns];
    }
}
