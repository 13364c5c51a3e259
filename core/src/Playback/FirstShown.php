<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Zone;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\Rota;
use UpperPane\Core\Time\Schedule\Booking;
use UpperPane\Core\Time\Schedule\Contest;
use UpperPane\Core\Time\Schedule\Play;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Turn;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** When a layout, a playlist or a media is next seen where it plays; or why it never is. */
final readonly class FirstShown
{
    /** So far ahead it is looked for; a yearly booking is found. */
    public const AHEAD_MS = 366 * 86_400_000;

    /** Most is seen within two weeks; only what is not is looked for over the year. */
    private const SPANS_MS = [14 * 86_400_000, self::AHEAD_MS];

    /** An item of a nested layout that is not reached in so many of its turns is not reached at all. */
    private const MOST_TURNS = 64;

    /**
     * @param ?int $atMs Unix ms; null for never
     * @param ?string $never `off`, `hidden`, `expired`, `hours`, `outranked`, `unreached` or `unbooked`
     */
    private function __construct(public ?int $atMs, public ?string $never, public string $why)
    {
    }

    /** @return array{at: ?string, never: ?string, why: string} */
    public function toArray(): array
    {
        return ['at' => $this->atMs === null ? null : (string) Instant::ofMs($this->atMs), 'never' => $this->never, 'why' => $this->why];
    }

    /** What plays as a whole is seen at once. */
    public static function now(int $nowMs): self
    {
        return new self($nowMs, null, 'it plays');
    }

    /**
     * In a layout that plays without end.
     *
     * @param string $timezone of the display
     * @param int $nowMs Unix ms
     * @return ?self null where it is not in the layout at all
     */
    public static function inLayout(Layout $layout, Sought $sought, string $timezone, int $nowMs): ?self
    {
        return self::within($layout, $sought, WallClock::in($timezone), $nowMs, $nowMs + self::AHEAD_MS, 0);
    }

    /**
     * On a display by its schedule.
     *
     * @param int $nowMs Unix ms
     * @return ?self null where nothing that is booked has it
     */
    public static function inProgramme(Programme $programme, Sought $sought, int $nowMs): ?self
    {
        $whole = array_filter($programme->whole, $sought->isIn(...));
        $zones = array_filter(array_map(static fn (array $booked): array => array_filter($booked, $sought->isIn(...)), $programme->zones));
        $hosts = array_filter($programme->whole, static fn (Layout $layout): bool => array_intersect_key($layout->visible()->zones, $zones) !== []);
        $best = null;
        foreach ($whole === [] && $hosts === [] ? [] : self::SPANS_MS as $ahead) {
            $tried = [];
            foreach ($programme->timetable()->between($nowMs, $nowMs + $ahead) as $play) {
                if ($best?->atMs !== null && $play->fromMs >= $best->atMs) {
                    break;
                }
                $key = $play->plays?->key();
                // What is switched off, or not reached in so much time where nothing comes and goes, is so at any other time as well.
                if (isset($whole[$key]) && $play->toMs - $play->fromMs > ($tried[$key] ?? 0)) {
                    $found = self::within($whole[$key], $sought, $programme->clock, $play->fromMs, $play->toMs, $play->anchorMs);
                    $best = self::better($best, $found);
                    if (in_array($found?->never, ['off', 'hidden', 'unreached'], true) && !self::isTurning($whole[$key])) {
                        $tried[$key] = $play->toMs - $play->fromMs;
                    }
                }
                if (isset($hosts[$key])) {
                    $best = self::better($best, self::inZones($programme, $hosts[$key], $zones, $sought, $play));
                }
            }
            if ($best?->atMs !== null) {
                return $best;
            }
        }
        $never = null;
        foreach ([['', $whole], ...array_map(static fn (string|int $zone, array $booked): array => [(string) $zone, $booked], array_keys($zones), $zones)] as [$zone, $booked]) {
            foreach (array_keys($booked) as $key) {
                $never ??= self::unplayed($programme, $zone === '' ? null : $zone, (string) $key, $nowMs);
            }
        }

        // Where it has its turn, what keeps it from being seen is in the layout.
        return $best ?? $never ?? ($whole === [] && $zones === [] ? null : new self(null, 'unbooked', 'nothing that is booked shows it'));
    }

    /** Whether anything comes and goes in a layout, or in one within it. */
    private static function isTurning(Layout $layout): bool
    {
        foreach ($layout->zones as $zone) {
            if (Rota::isNeeded($zone->playlist) || array_filter($zone->layouts, self::isTurning(...)) !== []) {
                return true;
            }
        }

        return false;
    }

    /** @param array<string, array<string, Layout>> $zones */
    private static function inZones(Programme $programme, Layout $host, array $zones, Sought $sought, Play $play): ?self
    {
        $best = null;
        foreach (array_intersect_key($zones, $host->visible()->zones) as $id => $booked) {
            foreach ($programme->timetable((string) $id)->between($play->fromMs, $play->toMs) as $own) {
                $layout = $own->plays === null ? null : $booked[$own->plays->key()] ?? null;
                if ($layout !== null) {
                    $best = self::better($best, self::within($layout, $sought, $programme->clock, $own->fromMs, $own->toMs, $own->anchorMs));
                }
                if ($best?->atMs !== null) {
                    break;
                }
            }
        }

        return $best;
    }

    /**
     * A booking alone: when it has its next turn, by the schedule in which it stands.
     *
     * @param int $nowMs Unix ms
     */
    public static function ofBooking(Schedule $schedule, WallClock $clock, Booking $booking, int $nowMs): self
    {
        foreach (self::SPANS_MS as $ahead) {
            foreach (Plays::of($schedule, $clock, $nowMs, $nowMs + $ahead, $booking->zone)->pieces as $play) {
                if ($play->booking?->id === $booking->id) {
                    return new self($play->fromMs, null, $play->why());
                }
            }
        }

        return self::turnless($schedule, $clock, $booking, $nowMs) ?? new self(null, 'expired', sprintf('booking "%s" has no occurrence within a year', $booking->name));
    }

    /** Why a booking has no turn in all the time that is looked at; null where it has one. */
    private static function turnless(Schedule $schedule, WallClock $clock, Booking $booking, int $nowMs): ?self
    {
        $to = intdiv($nowMs + self::AHEAD_MS, 1000);
        $contest = Contest::of($schedule, $clock, intdiv($nowMs, 1000), $to, $booking->zone);
        if ($contest->playedS[$booking->id] > 0) {
            return null;
        }
        if ($contest->dueS[$booking->id] > 0) {
            $names = array_column($schedule->bookings, 'name', 'id');
            $others = array_map(static fn (string $id): string => sprintf('"%s"', $names[$id]), array_keys($contest->hidden[$booking->id] ?? []));

            return new self(
                null,
                'outranked',
                sprintf('booking "%s" never gets its turn: %s %s before it', $booking->name, implode(' and ', $others), count($others) === 1 ? 'goes' : 'go'),
            );
        }
        $last = $booking->until ?? ($booking->rule === null ? $booking->end : null);

        return new self(null, 'expired', $last === null || $clock->utcOrBefore($last->seconds) > $to
            ? sprintf('booking "%s" has no occurrence within a year', $booking->name)
            : sprintf('booking "%s" is over since %s', $booking->name, self::said($last)));
    }

    /** Why what is booked has no turn in all the time that is looked at. */
    private static function unplayed(Programme $programme, ?string $zone, string $key, int $nowMs): ?self
    {
        $never = null;
        foreach ($programme->schedule->ranked($zone) as $booking) {
            if ($booking->plays->key() !== $key) {
                continue;
            }
            $why = self::turnless($programme->schedule, $programme->clock, $booking, $nowMs);
            if ($why === null || $why->never === 'outranked') {
                // Where it gets its turn, its zone or its layout is not seen then.
                return $why ?? $never;
            }
            $never ??= $why;
        }
        $standby = $programme->schedule->standbyOf($zone);

        return $never ?? ($standby?->key() === $key ? new self(null, 'outranked', 'it is standby, and something is booked all the time') : null);
    }

    /**
     * @param int $fromMs the layout is seen in [from, to), Unix ms
     * @param int $anchorMs from which its loops count
     */
    private static function within(Layout $layout, Sought $sought, WallClock $clock, int $fromMs, int $toMs, int $anchorMs): ?self
    {
        if ($sought->isLayout($layout)) {
            return new self($fromMs, null, 'it plays');
        }
        $best = null;
        $rotas = null;
        // Worked out only where something that is looked for may be due.
        $rotaOf = static function (string $id) use (&$rotas, $layout, $clock, $anchorMs): ?array {
            $rotas ??= $layout->rotas($clock->timezone, $anchorMs);

            return $rotas[$id] ?? null;
        };
        foreach ($layout->elements as $element) {
            if ($element->isHidden()) {
                $inside = $element instanceof Zone && array_filter($element->playlist->all(), static fn (Item $item): bool => self::plays($element, $item, $sought)) !== [];
                $best = $inside || $sought->isPicture($element) ? self::better($best, new self(null, 'hidden', sprintf('"%s" of layout "%s" is hidden', $element->id(), $layout->name))) : $best;
            } elseif ($sought->isPicture($element)) {
                $best = self::better($best, new self($fromMs, null, sprintf('always in "%s"', $layout->name)));
            } elseif ($element instanceof Zone) {
                $best = self::better($best, self::inZone($element, $layout, $rotaOf, $sought, $clock, $fromMs, $toMs, $anchorMs));
            }
        }

        return $best;
    }

    /** @param \Closure(string): ?array{Rota, int} $rotaOf by zone id */
    private static function inZone(Zone $zone, Layout $layout, \Closure $rotaOf, Sought $sought, WallClock $clock, int $fromMs, int $toMs, int $anchorMs): ?self
    {
        $enabled = $zone->playlist->enabled();
        $wanted = array_filter($enabled, static fn (Item $item): bool => self::plays($zone, $item, $sought));
        $where = sprintf('zone "%s" of "%s"', $zone->id(), $layout->name);
        if ($wanted === []) {
            $off = array_filter($zone->playlist->all(), static fn (Item $item): bool => self::plays($zone, $item, $sought)) !== [];

            return $off ? new self(null, 'off', "it is switched off in $where") : null;
        }
        // What runs at the beginning may be due no longer, and still goes on to its end.
        $due = array_filter($wanted, static fn (Item $item): bool => $item->valid === null
            || $item->valid->isDueWithin($clock, intdiv($fromMs - ($zone->lengthMs($item) ?? 0), 1000) - 1, intdiv($toMs, 1000) + 1));
        if ($due === []) {
            return self::undue($wanted, $where, true, $clock, $fromMs, $toMs);
        }
        $rota = $rotaOf($zone->id());
        $never = null;
        $tried = 0;
        $dueOnce = false;
        $turns = $rota === null ? [new Turn($fromMs, $toMs, $anchorMs, [$layout->loops[$zone->id()]])] : $rota[0]->between($fromMs, $toMs);
        foreach ($turns as $turn) {
            $loop = $turn->loops[$rota[1] ?? 0];
            if (array_intersect($loop->items, array_keys($wanted)) === []) {
                continue;
            }
            $dueOnce = true;
            // Two rounds hold every slot whole; behind them nothing new comes.
            $end = min($turn->toMs, $turn->fromMs + 2 * ($loop->periodMs ?? array_sum($loop->lengths)) + 1);
            foreach ($loop->between($turn->fromMs - $turn->anchorMs, $end - $turn->anchorMs) as $piece) {
                if (!isset($wanted[$piece['item']])) {
                    continue;
                }
                $item = $wanted[$piece['item']];
                $from = $piece['from'] + $turn->anchorMs;
                if ($item->layout === null || $sought->isListOf($zone)) {
                    return new self($from, null, "in $where");
                }
                $found = self::within($zone->layouts[$item->id], $sought, $clock, $from, $piece['to'] + $turn->anchorMs, $from - $piece['offset']);
                if ($found?->atMs !== null || ++$tried >= self::MOST_TURNS) {
                    return $found;
                }
                $never = $found ?? $never;
            }
        }
        if ($dueOnce) {
            return $never ?? new self(null, 'unreached', "its turn in $where never comes in the time that it has");
        }

        return self::undue($wanted, $where, $rota !== null, $clock, $fromMs, $toMs);
    }

    /**
     * Why items of a list are never due.
     *
     * @param array<int, Item> $wanted
     */
    private static function undue(array $wanted, string $where, bool $turning, WallClock $clock, int $fromMs, int $toMs): self
    {
        foreach ($wanted as $item) {
            $until = $item->valid?->until;
            if ($until !== null && $clock->utcOrBefore($until->seconds) * 1000 <= $fromMs) {
                return new self(null, 'expired', sprintf('in %s it is over since %s', $where, self::said($until)));
            }
            $from = $item->valid?->from;
            if ($from !== null && $clock->utcOrBefore($from->seconds) * 1000 >= $toMs) {
                return new self(null, 'expired', sprintf('in %s it begins only on %s', $where, self::said($from)));
            }
        }

        return $turning && array_filter($wanted, static fn (Item $item): bool => $item->valid !== null) !== []
            ? new self(null, 'hours', "its days and hours in $where leave no time for it")
            : new self(null, 'unreached', "something before it in $where plays without end");
    }

    private static function plays(Zone $zone, Item $item, Sought $sought): bool
    {
        return $sought->isListOf($zone) || $sought->isItem($item) || ($item->layout !== null && $sought->isIn($zone->layouts[$item->id]));
    }

    /** The earlier of two; of two reasons the first. */
    private static function better(?self $one, ?self $other): ?self
    {
        return match (true) {
            $one === null => $other,
            $other === null => $one,
            $one->atMs === null => $other->atMs === null ? $one : $other,
            default => $other->atMs !== null && $other->atMs < $one->atMs ? $other : $one,
        };
    }

    private static function said(LocalTime $time): string
    {
        return strtr(substr((string) $time, 0, 16), 'T', ' ');
    }
}
