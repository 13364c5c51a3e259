<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\BudgetExceeded;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Overlay\After;
use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Overlay\OverlayTimetable;
use UpperPane\Core\Overlay\Piece;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Turn;
use UpperPane\Core\Time\Turns;
use UpperPane\Core\Units\Integers;

/** Which overlays are in force over what plays from when to when: by their times, after its items, and but for those that its items leave out. */
final class OverlayCourse
{
    /** So many lists of what is in force are kept as values of their own. */
    private const KEPT = 256;

    /** A round of more changes is written out as it goes on, not as a round. */
    private const LONGEST_ROUND = 5_000;

    /** So far it is looked ahead at once for what comes next, ms. */
    private const AHEAD_MS = 14 * 86_400_000;

    private ?OverlayTimetable $timetable = null;

    private ?bool $goesByTimeAlone = null;

    /** @var array<string, Piece> what is in force where items say so, by what that is */
    private array $pieces = [];

    /** @var array<string, array<string, Turns>> what takes turns in what plays, by zone; by its id and what it counts from */
    private array $turns = [];

    /** @var list<list<InForce>> what is in force together, by number */
    private array $lists = [];

    /** @var array<string, int> their numbers, by what is in force */
    private array $numbers = [];

    /** @var \WeakMap<Piece, int> the numbers of what has been asked for */
    private \WeakMap $numbered;

    /** @var ?array{int, int, list<Turn>} that of the last answer */
    private ?array $last = null;

    public function __construct(private readonly Base $base, public readonly Overlays $overlays)
    {
        $this->numbered = new \WeakMap();
    }

    /** @throws DocumentRefused where one comes after items of a zone that is not there */
    public function check(): void
    {
        foreach ($this->overlays->all as $overlay) {
            $after = $overlay->when->after;
            if ($after !== null) {
                array_map(static fn (Composed $layout): PlayingZone => self::zone($layout, $after->zone) ?? throw self::zoneless($after, $layout), $this->base->whole);
            }
        }
    }

    /**
     * What is in force at an instant, one value as long as that is the same.
     *
     * @param int $ms Unix ms
     * @throws DocumentRefused where one comes after items of a zone that is not there
     */
    public function at(int $ms): Piece
    {
        $piece = ($this->timetable ??= new OverlayTimetable($this->overlays, $this->base->clock))->at($ms);
        if ($this->goesByTimeAlone()) {
            return $piece;
        }
        $play = $this->base->timetable()->at($ms);
        $layout = $play->plays === null ? null : $this->base->whole[$play->plays->key()] ?? null;
        $turns = $layout === null ? [] : $this->turnsOf($layout, $play->anchorMs, $piece->standing);
        $standing = self::standing($piece->standing, array_map(static fn (array $one): array => [$one[0], $one[1]->at($ms)], $turns), $ms);
        $key = implode(' ', array_map(static fn (InForce $one): string => "{$one->overlay->id}@$one->anchorMs", $standing));
        $this->pieces = count($this->pieces) < self::KEPT ? $this->pieces : [];

        return $this->pieces[$key] ??= new Piece($ms, $ms + 1, $standing);
    }

    /** The number of what is in force at an instant (list), Unix ms. */
    public function numberAt(int $ms): int
    {
        $piece = $this->at($ms);

        return $this->numbered[$piece] ??= $this->number($piece->standing);
    }

    /** Whether neither items that end nor items that do without say what is in force. */
    public function goesByTimeAlone(): bool
    {
        return $this->goesByTimeAlone ??= array_filter($this->overlays->all, static fn (Overlay $one): bool => $one->when->after !== null) === []
            && array_filter($this->base->whole, self::leavesOut(...)) === [];
    }

    /** Whether an overlay is in force at every instant. */
    public function isSteady(Overlay $overlay): bool
    {
        $without = static fn (Composed $layout): bool => array_filter(
            self::zone($layout, null)?->playlist->enabled() ?? [],
            static fn (Item $item): bool => in_array($overlay->id, $item->withoutOverlays, true),
        ) !== [];

        return $overlay->when->isAlways && array_filter($this->base->whole, $without) === [];
    }

