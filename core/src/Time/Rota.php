<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/**
 * A zone, or a leader and its followers, some of whose items come and go: which loops they go through, and from when.
 *
 * When what is due changes, the running item ends, then the next due one of the list follows; nothing jumps in the middle. Where
 * that leads to depends on all that went before, so each month begins anew at its first local midnight, unless the anchor is later,
 * or it goes on from what is known to stand at an instant of that month.
 */
final class Rota
{
    /** Longer than any month. */
    private const NEVER_MS = 1 << 40;

    /** No item that was due once is taken to run on for longer. */
    private const LONGEST_END_MS = 40 * 86_400_000;
    /** Turns that are gone back over. */
    private const MOST_BACK = 64;

    /** @var array<int, non-empty-list<FamilyTurn>> by the day on which the chain begins */
    private array $chains = [];

    /** @var array<string, self> by their anchors, and what they go on from */
    private array $others = [];

    /** @var array<string, non-empty-list<Loop>> by what is due */
    private array $loops = [];

    /**
     * @param non-empty-list<Playlist> $lists the leader's first
     * @param Comings $comings which of their items are due when, and how long they last
     * @param ?int $resumedMs from when it goes on as it stands then, counting from the anchor; Unix ms
     */
    public function __construct(
        private readonly array $lists,
        private readonly Comings $comings,
        private readonly WallClock $clock,
        private readonly int $anchorMs,
        private readonly ?int $resumedMs = null,
    ) {
    }

    /** The same lists, going round from another instant (Unix ms). */
    public function anchored(int $anchorMs): self
    {
        return $anchorMs === $this->anchorMs && $this->resumedMs === null
            ? $this
            : $this->others["anchor $anchorMs"] ??= new self($this->lists, $this->comings, $this->clock, $anchorMs);
    }

    /** The same lists, going on from what stands at an instant (Unix ms), whatever led to it. */
    public function resumed(int $fromMs, int $anchorMs): self
    {
        return $this->others["$anchorMs $fromMs"] ??= new self($this->lists, $this->comings, $this->clock, $anchorMs, $fromMs);
    }

    /** @param int $atMs Unix ms */
    public function at(int $atMs): FamilyTurn
    {
        $chain = $this->chain($this->beginOf($atMs));
        if ($atMs < $chain[0]->fromMs) {
            return new FamilyTurn($atMs, $chain[0]->fromMs, $this->anchorMs, $this->loopsOf($this->comings->at($atMs)));
        }
        [$least, $most] = [0, count($chain) - 1];
        while ($least < $most) {
            $middle = ($least + $most + 1) >> 1;
            $chain[$middle]->fromMs <= $atMs ? $least = $middle : $most = $middle - 1;
        }

        return $chain[$least];
    }

    /** @return non-empty-list<Loop> what zones of a layout go through that begins at an instant: what is due then stays until it ends */
    public function begunAt(int $atMs): array
    {
        return $this->loopsOf($this->comings->at($atMs));
    }

    /**
     * The instants in [from, to) from which something else is due.
     *
     * @return list<int> Unix ms
     */
    public function changes(int $fromMs, int $toMs): array
    {
        $changes = [];
        $before = $this->comings->at($fromMs);
        foreach ($this->comings->edges($fromMs, $toMs) as $edge) {
            $due = $this->comings->at($edge);
            if ($due !== $before) {
                $changes[] = $edge;
            }
            $before = $due;
        }

        return $changes;
    }

    /**
     * Since when one of the zones has had nothing to play; the anchor where it never had.
     *
     * @param int $atMs an instant at which it has nothing, Unix ms
     */
    public function idleSince(int $atMs, int $member): int
    {
        $latest = $this->comings->lastDue($member, $atMs);
        // What is over for good may still have run to its end for a while; what comes with the days of the week was there a few weeks ago.
        for ($at = min($atMs, $latest + self::LONGEST_END_MS), $step = 0; $at > $this->anchorMs && $step < self::MOST_BACK; $step++) {
            if ($this->resumedMs !== null && $at < $this->resumedMs) {
                return $this->anchorMs;
            }
            $turn = $this->at($at);
            if ($turn->loops[$member]->items !== []) {
                return $turn->toMs;
            }
            $at = min($at, $turn->fromMs) - 1;
        }

        return $this->anchorMs;
    }

