<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

/** How often a player says that it is there, and when one that says nothing counts as silent. */
final readonly class Rhythm
{
    /** Of players that tell no rhythm of their own, s. */
    public const UNTOLD_S = 10;

    /** So many reports a second are no burden to the desk. Measured here (docs/benchmarks.md). */
    private const REPORTS_A_SECOND = 80;

    /** A display that fails in between is still noticed within ten minutes. Common practice, no source. */
    private const LONGEST_S = 120;

    /** Four calls missed, and half a one for what is late. Common practice, no source. */
    private const MISSED = 4.5;

    /**
     * @param int $players of the whole estate
     * @return int s
     */
    public static function of(int $players): int
    {
        return max(self::UNTOLD_S, min(self::LONGEST_S, (int) ceil($players / self::REPORTS_A_SECOND)));
    }

    /**
     * @param ?int $everyS the rhythm that a player reports, s
     * @return int ms after its last call from which it counts as silent
     */
    public static function silentAfterMs(?int $everyS): int
    {
        return (int) (self::MISSED * 1000 * ($everyS ?? self::UNTOLD_S));
    }
}
