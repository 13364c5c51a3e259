<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Units\Integers;
use UpperPane\Core\Units\WallClock;

/** Which overlays are in force at any instant as far as times say so: those that come after items as long as they may. Four weeks are worked out at a time. */
final class OverlayTimetable
{
    private const CHUNK_MS = 28 * 86_400_000;

    /** @var array<int, list<Piece>> */
    private array $chunks = [];

    /** That of the last answer: the next instant often lies in it. */
    private ?Piece $last = null;

    public function __construct(private readonly Overlays $overlays, private readonly WallClock $clock)
    {
    }

    /** @param int $ms Unix ms */
    public function at(int $ms): Piece
    {
        if ($this->last !== null && $this->last->fromMs <= $ms && $ms < $this->last->toMs) {
            return $this->last;
        }
        $from = $ms - Integers::mod($ms, self::CHUNK_MS);
        $pieces = $this->chunks[$from] ??= array_map(
            static fn (array $one): Piece => new Piece(...$one),
            $this->overlays->between($this->clock, $from, $from + self::CHUNK_MS, true),
        );
        [$least, $most] = [0, count($pieces) - 1];
        while ($least < $most) {
            $middle = ($least + $most + 1) >> 1;
            $pieces[$middle]->fromMs <= $ms ? $least = $middle : $most = $middle - 1;
        }

        return $this->last = $pieces[$least];
    }
}
