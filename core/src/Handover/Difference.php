<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Layout\Element;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Picture;
use UpperPane\Core\Layout\Text;
use UpperPane\Core\Layout\Zone;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Schedule;

/** What a viewer would see change from one layout to the next, in words. */
final readonly class Difference
{
    /** @return list<string> empty where nothing changes */
    public static function between(?Layout $old, Layout $new): array
    {
        if ($old === null) {
            return [sprintf('"%s" is the first to be handed over.', $new->name)];
        }
        [$old, $new] = [$old->visible(), $new->visible()];
        $words = [];
        if ($old->id !== $new->id) {
            $words[] = sprintf('"%s" takes the place of "%s".', $new->name, $old->name);
        }
        if (!$old->canvas->equals($new->canvas)) {
            $words[] = sprintf('Canvas: %s px, was %s px.', $new->canvas, $old->canvas);
        }
        if ($old->background->hex !== $new->background->hex) {
            $words[] = sprintf('Background: %s, was %s.', $new->background->hex, $old->background->hex);
        }
        foreach ($new->elements as $element) {
            $before = $old->element($element->id());
            if ($before === null || $before->kind() !== $element->kind()) {
                $words[] = sprintf('Added: %s "%s".', $element->kind(), $element->id());
            } else {
                $words = [...$words, ...self::changed($before, $element, $old, $new)];
            }
        }
        foreach ($old->elements as $element) {
            if ($new->element($element->id())?->kind() !== $element->kind()) {
                $words[] = sprintf('Removed: %s "%s".', $element->kind(), $element->id());
            }
        }
        $order = static fn (Layout $layout, Layout $other): array => array_values(array_filter(
            array_map(static fn (Element $element): string => $element->id(), $layout->elements),
            static fn (string $id): bool => $other->element($id) !== null,
        ));
        if ($order($old, $new) !== $order($new, $old)) {
            $words[] = 'The stacking order changes.';
        }

        return $words;
    }

    /**
     * What changes in what is booked, from one schedule to the next.
     *
     * @return list<string> empty where nothing changes
     */
    public static function ofSchedules(?Schedule $old, Schedule $new): array
    {
        if ($old === null) {
            return [sprintf('The schedule "%s" takes over, with %d %s.', $new->name, count($new->bookings), count($new->bookings) === 1 ? 'booking' : 'bookings')];
        }
        $words = [];
        if ($old->standby != $new->standby) {
            $words[] = sprintf('Standby: %s, was %s.', self::played($new->standby), self::played($old->standby));
        }
        $before = array_column($old->bookings, null, 'id');
        $after = array_column($new->bookings, null, 'id');
        foreach ($after as $id => $booking) {
            if (!isset($before[$id])) {
                $words[] = sprintf('Added: booking "%s".', $booking->name);
            } elseif ($before[$id] != $booking) {
                $words[] = sprintf('Changed: booking "%s".', $booking->name);
            }
        }
        foreach (array_diff_key($before, $after) as $booking) {
            $words[] = sprintf('Removed: booking "%s".', $booking->name);
        }

        return $words;
    }

    private static function played(?Played $played): string
    {
        return $played === null ? 'none' : "the $played->kind";
    }

    /** @return list<string> */
    private static function changed(Element $old, Element $new, Layout $oldLayout, Layout $newLayout): array
    {
        $words = [];
        if (!$old->rect()->equals($new->rect())) {
            $r = $new->rect();
            $s = $old->rect();
            $words[] = sprintf('Moved: "%s" to %d, %d with %s px, was %d, %d with %s px.', $new->id(), $r->x, $r->y, $r->size(), $s->x, $s->y, $s->size());
        }
        if ($old instanceof Zone && $new instanceof Zone) {
            $before = self::items($old, $oldLayout);
            $after = self::items($new, $newLayout);
            foreach (array_diff_key($after, $before) as $name => $ms) {
                $words[] = sprintf('"%s" plays %s too.', $new->id(), $name);
            }
            foreach (array_diff_key($before, $after) as $name => $ms) {
                $words[] = sprintf('"%s" no longer plays %s.', $new->id(), $name);
            }
            foreach (array_intersect_key($after, $before) as $name => $ms) {
                if ($ms !== $before[$name]) {
                    $words[] = sprintf('Retimed: %s in "%s" lasts %s, was %s.', $name, $new->id(), $ms, $before[$name]);
                }
            }
            if ($words === [] && self::written($old, $oldLayout) !== self::written($new, $newLayout)) {
                $words[] = sprintf('"%s" plays in another order or way.', $new->id());
            }
        } elseif ($old instanceof Text && $new instanceof Text) {
            if ($old->text !== $new->text) {
                $words[] = sprintf('"%s" says "%s", was "%s".', $new->id(), mb_strimwidth($new->text, 0, 60, '...'), mb_strimwidth($old->text, 0, 60, '...'));
            } elseif ($old->style->toArray() !== $new->style->toArray() || $old->marks != $new->marks) {
                $words[] = sprintf('"%s" is set in another style.', $new->id());
            }
        } elseif ($old instanceof Picture && $new instanceof Picture && $old->media->toArray() !== $new->media->toArray()) {
            $words[] = sprintf('"%s" shows %s, was %s.', $new->id(), $new->media->name, $old->media->name);
        } elseif ($old->rect()->equals($new->rect()) && $old != $new) {
            $words[] = sprintf('"%s" looks different.', $new->id());
        }

        return $words;
    }

    /** @return array<string, string> what plays, and what it lasts in words; of one thing played twice the durations of both */
    private static function items(Zone $zone, Layout $layout): array
    {
        $loop = $layout->loops[$zone->id()];
        $items = [];
        foreach ($zone->playlist->enabled() as $index => $item) {
            $name = $item->media !== null ? $item->media->name : $zone->layouts[$item->id]->name;
            $slot = array_search($index, $loop->items, true);
            $lasts = match (true) {
                $slot === false => 'no time',
                $loop->lengths[$slot] === 0 => 'without end',
                default => $loop->lengths[$slot] / 1000 . ' s',
            };
            $items[$name] = isset($items[$name]) ? "$items[$name] and $lasts" : $lasts;
        }

        return $items;
    }

    /** @return list<mixed> all of a zone's playing that a viewer could notice */
    private static function written(Zone $zone, Layout $layout): array
    {
        $loop = $layout->loops[$zone->id()];

        return [$loop->starts, $loop->items, array_map(
            static fn (Item $item): array => [$item->media?->toArray(), $item->fit->value, $item->focusX, $item->focusY, $item->transition->toArray(), serialize([$item->sound, $item->valid])],
            $zone->playlist->enabled(),
        )];
    }
}
