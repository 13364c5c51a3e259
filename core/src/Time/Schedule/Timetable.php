<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Units\Integers;
use UpperPane\Core\Units\WallClock;

/** What plays by a schedule at any instant, on a display or in one of its zones; or one thing for ever. Four weeks are worked out at a time. */
final class Timetable
{
    private const CHUNK_MS = 28 * 86_400_000;

    /** Answers are kept for so many spans: of one release all are of the same few. */
    private const KEPT = 64;

    /** @var array<int, list<Play>> */
    private array $chunks = [];

    /** @var array<string, list<Play>> */
    private array $spans = [];

    /** @param ?string $zone id of a zone of the standing layout; null for the whole display */
    private function __construct(private readonly ?Schedule $schedule, private readonly WallClock $clock, private readonly ?string $zone, private readonly ?Play $always)
    {
    }

    /** @param ?string $zone id of a zone of the standing layout; null for the whole display */
    public static function of(Schedule $schedule, WallClock $clock, ?string $zone = null): self
    {
        return new self($schedule, $clock, $zone, null);
    }

    /** @param int $anchorMs that its loops count from, Unix ms */
    public static function endless(Played $plays, WallClock $clock, int $anchorMs): self
    {
        return new self(null, $clock, null, Play::endless($plays, $anchorMs));
    }

    /** @param int $atMs Unix ms */
    public function at(int $atMs): Play
    {
        if ($this->always !== null) {
            return $this->always;
        }
        $from = $atMs - Integers::mod($atMs, self::CHUNK_MS);
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
     * @return list<Play> without hole, the first and the last clipped to [from, to)
     */
    public function between(int $fromMs, int $toMs): array
    {
        if ($this->schedule === null || $this->always !== null) {
            return $this->always === null || $toMs <= $fromMs ? [] : [$this->always->within($fromMs, $toMs)];
        }
        $this->spans = count($this->spans) < self::KEPT ? $this->spans : [];

        return $this->spans["$fromMs $toMs"] ??= Plays::of($this->schedule, $this->clock, $fromMs, $toMs, $this->zone)->pieces;
    }
}
