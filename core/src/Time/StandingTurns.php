<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** What stands from one instant to another, each counted from its beginning; nothing between. */
final readonly class StandingTurns implements Turns
{
    use FixedTurns;
    use WalksTurns;

    /** @param list<array{int, int, int, int}> $spans from and to, what it counts from (Unix ms), and number of the scene; rising, none over another */
    public function __construct(private array $spans)
    {
    }

    public function at(int $atMs): Turn
    {
        [$low, $high] = [0, count($this->spans)];
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            $this->spans[$middle][0] <= $atMs ? $low = $middle + 1 : $high = $middle;
        }
        [$from, $to, $anchor, $scene] = $this->spans[$low - 1] ?? [PHP_INT_MIN, PHP_INT_MIN, 0, 0];

        return $atMs < $to && $low > 0
            ? new Turn($from, $to, $anchor, Loop::endless($scene))
            : new Turn($to, $this->spans[$low][0] ?? PHP_INT_MAX, 0, Loop::of([]));
    }
}