    /**
     * What is in force from when to when: loops of numbers (`list`), periodic where items say so.
     *
     * @return list<Turn> without hole, clipped to [from, to)
     * @throws BudgetExceeded where there is too much to be written
     */
    public function between(int $fromMs, int $toMs): array
    {
        $turns = [];
        foreach ($this->overlays->between($this->base->clock, $fromMs, $toMs, true) as [$from, $to, $active]) {
            array_push($turns, ...$this->within($from, $to, $active));
            Budget::ofSegments(count($turns), '/to');
        }

        return $turns;
    }

    /** The first instant behind this one at which something else is in force, Unix ms; at the latest where looking ahead ends. */
    public function nextChange(int $ms): int
    {
        if ($this->last === null || $ms < $this->last[0] || $ms >= $this->last[1]) {
            $this->last = [$ms, $ms + self::AHEAD_MS, $this->between($ms, $ms + self::AHEAD_MS)];
        }
        foreach ($this->last[2] as $turn) {
            if ($turn->toMs <= $ms) {
                continue;
            }
            $loop = $turn->loop;
            $slot = $loop->slotAt($loop->position($ms - $turn->anchorMs));
            $isLast = $loop->periodMs === null && $slot === count($loop->items) - 1;

            return $isLast ? $turn->toMs : min($turn->toMs, $ms + $loop->starts[$slot] + $loop->lengths[$slot] - $loop->position($ms - $turn->anchorMs));
        }

        return $this->last[1];
    }

    /**
     * What a number of a loop stands for.
     *
     * @return list<InForce> lowest first; what they count from is another matter
     */
    public function list(int $number): array
    {
        return $this->lists[$number];
    }

    /**
     * When an overlay that comes after items begins anew, as long as it may be in force: its loops count from there.
     *
     * @return list<Turn> of one scene, 0
     */
    public function occurrences(Overlay $overlay, int $fromMs, int $toMs): array
    {
        $after = $overlay->when->after ?? throw new \LogicException('It comes after items.');
        $turns = [];
        foreach ($this->base->timetable()->between($fromMs, $toMs) as $play) {
            $layout = $play->plays === null ? null : $this->base->whole[$play->plays->key()] ?? null;
            $own = $layout === null ? null : $this->turnsOf($layout, $play->anchorMs, [new InForce($overlay, 0)])[$after->zone ?? ''] ?? null;
            $zone = $own === null ? [new Turn($play->fromMs, $play->toMs, 0, Loop::of([]))] : $own[1]->between($play->fromMs, $play->toMs);
            foreach ($zone as $turn) {
                $round = self::roundMs($turn->loop, $after);
                if ($round === null) {
                    $ends = [...self::ends($turn, $after, $turn->anchorMs, $turn->toMs), $turn->toMs];
                    foreach (array_slice($ends, 0, -1) as $n => $end) {
                        $turns[] = new Turn($n === 0 ? $turn->fromMs : $end, $ends[$n + 1], $end, Loop::endless(0));
                    }
                } else {
                    $first = $turn->anchorMs + self::endMs($turn->loop, $after->every);
                    $ends = [...self::ends($turn, $after, $first, $first + $round), $first + $round];
                    $slots = array_map(static fn (int $end, int $next): array => [0, $next - $end], array_slice($ends, 0, -1), array_slice($ends, 1));
                    $turns[] = new Turn($turn->fromMs, $turn->toMs, $first, Loop::ofSlots($slots));
                }
            }
        }

        return $turns;
    }

