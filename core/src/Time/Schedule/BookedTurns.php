<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Turn;
use UpperPane\Core\Time\Turns;
use UpperPane\Core\Time\WalksTurns;

/** A zone in which what is booked goes before what it plays by itself. */
final readonly class BookedTurns implements Turns
{
    use WalksTurns;

    /** @param array<string, int> $scenes numbers of what is booked among the scenes of the zone, by Played::key() */
    public function __construct(private Timetable $timetable, private array $scenes, private Turns $own)
    {
    }

    public function at(int $atMs): Turn
    {
        $play = $this->timetable->at($atMs);

        return $this->booked($play) ?? $this->own->at($atMs)->within($play->fromMs, $play->toMs);
    }

    public function between(int $fromMs, int $toMs): array
    {
        [$turns, $loops] = [[], []];
        foreach ($this->timetable->between($fromMs, $toMs) as $play) {
            $booked = $this->booked($play, $loops);
            if ($booked !== null) {
                $turns[] = $booked;
            } else {
                array_push($turns, ...$this->own->between($play->fromMs, $play->toMs));
            }
        }

        return $turns;
    }

    public function anchored(int $anchorMs): self
    {
        return new self($this->timetable, $this->scenes, $this->own->anchored($anchorMs));
    }

    public function resumed(int $fromMs, int $anchorMs): self
    {
        return new self($this->timetable, $this->scenes, $this->own->resumed($fromMs, $anchorMs));
    }

    public function begun(): self
    {
        return new self($this->timetable, $this->scenes, $this->own->begun());
    }

    /** @param array<int, Loop> $loops of scenes that have come before: each is one value, however often it comes */
    private function booked(Play $play, array &$loops = []): ?Turn
    {
        $scene = $play->plays === null ? null : $this->scenes[$play->plays->key()] ?? null;

        return $scene === null ? null : new Turn($play->fromMs, $play->toMs, $play->anchorMs, $loops[$scene] ??= Loop::endless($scene), $play);
    }
}
