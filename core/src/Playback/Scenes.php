<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Transition;

/** The scenes that take turns in a zone, by the numbers that the loops of its turns have. */
interface Scenes
{
    public function scene(int $number): Scene;

    /** How a scene takes over from the one before. */
    public function transition(int $number): Transition;

    /**
     * The numbers of those that a run sheet writes, in their order there.
     *
     * @param list<Loop> $loops all that are gone through in its span
     * @return list<int>
     */
    public function among(array $loops): array;
}
