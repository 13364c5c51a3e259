<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Time\VolumeByHours;
use UpperPane\Core\Units\Integers;
use UpperPane\Core\Units\UtcOffsets;

/** A film that is louder at some hours of the day than at others. */
final readonly class Loudness implements Changing
{
    private function __construct(private VolumeByHours $levels, private UtcOffsets $offsets)
    {
    }

    /** @param string $timezone of the display */
    public static function of(VolumeByHours $levels, string $timezone): self
    {
        return new self($levels, UtcOffsets::of($timezone));
    }

    /** So loud of what it is: percent. */
    public function heard(int $percent): self
    {
        return new self($this->levels->heard($percent), $this->offsets);
    }

    public function at(Part $part, int $atMs, int $sinceMs, array $layers): array
    {
        return ['volume' => $this->levels->at(intdiv(Integers::mod($atMs + $this->offsets->at($atMs), 86_400_000), 1000))];
    }

    public function compiled(): array
    {
        return ['volume' => $this->levels->volume, 'levels' => $this->levels->hours, 'offsets' => $this->offsets->toArray()];
    }
}