    /**
     * @param list<InForce> $active what is so by its times, or may be
     * @return list<Turn>
     */
    private function within(int $fromMs, int $toMs, array $active): array
    {
        if ($this->goesByTimeAlone()) {
            return [new Turn($fromMs, $toMs, $fromMs, Loop::endless($this->number($active)))];
        }
        $all = [];
        foreach ($this->base->timetable()->between($fromMs, $toMs) as $play) {
            $layout = $play->plays === null ? null : $this->base->whole[$play->plays->key()] ?? null;
            $turns = $layout === null ? [] : $this->turnsOf($layout, $play->anchorMs, $active);
            $edges = [$play->fromMs => true, $play->toMs => true];
            $own = [];
            foreach ($turns as $zone => [$playing, $takes]) {
                foreach ($own[$zone] = $takes->between($play->fromMs, $play->toMs) as $turn) {
                    $edges[$turn->fromMs] = true;
                }
            }
            ksort($edges);
            $edges = array_keys($edges);
            foreach (array_slice($edges, 0, -1) as $n => $from) {
                $now = [];
                foreach ($turns as $zone => [$playing]) {
                    foreach ($own[$zone] as $turn) {
                        $now[$zone] = $turn->fromMs <= $from && $from < $turn->toMs ? [$playing, $turn] : $now[$zone] ?? [$playing, $turn];
                    }
                }
                array_push($all, ...$this->round($from, $edges[$n + 1], $active, $now));
            }
        }

        return $all;
    }

    /**
     * While no zone goes over to another loop: what is different at its beginning, then round after round.
     *
     * @param list<InForce> $active
     * @param array<string, array{PlayingZone, Turn}> $turns by zone; '' is the one as large as the canvas
     * @return list<Turn>
     */
    private function round(int $fromMs, int $toMs, array $active, array $turns): array
    {
        [$rounds, $settled, $count] = [[], $fromMs, 0];
        $whole = $turns[''] ?? null;
        if ($whole !== null && self::leaves($whole[0])) {
            $rounds[] = $whole[1]->loop->items === [] ? 1 : $whole[1]->loop->periodMs;
            $count += count($whole[1]->loop->items);
            $settled = max($settled, $whole[1]->anchorMs);
        }
        foreach ($active as $one) {
            $after = $one->overlay->when->after;
            $turn = $after === null ? null : $turns[$after->zone ?? ''][1] ?? null;
            if ($after === null || $turn === null || $turn->loop->items === []) {
                continue;
            }
            $rounds[] = self::roundMs($turn->loop, $after);
            $settled = max($settled, $turn->anchorMs + self::endMs($turn->loop, $after->every));
        }
        $lengths = array_filter($rounds, static fn (?int $ms): bool => $ms !== null && $ms > 0);
        $round = count($lengths) < count($rounds) ? null : Integers::leastCommonMultiple(array_values($lengths), $toMs - $fromMs);
        if ($rounds === []) {
            return [new Turn($fromMs, $toMs, $fromMs, Loop::endless($this->number(self::standing($active, $turns, $fromMs))))];
        }
        $slots = $round === null || $settled + $round >= $toMs ? null : $this->slots($settled, $settled + $round, $active, $turns, self::LONGEST_ROUND);
        if ($slots === null) {
            return $this->onceThrough($fromMs, $toMs, $active, $turns);
        }

        return [
            ...($settled > $fromMs ? $this->onceThrough($fromMs, $settled, $active, $turns) : []),
            new Turn($settled, $toMs, $settled, count($slots) === 1 ? Loop::endless($slots[0][0]) : Loop::ofSlots($slots)),
        ];
    }

    /**
     * @param list<InForce> $active
     * @param array<string, array{PlayingZone, Turn}> $turns
     * @return list<Turn>
     */
    private function onceThrough(int $fromMs, int $toMs, array $active, array $turns): array
    {
        [$all, $at] = [[], $fromMs];
        foreach ($this->slots($fromMs, $toMs, $active, $turns, Budget::SEGMENTS) ?? [] as [$number, $ms]) {
            $all[] = new Turn($at, $at + $ms, $at, Loop::endless($number));
            $at += $ms;
        }

        return $all;
    }

