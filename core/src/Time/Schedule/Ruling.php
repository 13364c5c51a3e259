<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

/**
 * Which schedules rule on a display: its own, then those of the places it hangs in, the nearest first (product.md). Where ranks tie, the nearest goes before.
 *
 * @template T of object a schedule, or whatever stands for one
 */
final readonly class Ruling
{
    /**
     * @param array<T> $ofDisplays by display id
     * @param array<T> $ofPlaces by place id
     */
    public function __construct(private array $ofDisplays, private array $ofPlaces)
    {
    }

    /**
     * @param string $places ids of the place that it hangs in, of the one that is in, and so on outwards
     * @return list<T> the nearest first
     */
    public function on(string $display, string ...$places): array
    {
        $ruling = [$this->ofDisplays[$display] ?? null, ...array_map(fn (string $place): ?object => $this->ofPlaces[$place] ?? null, array_values($places))];

        return array_values(array_filter($ruling));
    }
}
