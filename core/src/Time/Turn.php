<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Time\Schedule\Play;

/** What a zone goes through in [from, to), Unix ms: one loop, again and again. */
final readonly class Turn
{
    /** Without beginning, and without end. */
    public const ALWAYS = [PHP_INT_MIN, PHP_INT_MAX];

    /**
     * @param int $anchorMs that the loop counts from; Unix ms
     * @param Loop $loop of the scenes of its zone, by their numbers
     * @param ?Play $play the booking or the standby of a schedule that it is; null where the zone goes its own way
     */
    public function __construct(public int $fromMs, public int $toMs, public int $anchorMs, public Loop $loop, public ?Play $play = null)
    {
    }

    /** The part of it that lies in [from, to). */
    public function within(int $fromMs, int $toMs): self
    {
        return $this->fromMs >= $fromMs && $this->toMs <= $toMs
            ? $this
            : new self(max($this->fromMs, $fromMs), min($this->toMs, $toMs), $this->anchorMs, $this->loop, $this->play);
    }
}
