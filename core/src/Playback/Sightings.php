<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Time\Loop;

/** All that layers show in a span, each part once with the first instant at which it is seen there: without looking at every instant. */
final class Sightings
{
    /** @var array<int, true> scenes that have been gone through, in which nothing ever takes another turn */
    private array $known = [];

    /** @var \SplObjectStorage<Part, int> */
    private \SplObjectStorage $seen;

    private function __construct()
    {
        $this->seen = new \SplObjectStorage();
    }

    /**
     * @param list<Part|ZonePlan> $layers
     * @param int $fromMs UTC ms; what is seen in [from, to) is told
     * @param int $anchorMs that the layers count from
     * @return \SplObjectStorage<Part, int> when each is seen first, UTC ms
     */
    public static function in(array $layers, int $fromMs, int $toMs, int $anchorMs): \SplObjectStorage
    {
        $sightings = new self();
        $sightings->look($layers, $fromMs, $toMs, $anchorMs);

        return $sightings->seen;
    }

    /** @param list<Part|ZonePlan> $layers */
    private function look(array $layers, int $fromMs, int $toMs, int $anchorMs): void
    {
        foreach ($layers as $layer) {
            if ($layer instanceof Part) {
                $this->seen[$layer] ??= $fromMs;
                continue;
            }
            if ($layer->steady !== null) {
                $this->loop($layer, $layer->steady, $fromMs, $toMs, $anchorMs);
                continue;
            }
            $turns = $layer->turns->anchored($anchorMs);
            if ($layer->begins && !$layer->walks) {
                // What is due at its beginning stays until it ends.
                [$loop, $since] = $layer->loopAt($fromMs, $fromMs - $anchorMs);
                $this->loop($layer, $loop, $fromMs, $toMs, $fromMs - $since);
                continue;
            }
            foreach ($turns->between($fromMs, $toMs) as $turn) {
                $this->loop($layer, $turn->loop, $turn->fromMs, $turn->toMs, $turn->anchorMs);
            }
        }
    }

    private function loop(ZonePlan $zone, Loop $loop, int $fromMs, int $toMs, int $anchorMs): void
    {
        if ($loop->items === []) {
            return;
        }
        $isNew = false;
        foreach ($loop->items as $item) {
            $isNew = $isNew || !isset($this->known[spl_object_id($zone->scenes->scene($item))]);
        }
        for ($at = $fromMs, $count = 0; $isNew && $at < $toMs; $at = $ends) {
            $position = $loop->position($at - $anchorMs);
            $slot = $loop->slotAt($position);
            $offset = $position - $loop->starts[$slot];
            $isLast = $loop->periodMs === null && $slot === count($loop->items) - 1;
            $waiting = $loop->periodMs === null ? max(0, $anchorMs - $at) : 0;
            $ends = $isLast ? $toMs : min($toMs, $at + $waiting + max(1, $loop->lengths[$slot] - $offset));
            $scene = $zone->scenes->scene($loop->items[$slot]);
            if (!isset($this->known[spl_object_id($scene)])) {
                $this->look($scene->layers(), $at, $ends, $at - $offset);
                // Seen from its beginning to its end, all of it has been seen; what has no zones, at once.
                $isWhole = $offset === 0 && $ends - $at - $waiting === $loop->lengths[$slot];
                $this->known += $this->isLeaf($scene) || ($isWhole && self::isSteady($scene->layers())) ? [spl_object_id($scene) => true] : [];
                $count = 0;
            } elseif (++$count > count($loop->items)) {
                // A whole round in which nothing was new: so will all others be.
                break;
            }
        }
    }

    private function isLeaf(Scene $scene): bool
    {
        return array_filter($scene->layers(), static fn (Part|ZonePlan $one): bool => $one instanceof ZonePlan) === [];
    }

    /** @param list<Part|ZonePlan> $layers */
    private static function isSteady(array $layers): bool
    {
        foreach ($layers as $layer) {
            if ($layer instanceof ZonePlan && $layer->steady === null) {
                return false;
            }
            if ($layer instanceof ZonePlan) {
                foreach ($layer->loop->items as $item) {
                    if (!self::isSteady($layer->scenes->scene($item)->layers())) {
                        return false;
                    }
                }
            }
        }

        return true;
    }
}
