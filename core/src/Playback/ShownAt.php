<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Time\TransitionKind;

/**
 * The central function: what a layout shows at an instant.
 *
 * Outermost zones count from the anchor; zones of a nested layout from the moment at which its item begins.
 */
final readonly class ShownAt
{
    private function __construct(private Size $canvas, private string $ground, private Plan $plan, private int $anchorMs)
    {
    }

    /** @param int $anchorMs UTC ms at which all loops begin; 1970-01-01T00:00:00Z unless a booking says otherwise */
    public static function of(Layout $layout, int $anchorMs = 0, ?Means $means = null): self
    {
        return new self($layout->canvas, $layout->background->hex, Plan::of($layout, $means ?? new Means(), $anchorMs), $anchorMs);
    }

    /** What a display shows by its schedule. */
    public static function ofProgramme(Programme $programme, ?Means $means = null): self
    {
        return new self($programme->raster, Colour::black()->hex, Plan::ofProgramme($programme, ($means ?? new Means())->in($programme->clock->timezone)), 0);
    }

    /** @param int $atMs the instant, UTC ms */
    public function at(int $atMs): Shown
    {
        $things = [];
        self::draw($this->plan->layers, $atMs, $atMs - $this->anchorMs, null, 1.0, $things);

        return new Shown($atMs, $this->canvas, $this->ground, $things);
    }

    /**
     * @param list<Part|ZonePlan> $layers
     * @param int $atMs the instant, UTC ms
     * @param int $sinceMs ms since the anchor of these layers
     * @param ?int $offsetMs into the item whose scene this is
     * @param list<Thing> $things
     */
    private static function draw(array $layers, int $atMs, int $sinceMs, ?int $offsetMs, float $opacity, array &$things): void
    {
        foreach ($layers as $layer) {
            if ($layer instanceof Part) {
                $things[] = new Thing($layer, $offsetMs, $opacity, $layer->changing === null ? [] : $layer->changing->at($layer, $atMs, $sinceMs, $layers));
                continue;
            }
            [$loop, $since, $turned] = !$layer->isTurning() ? [$layer->loop, $sinceMs, PHP_INT_MAX] : $layer->loopAt($atMs, $sinceMs);
            if ($loop->items === []) {
                continue;
            }
            $period = $loop->periodMs;
            $position = $period !== null && $since >= 0 ? $since % $period : $loop->position($since);
            $slot = $loop->slotAt($position);
            $offset = $position - $loop->starts[$slot];
            $item = $loop->items[$slot];
            $transition = $layer->transitions[$item];
            $own = $opacity;
            // A transition shows the item before, held at its end; at the very beginning there is none, nor after what is due has changed.
            if ($offset < $transition->ms && $offset < $turned && ($slot > 0 || ($loop->periodMs !== null && $since >= $loop->periodMs))) {
                $before = $slot > 0 ? $slot - 1 : count($loop->items) - 1;
                $leaving = [];
                self::draw($layer->scenes[$loop->items[$before]], $atMs, $loop->lengths[$before], $loop->lengths[$before], $opacity, $leaving);
                if ($transition->kind === TransitionKind::Fade) {
                    array_push($things, ...$leaving);
                    $own = $opacity * $offset / $transition->ms;
                } else {
                    $coming = [];
                    self::draw($layer->scenes[$item], $atMs, $offset, $offset, $opacity, $coming);
                    array_push($things, ...Moving::of($transition, $offset / $transition->ms, $layer->box, $leaving, $coming));
                    continue;
                }
            }
            // Nearly every scene is one picture or film: no need to walk it.
            if ($layer->parts[$item] !== null) {
                $things[] = new Thing($layer->parts[$item], $offset, $own);
            } else {
                self::draw($layer->scenes[$item], $atMs, $offset, $offset, $own, $things);
            }
        }
    }
}
