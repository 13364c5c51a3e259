<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

/** One drawn thing at an instant. */
final readonly class Thing
{
    /**
     * @param ?int $offsetMs into the item; null for what is always there
     * @param float $opacity 0 to 1
     */
    public function __construct(public Part $part, public ?int $offsetMs, public float $opacity)
    {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $array = $this->part->toArray();
        if ($this->offsetMs !== null) {
            $array['offset_ms'] = $this->offsetMs;
        }
        if ($this->opacity < 1.0) {
            $array['opacity'] = round($this->opacity, 4);
        }

        return $array;
    }
}
