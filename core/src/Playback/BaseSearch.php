<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\ItemComings;
use UpperPane\Core\Time\Schedule\Play;
use UpperPane\Core\Time\Turn;
use UpperPane\Core\Time\Turns;
use UpperPane\Core\Units\WallClock;

/** Looks for something in what plays on the whole display: when it is first seen, or why it never is. */
final readonly class BaseSearch
{
    /** An item of a nested layout that is not reached in so many of its turns is not reached at all. */
    private const MOST_TURNS = 64;

    private WallClock $clock;

    public function __construct(private Base $base, private SearchTarget $target)
    {
        $this->clock = $base->clock;
    }

    /**
     * @param int $nowMs Unix ms
     * @return ?FirstShown null where nothing that is booked has it
     */
    public function first(int $nowMs): ?FirstShown
    {
        $whole = array_filter($this->base->whole, $this->target->isIn(...));
        $zones = array_filter(array_map(fn (array $booked): array => array_filter($booked, $this->target->isIn(...)), $this->base->zones));
        $hosts = array_filter($this->base->whole, static fn (Composed $layout): bool => array_intersect_key($layout->visible()->zones, $zones) !== []);
        $best = null;
        foreach ($whole === [] && $hosts === [] ? [] : FirstShown::SPANS_MS as $ahead) {
            $tried = [];
            foreach ($this->base->timetable()->between($nowMs, $nowMs + $ahead) as $play) {
                if ($best?->atMs !== null && $play->fromMs >= $best->atMs) {
                    break;
                }
                $key = $play->plays?->key();
                // What is switched off, or not reached in so much time where nothing comes and goes, is so at any other time as well.
                if (isset($whole[$key]) && $play->toMs - $play->fromMs > ($tried[$key] ?? 0)) {
                    $found = $this->within($whole[$key], $play->fromMs, $play->toMs, $play->anchorMs);
                    $best = FirstShown::better($best, $found);
                    if (in_array($found?->never, ['off', 'hidden', 'unreached'], true) && !$whole[$key]->isTurning()) {
                        $tried[$key] = $play->toMs - $play->fromMs;
                    }
                }
                if (isset($hosts[$key])) {
                    $best = FirstShown::better($best, $this->inZones($hosts[$key], $zones, $play));
                }
            }
            if ($best?->atMs !== null) {
                return $best;
            }
        }
        $never = null;
        foreach ([['', $whole], ...array_map(static fn (string|int $zone, array $booked): array => [(string) $zone, $booked], array_keys($zones), $zones)] as [$zone, $booked]) {
            foreach (array_keys($booked) as $key) {
                $never ??= $this->unplayed($zone === '' ? null : $zone, (string) $key, $nowMs);
            }
        }

        // Where it has its turn, what keeps it from being seen is in the layout.
        return $best ?? $never ?? ($whole === [] && $zones === [] ? null : new FirstShown(null, 'unbooked', 'nothing that is booked shows it'));
    }

    /** @param array<string, array<string, Composed>> $zones those that have it, by zone id and Played::key() */
    private function inZones(Composed $host, array $zones, Play $play): ?FirstShown
    {
        $best = null;
        $turns = $this->base->turns($host, $play->anchorMs);
        foreach (array_intersect_key($zones, $host->visible()->zones) as $id => $booked) {
            foreach ($turns[$id]->between($play->fromMs, $play->toMs) as $own) {
                $layout = $own->play?->plays === null ? null : $booked[$own->play->plays->key()] ?? null;
                if ($layout !== null) {
                    $best = FirstShown::better($best, $this->within($layout, $own->fromMs, $own->toMs, $own->anchorMs));
                }
                if ($best?->atMs !== null) {
                    break;
                }
            }
        }

        return $best;
    }

    /** Why what is booked has no turn in all the time that is looked at. */
    private function unplayed(?string $zone, string $key, int $nowMs): ?FirstShown
    {
        $never = null;
        $schedule = $this->base->schedule;
        if ($schedule === null) {
            return null;
        }
        foreach ($schedule->ranked($zone) as $booking) {
            if ($booking->plays->key() !== $key) {
                continue;
            }
            $why = FirstShown::turnless($schedule, $this->clock, $booking, $nowMs);
            if ($why === null || $why->never === 'outranked') {
                // Where it gets its turn, its zone or its layout is not seen then.
                return $why ?? $never;
            }
            $never ??= $why;
        }
        $standby = $schedule->standbyOf($zone);

        return $never ?? ($standby?->key() === $key ? new FirstShown(null, 'outranked', 'it is standby, and something is booked all the time') : null);
    }

    /**
     * @param int $fromMs the layout is seen in [from, to), Unix ms
     * @param int $anchorMs from which its loops count
     */
    private function within(Composed $layout, int $fromMs, int $toMs, int $anchorMs): ?FirstShown
    {
        if ($this->target->isLayout($layout)) {
            return new FirstShown($fromMs, null, 'it plays');
        }
        $best = null;
        $turns = null;
        // Worked out only where something that is looked for may be due.
        $turnsOf = function (string $id) use (&$turns, $layout, $anchorMs): Turns {
            $turns ??= $layout->turns($this->clock, $anchorMs);

            return $turns[$id];
        };
        $zones = PlayingZone::among($layout->elements);
        foreach ($layout->elements as $element) {
            $zone = $zones[$element->id()] ?? null;
            $best = FirstShown::better($best, match (true) {
                $element->isHidden() => $this->hidden($element, $zone, $layout),
                $zone !== null => FirstShown::better($this->inZone($zone, $layout, $turnsOf, $fromMs, $toMs), $this->asStandby($zone, $turnsOf, $fromMs, $toMs, $layout)),
                $this->target->isAlwaysIn($element) => new FirstShown($fromMs, null, sprintf('always in "%s"', $layout->name)),
                default => null,
            });
        }

        return $best;
    }

    private function hidden(Element $element, ?PlayingZone $zone, Composed $layout): ?FirstShown
    {
        $inside = $zone !== null && array_filter($zone->playlist->all(), fn (Item $item): bool => $this->target->isPlayedBy($zone, $item)) !== [];

        return $inside || $this->target->isAlwaysIn($element) ? new FirstShown(null, 'hidden', sprintf('"%s" of layout "%s" is hidden', $element->id(), $layout->name)) : null;
    }

    /** @param \Closure(string): Turns $turnsOf by zone id */
    private function asStandby(PlayingZone $zone, \Closure $turnsOf, int $fromMs, int $toMs, Composed $layout): ?FirstShown
    {
        if ($zone->standby === null || !$this->target->isIn($zone->standby)) {
            return null;
        }
        $scene = count($zone->playlist->enabled());
        foreach ($turnsOf($zone->id())->between($fromMs, $toMs) as $turn) {
            $found = $turn->loop->items === [$scene] && $turn->play === null ? $this->within($zone->standby, $turn->fromMs, $turn->toMs, $turn->anchorMs) : null;
            if ($found?->atMs !== null) {
                return $found;
            }
        }

        return new FirstShown(null, 'unreached', sprintf('it is standby of zone "%s" of "%s", whose list always has something to play', $zone->id(), $layout->name));
    }

    /** @param \Closure(string): Turns $turnsOf by zone id */
    private function inZone(PlayingZone $zone, Composed $layout, \Closure $turnsOf, int $fromMs, int $toMs): ?FirstShown
    {
        $enabled = $zone->playlist->enabled();
        $wanted = array_filter($enabled, fn (Item $item): bool => $this->target->isPlayedBy($zone, $item));
        $where = sprintf('zone "%s" of "%s"', $zone->id(), $layout->name);
        if ($wanted === []) {
            $off = array_filter($zone->playlist->all(), fn (Item $item): bool => $this->target->isPlayedBy($zone, $item)) !== [];

            return $off ? new FirstShown(null, 'off', "it is switched off in $where") : null;
        }
        // What runs at the beginning may be due no longer, and still goes on to its end.
        $due = array_filter($wanted, fn (Item $item): bool => $item->valid === null
            || $item->valid->isDueWithin($this->clock, intdiv($fromMs - ($zone->lengthMs($item) ?? 0), 1000) - 1, intdiv($toMs, 1000) + 1));
        if ($due === []) {
            return $this->undue($wanted, $where, true, $fromMs, $toMs);
        }
        $never = null;
        $tried = 0;
        $dueOnce = false;
        foreach ($turnsOf($zone->id())->between($fromMs, $toMs) as $turn) {
            if (array_intersect($turn->loop->items, array_keys($wanted)) === []) {
                continue;
            }
            $dueOnce = true;
            foreach ($this->pieces($turn) as $piece) {
                if (!isset($wanted[$piece['item']])) {
                    continue;
                }
                $item = $wanted[$piece['item']];
                $from = $piece['from'] + $turn->anchorMs;
                if ($item->layout === null || $this->target->isListOf($zone)) {
                    return new FirstShown($from, null, "in $where");
                }
                $found = $this->within($zone->layoutOf($item), $from, $piece['to'] + $turn->anchorMs, $from - $piece['offset']);
                if ($found?->atMs !== null || ++$tried >= self::MOST_TURNS) {
                    return $found;
                }
                $never = $found ?? $never;
            }
        }
        if ($dueOnce) {
            return $never ?? new FirstShown(null, 'unreached', "its turn in $where never comes in the time that it has");
        }

        return $this->undue($wanted, $where, ItemComings::areAny($zone->playlist), $fromMs, $toMs);
    }

    /** @return list<array{from: int, to: int, item: int, offset: int}> two rounds hold every slot whole; behind them nothing new comes */
    private function pieces(Turn $turn): array
    {
        $end = min($turn->toMs, $turn->fromMs + 2 * ($turn->loop->periodMs ?? array_sum($turn->loop->lengths)) + 1);

        return $turn->loop->between($turn->fromMs - $turn->anchorMs, $end - $turn->anchorMs);
    }

    /**
     * Why items of a list are never due.
     *
     * @param array<int, Item> $wanted
     */
    private function undue(array $wanted, string $where, bool $turning, int $fromMs, int $toMs): FirstShown
    {
        foreach ($wanted as $item) {
            $until = $item->valid?->until;
            if ($until !== null && $this->clock->utcOrBefore($until->seconds) * 1000 <= $fromMs) {
                return new FirstShown(null, 'expired', sprintf('in %s it is over since %s', $where, FirstShown::said($until)));
            }
            $from = $item->valid?->from;
            if ($from !== null && $this->clock->utcOrBefore($from->seconds) * 1000 >= $toMs) {
                return new FirstShown(null, 'expired', sprintf('in %s it begins only on %s', $where, FirstShown::said($from)));
            }
        }

        return $turning && array_filter($wanted, static fn (Item $item): bool => $item->valid !== null) !== []
            ? new FirstShown(null, 'hours', "its days and hours in $where leave no time for it")
            : new FirstShown(null, 'unreached', "something before it in $where plays without end");
    }
}
