<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Kind\Clock\Clock;
use UpperPane\Core\Units\UtcOffsets;

/** A clock that goes, or a time that is counted down. */
final readonly class ToldTime implements Changing
{
    private UtcOffsets $offsets;

    /** @param string $timezone of the display, for a clock that has none of its own */
    public function __construct(private Clock $clock, string $timezone)
    {
        $this->offsets = UtcOffsets::of($clock->timezone ?? $timezone);
    }

    public function at(Part $part, int $atMs, int $sinceMs, array $layers): array
    {
        return $this->clock->dial === null
            ? ['text' => $this->clock->says($atMs, $this->offsets)]
            : ['local_ms' => $atMs + $this->offsets->at($atMs)];
    }

    public function compiled(): array
    {
        $clock = $this->clock;

        return ['clock' => ($clock->pattern?->toArray() ?? []) + ($clock->untilMs === null
            ? ['offsets' => $this->offsets->toArray()]
            : ['until_ms' => $clock->untilMs] + ($clock->after === null ? [] : ['after' => $clock->after]))];
    }
}
