<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Zone;

use UpperPane\Core\Layout\LayoutChanges;
use UpperPane\Core\Time\Item;

/** What a viewer would see change in a zone from one handover to the next, down to the last layout within it. */
final readonly class ZoneChanges
{
    /** @return list<string> in words; empty where nothing changes */
    public static function between(PlayingZone $old, PlayingZone $new): array
    {
        $id = $new->id();
        [$before, $after] = [self::items($old), self::items($new)];
        $words = [];
        foreach (array_diff_key($after, $before) as $name => $ms) {
            $words[] = sprintf('"%s" plays %s too.', $id, $name);
        }
        foreach (array_diff_key($before, $after) as $name => $ms) {
            $words[] = sprintf('"%s" no longer plays %s.', $id, $name);
        }
        foreach (array_intersect_key($after, $before) as $name => $ms) {
            if ($ms !== $before[$name]) {
                $words[] = sprintf('Retimed: %s in "%s" lasts %s, was %s.', $name, $id, $ms, $before[$name]);
            }
        }
        if ($words === [] && self::way($old) !== self::way($new)) {
            $words[] = sprintf('"%s" plays in another order or way.', $id);
        }
        if ($old->ground?->hex !== $new->ground?->hex) {
            $words[] = sprintf('"%s" has another ground.', $id);
        }

        return [...$words, ...self::within($old, $new), ...self::standby($old, $new)];
    }

    /** @return array<string, string> what plays, and what it lasts in words; of one thing played twice the durations of both */
    private static function items(PlayingZone $zone): array
    {
        $loop = $zone->loop(null);
        $enabled = $zone->playlist->enabled();
        $items = [];
        $slots = [];
        foreach ($loop->items as $slot => $place) {
            $slots[$enabled[$place]->id] ??= $slot;
        }
        foreach ($zone->list->enabled() as $item) {
            $name = $zone->nameOf($item);
            $slot = $slots[$item->id] ?? false;
            $lasts = match (true) {
                $zone->follows !== null => 'its leader\'s time',
                // Whether it has a row by now is no matter of the design.
                isset($zone->each[$item->id]) => ($zone->lengthMs($item) ?? 0) / 1000 . ' s each',
                $slot === false => 'no time',
                $loop->lengths[$slot] === 0 => 'without end',
                default => $loop->lengths[$slot] / 1000 . ' s',
            };
            $items[$name] = isset($items[$name]) ? "$items[$name] and $lasts" : $lasts;
        }

        return $items;
    }

    /** @return list<mixed> all of a zone's playing that a viewer could notice */
    private static function way(PlayingZone $zone): array
    {
        return [$zone->follows, $zone->list->cycle(), array_map(
            static fn (Item $item): array => [
                $item->media?->toArray(),
                $item->fit->value,
                $item->focusX,
                $item->focusY,
                $item->transition->toArray(),
                serialize([$item->sound, $item->valid]),
                $item->each?->key(),
            ],
            $zone->list->enabled(),
        )];
    }

    /** @return list<string> of the layouts that both play */
    private static function within(PlayingZone $old, PlayingZone $new): array
    {
        $before = [];
        foreach ($old->list->enabled() as $item) {
            if ($item->media === null) {
                $before[$old->layouts[$item->id]->id] = $old->layouts[$item->id];
            }
        }
        $words = [];
        foreach ($new->list->enabled() as $item) {
            $layout = $item->media === null ? $new->layouts[$item->id] : null;
            if ($layout !== null && isset($before[$layout->id])) {
                array_push($words, ...LayoutChanges::within($before[$layout->id], $layout));
                unset($before[$layout->id]);
            }
        }

        return $words;
    }

    /** @return list<string> */
    private static function standby(PlayingZone $old, PlayingZone $new): array
    {
        $names = array_map(static fn (PlayingZone $zone): string => $zone->standby === null ? 'none' : sprintf('"%s"', $zone->standby->name), [$old, $new]);

        return $names[0] !== $names[1]
            ? [sprintf('Standby of "%s": %s, was %s.', $new->id(), $names[1], $names[0])]
            : ($old->standby === null || $new->standby === null ? [] : LayoutChanges::within($old->standby, $new->standby));
    }
}
