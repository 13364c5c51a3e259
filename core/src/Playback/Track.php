<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Surroundings;

/** One of the things that lie over one another in a programme: what plays, and what lies above it. */
interface Track
{
    /** By which it is known from one handover to the next; that of what plays is ''. */
    public function id(): string;

    /** By which people know it. */
    public function name(): string;

    /**
     * What it draws, lowest first, on the canvas of its programme; counted from 1970-01-01T00:00:00Z unless its layers say otherwise.
     *
     * @return list<Part|ZonePlan>
     */
    public function layers(Surroundings $surroundings): array;

    /** @return list<Composed> all that it may show; what is in that is another matter */
    public function contents(): array;

    /**
     * What it shows from when to when, in words.
     *
     * @param int $fromMs Unix ms
     * @param bool $items whether the items of zones are told as well, or bookings alone
     * @return list<Stretch>
     */
    public function stretches(int $fromMs, int $toMs, bool $items): array;

    /**
     * When something is first seen on it, or why never.
     *
     * @param int $nowMs Unix ms
     * @return ?FirstShown null where it is not on it at all
     */
    public function firstShown(SearchTarget $target, int $nowMs): ?FirstShown;

    /**
     * What a viewer would see change.
     *
     * @param ?self $before the track of this id of what was handed over before; null where there was none
     * @return list<string> in words; empty where nothing changes
     */
    public function changesFrom(?self $before): array;
}
