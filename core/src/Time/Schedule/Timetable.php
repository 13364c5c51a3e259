<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Units\WallClock;
use UpperPane\Core\Units\Whole;

/** What plays by a schedule at any instant, on a display or in one of its zones. Four weeks are worked out at a time. */
final class Timetable
{
    private const CHUNK_MS = 28 * 86_400_000;

    /** @var array<int, list<Play>> */
    private array $chunks = [];

    /** @param ?string $zone id of a zone of the standing layout; null for the whole display */
    public function __construct(private readonly Schedule $schedule, private readonly WallClock $clock, private readonly ?string $zone = null)
    {
    }

    /** @param int $atMs Unix ms */
    public function at(int $atMs): Play
    {
        $from = $atMs - Whole::mod($atMs, self::CHUNK_MS);
        $pieces = $this->chunks[$from] ??= $this->between($from, $from + self::CHUNK_MS);
        [$least, $most] = [0, count($pieces) - 1];
        while ($least < $most) {
            $middle = ($least + $most + 1) >> 1;
            $pieces[$middle]->fromMs <= $atMs ? $least = $middle : $most = $middle - 1;
        }

        return $pieces[$least];
    }

    /**
     * @param int $fromMs Unix ms
     * @return list<Play>
     */
    public function between(int $fromMs, int $toMs): array
    {
        return Plays::of($this->schedule, $this->clock, $fromMs, $toMs, $this->zone)->pieces;
    }
}
