<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

/** One drawn thing at an instant. */
final readonly class Thing
{
    /**
     * @param ?int $offsetMs into the item; null for what is always there
     * @param float $opacity 0 to 1, beside that of the part itself
     * @param array<string, mixed> $now what the part says at this instant alone
     */
    public function __construct(public Part $part, public ?int $offsetMs, public float $opacity, public array $now = [])
    {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $array = array_replace($this->part->toArray(), $this->now);
        if ($this->offsetMs !== null) {
            $array['offset_ms'] = $this->offsetMs;
        }
        if ($this->opacity * $this->part->opacity < 1.0) {
            $array['opacity'] = round($this->opacity * $this->part->opacity, 4);
        }

        return $array;
    }
}
