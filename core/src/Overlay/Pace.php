<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Layout\Kind\Ticker\Ticker;

/** How a line runs through its box, which counts along its way: it comes in at one end, and goes out at the other. */
final readonly class Pace
{
    /** @param bool $isForth whether it runs the way in which px count: to the right, or down */
    private function __construct(public float $speedPxS, private bool $isForth)
    {
    }

    /**
     * @param float $wantedPxS taken to the nearest multiple of half a px a refresh, the faster of two; at least one
     * @param ?float $refreshHz of the display
     */
    public static function of(float $wantedPxS, ?float $refreshHz, bool $isForth): self
    {
        $step = ($refreshHz ?? Ticker::REFRESH_HZ) / 2;

        return new self($step * max(1, Room::px($wantedPxS / $step)), $isForth);
    }

    /** How fast px count up along its way, px/s: negative to the left, or up. */
    public function velocityPxS(): float
    {
        return $this->isForth ? $this->speedPxS : -$this->speedPxS;
    }

    /** From just outside until it is gone, ms. */
    public function passMs(float $boxPx, float $lengthPx): int
    {
        return max(1, Room::px(1000 * ($boxPx + $lengthPx) / $this->speedPxS));
    }

    /**
     * Where the line begins in its box, px.
     *
     * @param int $sinceMs since its anchor
     */
    public function fromPx(float $boxPx, float $lengthPx, int $sinceMs): float
    {
        $pass = $this->passMs($boxPx, $lengthPx);
        $way = $this->speedPxS * ((($sinceMs % $pass) + $pass) % $pass) / 1000;

        return $this->isForth ? $way - $lengthPx : $boxPx - $way;
    }
}
