<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** One zone of a rota: the running item ends, then what is due by then follows. */
final readonly class RotaTurns implements Turns
{
    use WalksTurns;

    /** @param int $member which of the rota's zones it is */
    public function __construct(private Rota $rota, private int $member)
    {
    }

    public function at(int $atMs): Turn
    {
        $turn = $this->rota->at($atMs)->of($this->member);
        if ($turn->loop->items !== []) {
            return $turn;
        }
        // A time in which nothing is due may have begun in an earlier month.
        $since = $this->rota->idleSince($atMs, $this->member);

        return new Turn(min($turn->fromMs, $since), $turn->toMs, $since, $turn->loop);
    }

    public function anchored(int $anchorMs): self
    {
        return new self($this->rota->anchored($anchorMs), $this->member);
    }

    public function resumed(int $fromMs, int $anchorMs): self
    {
        return new self($this->rota->resumed($fromMs, $anchorMs), $this->member);
    }

    public function begun(): BegunRotaTurns
    {
        return new BegunRotaTurns($this->rota, $this->member);
    }
}
