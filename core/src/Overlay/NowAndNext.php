<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Units\WallClock;

/** Where an overlay holds: on how many displays it is shown at an instant, until when, and where it is not, from when on it will be. */
final readonly class NowAndNext
{
    /** So far it is looked ahead, ms: what goes on longer is told as without end. */
    public const AHEAD_MS = 366 * 86_400_000;

    /**
     * @param int $now on so many displays it is shown
     * @param ?int $untilMs when the last of those is over, Unix ms; null where none is, or one goes on for more than a year
     * @param ?int $nextMs when it begins first on one of the others, Unix ms; null where that is on none within a year
     * @param bool $isOver whether it holds somewhere, and is shown nowhere any more
     */
    private function __construct(public int $now, public ?int $untilMs, public ?int $nextMs, public bool $isOver)
    {
    }

    /**
     * @param array<string, int> $zones displays on which it holds, by time zone
     * @param int $atMs Unix ms
     */
    public static function of(Overlay $overlay, array $zones, int $atMs): self
    {
        [$now, $next, $until] = [0, null, null];
        foreach ($zones as $zone => $count) {
            $first = $overlay->when->spells(WallClock::in($zone), $atMs, $atMs + self::AHEAD_MS)[0] ?? null;
            if ($first !== null && $first->fromMs <= $atMs) {
                $now += $count;
                $until = max($until ?? 0, $first->toMs);
            } elseif ($first !== null) {
                $next = min($next ?? PHP_INT_MAX, $first->fromMs);
            }
        }

        return new self($now, $until !== null && $until < $atMs + self::AHEAD_MS ? $until : null, $next, $zones !== [] && $now === 0 && $next === null);
    }
}