    /**
     * What is in force in [from, to), one after the other, with its length in ms.
     *
     * @param list<InForce> $active
     * @param array<string, array{PlayingZone, Turn}> $turns
     * @return ?list<array{int, int}> null where there is more than the most
     */
    private function slots(int $fromMs, int $toMs, array $active, array $turns, int $most): ?array
    {
        $edges = [$fromMs => true, $toMs => true];
        $whole = $turns[''] ?? null;
        if ($whole !== null && self::leaves($whole[0])) {
            foreach ($whole[1]->loop->between($fromMs - $whole[1]->anchorMs, $toMs - $whole[1]->anchorMs, $most + 1) as $piece) {
                $edges[$piece['from'] + $whole[1]->anchorMs] = true;
            }
        }
        foreach ($active as $one) {
            $after = $one->overlay->when->after;
            $turn = $after === null ? null : $turns[$after->zone ?? ''][1] ?? null;
            if ($after === null || $turn === null) {
                continue;
            }
            foreach (self::ends($turn, $after, $fromMs - $after->lastsMs, $toMs, $most + 1) as $end) {
                foreach ([$end, $end + $after->lastsMs] as $edge) {
                    if ($fromMs < $edge && $edge < $toMs) {
                        $edges[$edge] = true;
                    }
                }
            }
        }
        if (count($edges) > $most) {
            Budget::ofSegments(count($edges), '/to');

            return null;
        }
        ksort($edges);
        $edges = array_keys($edges);
        $slots = [];
        foreach (array_slice($edges, 0, -1) as $n => $from) {
            $number = $this->number(self::standing($active, $turns, $from));
            $last = count($slots) - 1;
            if ($last >= 0 && $slots[$last][0] === $number) {
                $slots[$last][1] += $edges[$n + 1] - $from;
            } else {
                $slots[] = [$number, $edges[$n + 1] - $from];
            }
        }

        return $slots;
    }

    /** @param list<InForce> $standing */
    private function number(array $standing): int
    {
        $key = implode(' ', array_map(static fn (InForce $one): string => $one->overlay->id, $standing));
        if (!isset($this->numbers[$key])) {
            $this->numbers[$key] = count($this->lists);
            $this->lists[] = $standing;
        }

        return $this->numbers[$key];
    }

    /**
     * What is in force at an instant of what may be.
     *
     * @param list<InForce> $active
     * @param array<string, array{PlayingZone, Turn}> $turns what zones go through then; '' is the one as large as the canvas
     * @return list<InForce>
     */
    private static function standing(array $active, array $turns, int $ms): array
    {
        $without = isset($turns['']) ? self::due($turns[''][0], $turns[''][1], $ms)->withoutOverlays ?? [] : [];
        $standing = [];
        foreach ($active as $one) {
            if (in_array($one->overlay->id, $without, true)) {
                continue;
            }
            $after = $one->overlay->when->after;
            $turn = $after === null ? null : $turns[$after->zone ?? ''][1] ?? null;
            $anchor = $after === null ? $one->anchorMs : ($turn === null ? null : self::followed($turn, $after, $ms));
            if ($anchor !== null) {
                $standing[] = $after === null ? $one : new InForce($one->overlay, $anchor);
            }
        }

        return $standing;
    }

    /** Since when something is shown that comes after every so many items; null while it is not. */
    private static function followed(Turn $turn, After $after, int $ms): ?int
    {
        $loop = $turn->loop;
        if ($loop->items === [] || $ms < $turn->anchorMs) {
            return null;
        }
        $since = $ms - $turn->anchorMs;
        $rounds = $loop->periodMs === null ? 0 : intdiv($since, $loop->periodMs);
        $ended = $rounds * count($loop->items) + $loop->slotAt($loop->position($since));
        $last = $ended - $ended % $after->every;
        $end = $last === 0 ? null : $turn->anchorMs + self::endMs($loop, $last);

        return $end !== null && $ms - $end < $after->lastsMs ? $end : null;
    }

    /** The item that plays full screen; null where none does. */
    private static function due(PlayingZone $zone, Turn $turn, int $ms): ?Item
    {
        $loop = $turn->loop;

        return $loop->items === [] || $ms < $turn->anchorMs ? null : $zone->playlist->enabled()[$loop->items[$loop->slotAt($loop->position($ms - $turn->anchorMs))]] ?? null;
    }

