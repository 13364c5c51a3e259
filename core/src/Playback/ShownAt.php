<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Layout;

/**
 * The central function: what a layout shows at an instant.
 *
 * Outermost zones count from the anchor; zones of a nested layout from the moment at which its item begins.
 */
final readonly class ShownAt
{
    private function __construct(private Layout $layout, private Plan $plan, private int $anchorMs)
    {
    }

    /** @param int $anchorMs UTC ms at which all loops begin; 1970-01-01T00:00:00Z unless a booking says otherwise */
    public static function of(Layout $layout, int $anchorMs = 0, ?Means $means = null): self
    {
        return new self($layout, Plan::of($layout, $means ?? new Means()), $anchorMs);
    }

    /** @param int $atMs the instant, UTC ms */
    public function at(int $atMs): Shown
    {
        $things = [];
        self::draw($this->plan->layers, $atMs, $atMs - $this->anchorMs, null, 1.0, $things);

        return new Shown($atMs, $this->layout->canvas, $this->layout->background->hex, $things);
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
            $loop = $layer->loop;
            if ($loop->items === []) {
                continue;
            }
            $period = $loop->periodMs;
            $position = $period !== null && $sinceMs >= 0 ? $sinceMs % $period : $loop->position($sinceMs);
            $slot = $loop->slotAt($position);
            $offset = $position - $loop->starts[$slot];
            $item = $loop->items[$slot];
            $fade = $layer->fades[$item];
            $own = $opacity;
            // A fade shows the item before, held at its end; at the very beginning of an endless loop there is none.
            if ($offset < $fade && ($slot > 0 || ($loop->periodMs !== null && $sinceMs >= $loop->periodMs))) {
                $before = $slot > 0 ? $slot - 1 : count($loop->items) - 1;
                self::draw($layer->scenes[$loop->items[$before]], $atMs, $loop->lengths[$before], $loop->lengths[$before], $opacity, $things);
                $own = $opacity * $offset / $fade;
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
