<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/**
 * What takes turns in a zone, whatever makes it turn: a list, items that come and go, bookings, a standby.
 *
 * At every instant there is exactly one turn; turns follow one another without hole or overlap.
 */
interface Turns
{
    /** @param int $atMs Unix ms */
    public function at(int $atMs): Turn;

    /**
     * The turns of [from, to), the first and the last clipped to it.
     *
     * @param int $fromMs Unix ms
     * @return list<Turn>
     */
    public function between(int $fromMs, int $toMs): array;

    /** The first instant (Unix ms) after this one from which another turn holds; null where none ever does. */
    public function nextChange(int $atMs): ?int;

    /** The same, counted from another instant (Unix ms). */
    public function anchored(int $anchorMs): self;

    /**
     * The same, going on from what stands at an instant, whatever led to it.
     *
     * @param int $fromMs from when that stands, Unix ms
     * @param int $anchorMs that it counts from, Unix ms
     */
    public function resumed(int $fromMs, int $anchorMs): self;

    /** The same where a zone begins with the item of another zone: what is due at its beginning stays until it ends. */
    public function begun(): self;
}