    /** First local midnight of the month, or the anchor where it is later; Unix ms. */
    private function beginOf(int $atMs): int
    {
        [$year, $month] = Calendar::date(LocalTime::ofSeconds($this->clock->local(self::seconds($atMs)))->day());

        return max($this->resumedMs ?? $this->anchorMs, 1000 * $this->clock->utcOrBefore(Calendar::day($year, $month, 1) * Calendar::DAY_S));
    }

    /** @return non-empty-list<FamilyTurn> from there to the end of the month */
    private function chain(int $beginMs): array
    {
        if (isset($this->chains[$beginMs])) {
            return $this->chains[$beginMs];
        }
        [$year, $month] = Calendar::date(LocalTime::ofSeconds($this->clock->local(self::seconds($beginMs)))->day());
        $endMs = 1000 * $this->clock->utcOrBefore(($month === 12 ? Calendar::newYear($year + 1) : Calendar::day($year, $month + 1, 1)) * Calendar::DAY_S);
        $turns = [];
        [$from, $anchor, $due] = [$beginMs, $beginMs === $this->resumedMs ? $this->anchorMs : $beginMs, $this->comings->at($beginMs)];
        foreach ($this->comings->edges($beginMs + 1, $endMs) as $edge) {
            if ($edge < $from || $this->comings->at($edge) === $due) {
                continue;
            }
            // While the running item ends, more may change: what follows is what is due then.
            $loops = $this->loopsOf($due);
            [$ends, $item] = $this->ends($loops[0], $edge - $anchor, $edge);
            $next = $anchor + $ends;
            if ($next >= $endMs) {
                continue;
            }
            $dueNext = $this->comings->at($next);
            if ($dueNext === $due) {
                continue;
            }
            $turns[] = new FamilyTurn($from, $next, $anchor, $loops);
            [$from, $due] = [$next, $dueNext];
            $anchor = $next - $this->startAfter($item, $this->loopsOf($due)[0]);
        }
        $turns[] = new FamilyTurn($from, $endMs, $anchor, $this->loopsOf($due));

        $this->chains[$beginMs] = $turns;

        return $turns;
    }

    /**
     * When the slot that runs at a position ends, and how far in the list it has come by then.
     *
     * @return array{int, ?int} ms since the anchor, and the last item of the list, extras apart; null where there is none
     */
    private function ends(Loop $loop, int $since, int $edge): array
    {
        if ($loop->items === []) {
            return [$since, null];
        }
        $position = $loop->position($since);
        $slot = $loop->slotAt($position);
        $last = count($loop->items) - 1;
        if ($loop->starts[$slot] === $position && $since > 0) {
            return [$since, $this->lastOfList($loop, $slot > 0 ? $slot - 1 : $last)];
        }
        $length = $loop->lengths[$slot];
        if ($loop->periodMs === null && $slot === $last) {
            // What never ends goes on for as long as it is due.
            $length = in_array($loop->items[$slot], $this->comings->at($edge)['due'][0], true) ? self::NEVER_MS : $position - $loop->starts[$slot];
        }

        return [$since + $loop->starts[$slot] + $length - $position, $this->lastOfList($loop, $slot)];
    }

    private function lastOfList(Loop $loop, int $slot): ?int
    {
        for ($main = $this->lists[0]->mains(); $slot >= 0; $slot--) {
            if ($loop->items[$slot] < $main) {
                return $loop->items[$slot];
            }
        }

        return null;
    }

    /** Start of the slot of the item that follows another in the list of the leader, ms into the loop. */
    private function startAfter(?int $item, Loop $loop): int
    {
        $main = $this->lists[0]->mains();
        foreach ($item === null ? [] : $loop->items as $slot => $other) {
            if ($other < $main && $other > $item) {
                return $loop->starts[$slot];
            }
        }

        return 0;
    }

    /**
     * @param array{due: list<list<int>>, lengths: array<int, ?int>} $due
     * @return non-empty-list<Loop>
     */
    private function loopsOf(array $due): array
    {
        $key = (string) json_encode($due);
        if (isset($this->loops[$key])) {
            return $this->loops[$key];
        }
        $leader = Loop::ofCycle($this->lists[0]->cycle($due['due'][0]), $due['lengths']);
        $loops = [$leader];
        foreach (array_slice($this->lists, 1, null, true) as $index => $list) {
            $loops[] = $leader->followedBy($list->cycle($due['due'][$index]));
        }

        $this->loops[$key] = $loops;

        return $loops;
    }

    private static function seconds(int $ms): int
    {
        return (int) floor($ms / 1000);
    }
}