    /** When so many items of a loop have ended, ms since its anchor. */
    private static function endMs(Loop $loop, int $items): int
    {
        $count = count($loop->items);

        return intdiv($items, $count) * (int) $loop->periodMs + $loop->starts[$items % $count];
    }

    /** After how long it comes after the same items again, ms; null where that is never. */
    private static function roundMs(Loop $loop, After $after): ?int
    {
        $count = count($loop->items);
        if ($loop->periodMs === null || $loop->periodMs === 0 || $count === 0) {
            return null;
        }

        return $loop->periodMs * intdiv($after->every, Integers::greatestCommonDivisor([$after->every, $count]));
    }

    /**
     * The ends of every so many items in [from, to).
     *
     * @return list<int> Unix ms
     */
    private static function ends(Turn $turn, After $after, int $fromMs, int $toMs, int $most = Budget::SEGMENTS): array
    {
        $loop = $turn->loop;
        $count = count($loop->items);
        $rounds = $loop->periodMs === null || $loop->periodMs === 0 ? 0 : max(0, intdiv($fromMs - $turn->anchorMs, $loop->periodMs));
        $ends = [];
        $first = max($after->every, $rounds * $count - $rounds * $count % $after->every);
        for ($items = $first; $count > 0 && count($ends) < $most; $items += $after->every) {
            if ($loop->periodMs === null && $items >= $count) {
                break;
            }
            $end = $turn->anchorMs + self::endMs($loop, $items);
            if ($end >= $toMs) {
                break;
            }
            if ($end >= $fromMs) {
                $ends[] = $end;
            }
        }

        return $ends;
    }

    /**
     * The zones that say anything of what is in force, and what takes turns in them.
     *
     * @param list<InForce> $active
     * @return array<string, array{PlayingZone, Turns}> '' is the one as large as the canvas
     * @throws DocumentRefused where one comes after items of a zone that is not there
     */
    private function turnsOf(Composed $layout, int $anchorMs, array $active): array
    {
        $turns = $this->turns["$layout->id $anchorMs"] ??= $this->base->turns($layout, $anchorMs);
        $zones = self::leavesOut($layout) ? ['' => self::zone($layout, null)] : [];
        foreach ($active as $one) {
            $after = $one->overlay->when->after;
            if ($after !== null) {
                $zones[$after->zone ?? ''] ??= self::zone($layout, $after->zone) ?? throw self::zoneless($after, $layout);
            }
        }
        $found = [];
        foreach ($zones as $name => $zone) {
            if ($zone !== null && isset($turns[$zone->id()])) {
                $found[$name] = [$zone, $turns[$zone->id()]];
            }
        }

        return $found;
    }

    /** Whether items that play full screen leave anything out. */
    private static function leavesOut(Composed $layout): bool
    {
        $zone = self::zone($layout, null);

        return $zone !== null && self::leaves($zone);
    }

    private static function leaves(PlayingZone $zone): bool
    {
        return array_filter($zone->playlist->enabled(), static fn (Item $item): bool => $item->withoutOverlays !== []) !== [];
    }

    private static function zoneless(After $after, Composed $layout): DocumentRefused
    {
        return DocumentRefused::because(
            Reason::RefUnknown,
            $after->zone === null
                ? sprintf('%s names no zone, and "%s" has none that is as large as its canvas.', $after->path, $layout->name)
                : sprintf('%s/zone is "%s", no zone of "%s".', $after->path, $after->zone, $layout->name),
            $after->zone === null ? $after->path : "$after->path/zone",
        );
    }

    private static function zone(Composed $layout, ?string $id): ?PlayingZone
    {
        foreach ($layout->zones as $name => $zone) {
            if ($id === null ? $zone->rect()->equals(Rect::whole($layout->canvas)) : (string) $name === $id) {
                return $zone;
            }
        }

        return null;
    }
}
