<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Units\Integers;

/**
 * The slots that a zone goes through again and again, in whole ms from its anchor.
 *
 * Position = (t - anchor) mod period. Without a period the last slot never ends, and nothing comes again.
 */
final readonly class Loop
{
    /** @var list<int> the slot that is due at the beginning of each step, up to the start of the last slot */
    private array $index;

    private int $stepMs;

    private int $lastIndexed;

    /**
     * @param list<int> $starts start of each slot, ms
     * @param list<int> $lengths length of each slot, ms; of an endless one 0
     * @param list<int> $items index into the enabled items, slot by slot
     * @param ?int $periodMs null where the last slot never ends; 0 where there is nothing to play
     */
    private function __construct(public array $starts, public array $lengths, public array $items, public ?int $periodMs)
    {
        $end = $starts === [] ? 0 : $starts[count($starts) - 1];
        $this->stepMs = max(1, intdiv($end, 2 * max(1, count($starts))));
        $index = [];
        foreach ($starts as $slot => $start) {
            // The slot that is due where each step begins: the last one that starts no later.
            for ($step = count($index); $step * $this->stepMs < ($starts[$slot + 1] ?? $start + 1); $step++) {
                $index[] = $slot;
            }
        }
        $this->index = $index;
        $this->lastIndexed = max(0, count($starts) - 1);
    }

    /** @param list<?int> $lengths ms of each item in order; null: without end, and what follows it never plays */
    public static function of(array $lengths): self
    {
        return self::ofSlots(array_map(static fn (int $item, ?int $length): array => [$item, $length], array_keys($lengths), $lengths));
    }

    /**
     * @param list<int> $cycle item index of each slot
     * @param array<int, ?int> $lengths ms of each item
     */
    public static function ofCycle(array $cycle, array $lengths): self
    {
        return self::ofSlots(array_map(static fn (int $item): array => [$item, $lengths[$item]], $cycle));
    }

    /** One item for ever. */
    public static function endless(int $item): self
    {
        return self::ofSlots([[$item, null]]);
    }

    /** @param list<array{int, ?int}> $slots item index and ms of each slot; null: without end, and what follows it never plays */
    public static function ofSlots(array $slots): self
    {
        $at = 0;
        [$starts, $kept, $items] = [[], [], []];
        foreach ($slots as [$item, $length]) {
            $starts[] = $at;
            $kept[] = $length ?? 0;
            $items[] = $item;
            if ($length === null) {
                return new self($starts, $kept, $items, null);
            }
            $at += $length;
        }

        return new self($starts, $kept, $items, $at);
    }

    /**
     * A loop of these items that changes exactly when this one does.
     *
     * With other counts the follower goes on counting over the leader's loops, until both begin together again.
     *
     * @param list<int> $cycle item index of each of its slots
     */
    public function followedBy(array $cycle): self
    {
        $count = count($cycle);
        $slots = $this->slotsFollowedBy($count);
        if ($slots === 0) {
            return new self([], [], [], 0);
        }
        $followed = [];
        for ($slot = 0; $slot < $slots; $slot++) {
            $own = $slot % count($this->items);
            $endless = $this->periodMs === null && $own === count($this->items) - 1;
            $followed[] = [$cycle[$slot % $count], $endless ? null : $this->lengths[$own]];
        }

        return self::ofSlots($followed);
    }

    /** How many slots the loop of a follower with so many slots of its own has, until both begin together again. */
    public function slotsFollowedBy(int $count): int
    {
        return match (true) {
            $count === 0 || $this->items === [] => 0,
            $this->periodMs === null => count($this->items),
            default => Integers::leastCommonMultiple([count($this->items), $count], PHP_INT_MAX) ?? PHP_INT_MAX,
        };
    }

    /** The slot that is due at a position of the loop: a first guess from the index, then on to the right one. */
    public function slotAt(int $position): int
    {
        $slot = $this->index[intdiv($position, $this->stepMs)] ?? $this->lastIndexed;
        while ($slot < $this->lastIndexed && $this->starts[$slot + 1] <= $position) {
            $slot++;
        }

        return $slot;
    }

    /** Position in the loop, ms: before the anchor an endless loop stands at its beginning. */
    public function position(int $sinceAnchorMs): int
    {
        return $this->periodMs === null ? max(0, $sinceAnchorMs) : Integers::mod($sinceAnchorMs, $this->periodMs);
    }

    /**
     * The slots that lie in [from, to), each clipped to it; instants in ms since the anchor.
     *
     * @param int $most slots at the most, so that a year of short slots does not fill the memory
     * @return list<array{from: int, to: int, item: int, offset: int}> offset: ms into the item where the piece begins
     */
    public function between(int $from, int $to, int $most = 100_000): array
    {
        $pieces = [];
        if ($this->items === []) {
            return $pieces;
        }
        $at = $from;
        while ($at < $to && count($pieces) < $most) {
            $position = $this->position($at);
            $slot = $this->slotAt($position);
            $endless = $this->periodMs === null && $slot === count($this->starts) - 1;
            // Before its anchor an endless loop waits at position 0, so the way to the slot's end is that much longer.
            $waiting = $this->periodMs === null ? max(0, -$at) : 0;
            $end = $endless ? $to : min($to, $at + $waiting + $this->starts[$slot] + $this->lengths[$slot] - $position);
            $pieces[] = ['from' => $at, 'to' => $end, 'item' => $this->items[$slot], 'offset' => $position - $this->starts[$slot]];
            $at = $end;
        }

        return $pieces;
    }
}
