<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Units\Instant;

/**
 * What is shown on one canvas at one instant: a flat list, lowest first.
 *
 * @template-covariant T of Thing
 */
final readonly class Shown
{
    /** @param list<T> $things */
    public function __construct(public int $atMs, public Size $canvas, public string $background, public array $things)
    {
    }

    /** @return array<string, mixed> as `bin/upperpane shown` prints it */
    public function toArray(): array
    {
        return [
            'instant' => (string) Instant::ofMs($this->atMs),
            'canvas' => $this->canvas->toArray(),
            'background' => ['color' => $this->background],
            'things' => array_map(static fn (Thing $thing): array => $thing->toArray(), $this->things),
        ];
    }
}
