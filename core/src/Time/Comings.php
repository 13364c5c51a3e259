<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** Which items of a family of lists are due at an instant, and how long those of the leader last that begin then. */
interface Comings
{
    /**
     * @param int $ms Unix ms
     * @return array{due: non-empty-list<list<int>>, lengths: array<int, ?int>} places of the enabled items that are due, of each list, the leader's first; ms of each of those of the leader, by place
     */
    public function at(int $ms): array;

    /**
     * The instants in [from, to) at which this may become otherwise.
     *
     * @param int $fromMs Unix ms
     * @return list<int> Unix ms, rising
     */
    public function edges(int $fromMs, int $toMs): array;

    /**
     * The last instant, no later than this, up to which anything of a list was or may have been due.
     *
     * @param int $ms Unix ms
     */
    public function lastDue(int $member, int $ms): int;
}
