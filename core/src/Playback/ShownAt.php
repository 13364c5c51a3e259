<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Time\TransitionKind;

/**
 * The central function: what a programme shows at an instant.
 *
 * Outermost zones count from the anchor; zones of a nested layout from the moment at which its item begins.
 */
final readonly class ShownAt
{
    /** @param list<list<Part|ZonePlan>> $tracks lowest first */
    private function __construct(private Programme $programme, private array $tracks)
    {
    }

    public static function of(Programme $programme, ?Surroundings $surroundings = null): self
    {
        $surroundings = ($surroundings ?? new Surroundings())->in($programme->clock()->timezone);

        return new self($programme, array_map(static fn (Track $track): array => $track->layers($surroundings), $programme->tracks()));
    }

    /**
     * @param int $atMs the instant, UTC ms
     * @return Shown<ShownPart>
     */
    public function at(int $atMs): Shown
    {
        $things = [];
        foreach ($this->tracks as $layers) {
            if (($layers[0] ?? null) instanceof ZonePlan && $layers[0]->alone) {
                $own = self::drawn($layers, $atMs, $atMs - $this->programme->anchorMs());
                $things = $own === [] ? $things : $own;
            } else {
                self::draw($layers, $atMs, $atMs - $this->programme->anchorMs(), null, 1.0, $things);
            }
        }

        return new Shown($atMs, $this->programme->canvas(), $this->programme->background()->hex, $things);
    }

    /**
     * What layers draw at an instant.
     *
     * @param list<Part|ZonePlan> $layers
     * @param int $atMs UTC ms
     * @param int $sinceMs ms since their anchor
     * @return list<ShownPart>
     */
    public static function drawn(array $layers, int $atMs, int $sinceMs): array
    {
        $things = [];
        self::draw($layers, $atMs, $sinceMs, null, 1.0, $things);

        return $things;
    }

    /**
     * The first instant behind this one at which something else takes its turn, UTC ms; what changes at every instant by itself is another matter.
     *
     * @return int PHP_INT_MAX where nothing ever does
     */
    public function nextChange(int $atMs): int
    {
        return min(PHP_INT_MAX, ...array_map(fn (array $layers): int => self::changes($layers, $atMs, $atMs - $this->programme->anchorMs()), $this->tracks));
    }

    /** @param list<Part|ZonePlan> $layers */
    private static function changes(array $layers, int $atMs, int $sinceMs): int
    {
        $next = PHP_INT_MAX;
        foreach ($layers as $layer) {
            if ($layer instanceof Part) {
                continue;
            }
            [$loop, $since] = $layer->loopAt($atMs, $sinceMs);
            $next = min($next, $layer->steady !== null ? PHP_INT_MAX : $layer->turns->anchored($atMs - $sinceMs)->nextChange($atMs) ?? PHP_INT_MAX);
            if ($loop->items === []) {
                continue;
            }
            $slot = $loop->slotAt($loop->position($since));
            $offset = $loop->position($since) - $loop->starts[$slot];
            $isLast = $loop->periodMs === null && $slot === count($loop->items) - 1;
            $ends = $loop->starts[$slot] + $loop->lengths[$slot] - ($loop->periodMs === null ? $since : $loop->position($since));
            $inside = $layer->through ? $sinceMs : $offset;
            $next = min($next, $isLast ? PHP_INT_MAX : $atMs + $ends, self::changes($layer->scenes->scene($loop->items[$slot])->layers(), $atMs, $inside));
        }

        return $next;
    }

    /**
     * @param list<Part|ZonePlan> $layers
     * @param int $atMs the instant, UTC ms
     * @param int $sinceMs ms since the anchor of these layers
     * @param ?int $offsetMs into the item whose scene this is
     * @param list<ShownPart> $things
     */
    private static function draw(array $layers, int $atMs, int $sinceMs, ?int $offsetMs, float $opacity, array &$things): void
    {
        foreach ($layers as $layer) {
            if ($layer instanceof Part) {
                $things[] = new ShownPart($layer, $offsetMs, $opacity, $layer->changing === null ? [] : $layer->changing->at($layer, $atMs, $sinceMs, $layers));
                continue;
            }
            [$loop, $since, $turned] = $layer->steady !== null ? [$layer->steady, $sinceMs, PHP_INT_MAX] : $layer->loopAt($atMs, $sinceMs);
            if ($loop->items === []) {
                continue;
            }
            $period = $loop->periodMs;
            $position = $period !== null && $since >= 0 ? $since % $period : $loop->position($since);
            $slot = $loop->slotAt($position);
            $offset = $position - $loop->starts[$slot];
            $item = $loop->items[$slot];
            if ($layer->through) {
                self::draw($layer->scenes->scene($item)->layers(), $atMs, $sinceMs, $offsetMs, $opacity, $things);
                continue;
            }
            $transition = $layer->scenes->transition($item);
            $own = $opacity;
            // A transition shows the item before, held at its end; at the very beginning there is none, nor after what is due has changed.
            if ($offset < $transition->ms && $offset < $turned && ($slot > 0 || ($loop->periodMs !== null && $since >= $loop->periodMs))) {
                $before = $slot > 0 ? $slot - 1 : count($loop->items) - 1;
                $leaving = [];
                self::draw($layer->scenes->scene($loop->items[$before])->layers(), $atMs, $loop->lengths[$before], $loop->lengths[$before], $opacity, $leaving);
                if ($transition->kind === TransitionKind::Fade) {
                    array_push($things, ...$leaving);
                    $own = $opacity * $offset / $transition->ms;
                } else {
                    $coming = [];
                    self::draw($layer->scenes->scene($item)->layers(), $atMs, $offset, $offset, $opacity, $coming);
                    array_push($things, ...Moving::of($transition, $offset / $transition->ms, $layer->box, $leaving, $coming));
                    continue;
                }
            }
            // Nearly every scene is one picture or film: no need to walk it.
            $scene = $layer->scenes->scene($item);
            if ($scene->part !== null) {
                $things[] = new ShownPart($scene->part, $layer->anew ? null : $offset, $own);
            } else {
                self::draw($scene->layers(), $atMs, $offset, $layer->anew ? null : $offset, $own, $things);
            }
        }
    }
}
