<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Overlay\Pace;

/** A line of an overlay that runs along its box; a pass begins at the anchor. */
final readonly class PacedText implements Changing
{
    /**
     * @param float $lengthPx of the line
     * @param bool $isUpright whether it is turned by 90 degrees clockwise, and runs from top to bottom or back
     */
    public function __construct(private Pace $pace, private float $lengthPx, private Rect $box, private bool $isUpright)
    {
    }

    public function at(Part $part, int $atMs, int $sinceMs, array $layers): array
    {
        $from = $this->pace->fromPx($this->boxPx(), $this->lengthPx, $sinceMs);

        return ['drawn' => $this->isUpright
            ? new Box($this->box->x, $this->box->y + $from, $this->box->width, $this->lengthPx)
            : new Box($this->box->x + $from, $this->box->y, $this->lengthPx, $this->box->height)];
    }

    /**
     * The line as it stands at an instant.
     *
     * @param Box $drawn as it was told then
     * @return array{length_px: float, from_px: float} where it begins in its box
     */
    public function stands(Box $drawn): array
    {
        return ['length_px' => $this->lengthPx, 'from_px' => $this->isUpright ? $drawn->y - $this->box->y : $drawn->x - $this->box->x];
    }

    public function compiled(): array
    {
        return ['ticker' => [
            'pass_ms' => $this->pace->passMs($this->boxPx(), $this->lengthPx),
            'from_px' => round($this->pace->fromPx($this->boxPx(), $this->lengthPx, 0), 4),
            'speed_px_s' => round($this->pace->velocityPxS(), 4),
            'length_px' => round($this->lengthPx, 4),
        ] + ($this->isUpright ? ['upright' => true] : [])];
    }

    private function boxPx(): float
    {
        return $this->isUpright ? $this->box->height : $this->box->width;
    }
}
