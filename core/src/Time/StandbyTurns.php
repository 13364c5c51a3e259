<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** A zone that plays its standby whenever nothing of its list is due; the standby begins with the instant from which that is so. */
final readonly class StandbyTurns implements Turns
{
    /** @param int $scene number of the standby among the scenes of the zone */
    public function __construct(private Turns $own, private int $scene)
    {
    }

    public function at(int $atMs): Turn
    {
        return $this->filled($this->own->at($atMs));
    }

    public function between(int $fromMs, int $toMs): array
    {
        return array_map($this->filled(...), $this->own->between($fromMs, $toMs));
    }

    public function nextChange(int $atMs): ?int
    {
        return $this->own->nextChange($atMs);
    }

    public function anchored(int $anchorMs): self
    {
        return new self($this->own->anchored($anchorMs), $this->scene);
    }

    public function resumed(int $fromMs, int $anchorMs): self
    {
        return new self($this->own->resumed($fromMs, $anchorMs), $this->scene);
    }

    public function begun(): self
    {
        return new self($this->own->begun(), $this->scene);
    }

    private function filled(Turn $turn): Turn
    {
        return $turn->loop->items === [] ? new Turn($turn->fromMs, $turn->toMs, $turn->anchorMs, Loop::endless($this->scene)) : $turn;
    }
}
