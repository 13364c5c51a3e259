<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;

/** One drawn thing at an instant. */
final readonly class ShownPart implements Thing
{
    /**
     * @param ?int $offsetMs into the item; null for what is always there
     * @param float $opacity 0 to 1, beside that of the part itself
     * @param array<string, mixed> $now what the part says at this instant alone
     */
    public function __construct(public Part $part, public ?int $offsetMs, public float $opacity, public array $now = [])
    {
    }

    /** The same, moved by so many px and cut to a box. */
    public function moved(float $dx, float $dy, Box $clip): self
    {
        $boxes = [];
        foreach (['rect' => $this->part->rect, 'drawn' => $this->part->drawn] as $name => $own) {
            $now = $this->now[$name] ?? null;
            $boxes[$name] = ($now instanceof Box ? $now : $own)->placed(1.0, 1.0, $dx, $dy);
        }

        return new self($this->part, $this->offsetMs, $this->opacity, ['rect' => $boxes['rect']->clippedTo($clip), 'drawn' => $boxes['drawn']] + $this->now);
    }

    public function toArray(): array
    {
        $array = array_replace($this->part->toArray(), array_map(static fn (mixed $now): mixed => $now instanceof Box ? $now->toArray() : $now, $this->now));
        if ($this->offsetMs !== null) {
            $array['offset_ms'] = $this->offsetMs;
        }
        if ($this->opacity * $this->part->opacity < 1.0) {
            $array['opacity'] = round($this->opacity * $this->part->opacity, 4);
        }

        return $array;
    }
}
