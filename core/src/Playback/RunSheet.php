<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Transition;
use UpperPane\Core\Time\TransitionKind;
use UpperPane\Core\Time\Turn;

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
        return self::written($layout->canvas, $layout->background, $anchorMs, Plan::of($layout, $means ?? new Means(), $anchorMs), $fromMs, $toMs);
    }

    /**
     * What a display plays by its schedule in [from, to), as one zone that takes turns; from then on its standby.
     *
     * @param int $fromMs UTC ms
     * @return array<string, mixed>
     */
    public static function ofProgramme(Programme $programme, ?Means $means, int $fromMs, int $toMs): array
    {
        $plan = Plan::ofProgramme($programme, ($means ?? new Means())->in($programme->clock->timezone));

        return self::written($programme->raster, Colour::black(), 0, $plan, $fromMs, $toMs);
    }

    /** @return array<string, mixed> */
    private static function written(Size $canvas, Colour $ground, int $anchorMs, Plan $plan, int $fromMs, int $toMs): array
    {
        return [
            'format' => self::FORMAT,
            'canvas' => $canvas->toArray(),
            'background' => $ground->hex,
            'anchor_ms' => $anchorMs,
            'layers' => self::layers($plan->layers, [[$fromMs, max($toMs, $fromMs + 1), $anchorMs]], $fromMs, $toMs),
        ];
    }

    /**
     * @param list<Part|ZonePlan> $layers
     * @param list<array{int, int, int}> $stretches when they are seen: from and to, and what they count from; Unix ms
     * @return list<array<string, mixed>>
     */
    private static function layers(array $layers, array $stretches, int $fromMs, int $toMs): array
    {
        $written = [];
        foreach ($layers as $layer) {
            if ($layer instanceof Part) {
                $written[] = ['part' => $layer->toArray() + ($layer->changing?->compiled() ?? [])];
                continue;
            }
            $scenes = [];
            foreach ($layer->scenes as $index => $scene) {
                $seen = in_array($index, $layer->booked, true) ? self::bookedIn($layer, $index, $stretches) : $stretches;
                $scenes[] = self::layers($scene, $seen, $fromMs, $toMs);
            }
            $written[] = ['zone' => $layer->element, 'rect' => $layer->box->toArray()] + self::loop($layer->loop, $layer->transitions) + ['scenes' => $scenes]
                + ($layer->isTurning() ? self::turns($layer, $stretches, $fromMs, $toMs) : []);
        }

        return $written;
    }

    /**
     * When what is booked is seen, and what it counts from.
     *
     * @param list<array{int, int, int}> $stretches of the zone
     * @return list<array{int, int, int}>
     */
    private static function bookedIn(ZonePlan $zone, int $scene, array $stretches): array
    {
        $seen = [];
        foreach ($stretches as [$from, $to]) {
            foreach ($zone->timetable?->between($from, $to) ?? [] as $play) {
                if ($zone->sceneOf($play) === $scene) {
                    $seen[] = [$play->fromMs, $play->toMs, $play->anchorMs];
                }
            }
        }

        return $seen;
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
     * @param list<array{int, int, int}> $stretches
     * @return array{loops: list<array<string, mixed>>, turns: list<array{from_ms: int, anchor_ms: ?int, loop: int}>}
     */
    private static function turns(ZonePlan $zone, array $stretches, int $fromMs, int $toMs): array
    {
        $loops = [];
        $places = [];
        $turns = [];
        $turn = static function (int $from, ?int $anchor, Loop $loop) use (&$loops, &$places, &$turns, $zone): void {
            $key = serialize([$loop->items, $loop->lengths]);
            if (!isset($places[$key])) {
                $places[$key] = count($loops);
                $loops[] = self::loop($loop, $zone->transitions);
            }
            $turns[] = ['from_ms' => $from, 'anchor_ms' => $anchor, 'loop' => $places[$key]];
        };
        if ($zone->begins === Begins::Item && $zone->rota !== null) {
            foreach ([$fromMs, ...$zone->rota->changes($fromMs, $toMs)] as $from) {
                $turn($from, null, $zone->rota->begunAt($from)[$zone->member]);
            }

            return ['loops' => $loops, 'turns' => $turns];
        }
        foreach ($stretches as [$from, $to, $anchor]) {
            $own = [[$from, $to]];
            if ($zone->timetable !== null) {
                $own = [];
                foreach ($zone->timetable->between($from, $to) as $play) {
                    $scene = $zone->sceneOf($play);
                    if ($scene === null) {
                        $own[] = [$play->fromMs, $play->toMs];
                    } else {
                        $turn($play->fromMs, $play->anchorMs, Loop::endless($scene));
                    }
                }
            }
            foreach ($own as [$begin, $end]) {
                foreach ($zone->rota?->anchored($anchor)->between($begin, $end) ?? [new Turn($begin, $end, $anchor, [$zone->member => $zone->loop])] as $one) {
                    $turn($one->fromMs, $one->anchorMs, $one->loops[$zone->member]);
                }
            }
        }
        if ($zone->standby !== null) {
            $turn($toMs, 0, Loop::endless($zone->standby));
        }
        usort($turns, static fn (array $a, array $b): int => $a['from_ms'] <=> $b['from_ms']);
        if ($turns === []) {
            $turn($fromMs, $fromMs, $zone->loop);
        }

        return ['loops' => $loops, 'turns' => $turns];
    }
}
