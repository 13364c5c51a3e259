<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Time\Transition;

/** Scenes that are all known: what stands in a list, or is booked. */
final readonly class ListedScenes implements Scenes
{
    /**
     * @param list<Scene> $scenes
     * @param list<Transition> $transitions of each
     */
    public function __construct(private array $scenes, private array $transitions)
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
        return array_keys($this->scenes);
    }
}
