<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Kind\Ticker\Ticker;

/** A line that runs through its box; a pass begins at the anchor. */
final readonly class RunningText implements Changing
{
    /** @param float $lengthPx of the line, canvas px of its own layout; $scaleX of that layout on the outermost canvas */
    public function __construct(private Ticker $ticker, private float $lengthPx, private Box $box, private float $scaleX)
    {
    }

    public function at(Part $part, int $atMs, int $sinceMs, array $layers): array
    {
        $pass = $this->ticker->passMs($this->lengthPx);
        $into = (($sinceMs % $pass) + $pass) % $pass;

        return ['drawn' => new Box($this->box->x + $this->scaleX * $this->ticker->at($into, $this->lengthPx), $this->box->y, $this->scaleX * $this->lengthPx, $this->box->height)];
    }

    public function compiled(): array
    {
        return ['ticker' => [
            'pass_ms' => $this->ticker->passMs($this->lengthPx),
            'from_px' => round($this->scaleX * $this->ticker->at(0, $this->lengthPx), 4),
            'speed_px_s' => round($this->scaleX * $this->ticker->speedPxS * ($this->ticker->toTheRight ? 1 : -1), 4),
            'length_px' => round($this->scaleX * $this->lengthPx, 4),
        ]];
    }
}
