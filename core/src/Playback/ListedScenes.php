<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Transition;

/** Scenes that are all known: what stands in a list, or is booked. */
final readonly class ListedScenes implements Scenes
{
    /**
     * @param list<Scene> $scenes
     * @param list<Transition> $transitions of each
     * @param array<int, true> $ofRows those that are there only while they are gone through, by their numbers
     */
    public function __construct(private array $scenes, private array $transitions, private array $ofRows = [])
    {
    }

    public function scene(int $number): Scene
    {
        return $this->scenes[$number];
    }

    public function transition(int $number): Transition
    {
        return $this->transitions[$number];
    }

    public function among(array $loops): array
    {
        if ($this->ofRows === []) {
            return array_keys($this->scenes);
        }
        $gone = array_fill_keys(array_merge(...array_map(static fn (Loop $loop): array => $loop->items, $loops)), true);

        return array_values(array_filter(array_keys($this->scenes), fn (int $number): bool => !isset($this->ofRows[$number]) || isset($gone[$number])));
    }
}
