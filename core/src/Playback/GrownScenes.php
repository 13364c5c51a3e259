<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Transition;

/** Scenes of which more come to be known as time goes on, as rows of data do. */
final class GrownScenes implements Scenes
{
    /** @var array<int, Scene> */
    private array $scenes = [];

    /**
     * @param \Closure(int): Scene $scene by its number
     * @param Transition|\Closure(int): Transition $transition of all, or of each
     */
    public function __construct(private readonly \Closure $scene, private readonly Transition|\Closure $transition)
    {
    }

    public function scene(int $number): Scene
    {
        return $this->scenes[$number] ??= ($this->scene)($number);
    }

    public function transition(int $number): Transition
    {
        return $this->transition instanceof Transition ? $this->transition : ($this->transition)($number);
    }

    public function among(array $loops): array
    {
        return array_values(array_unique(array_merge(...array_map(static fn (Loop $loop): array => $loop->items, $loops))));
    }
}
