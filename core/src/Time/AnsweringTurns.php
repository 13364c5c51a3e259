<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Geometry\Box;

/** What a player decides by what happens before it; by itself only what stands at rest is known. */
final readonly class AnsweringTurns implements Turns
{
    use FixedTurns;
    use WalksTurns;

    /**
     * @param string $map that decides
     * @param list<array{state: string, row: ?int}> $answers the state and the number of the row carried to it of which each scene is
     * @param ?int $rest the scene at rest; null where none is
     * @param bool $isTouched whether the map listens to touches
     * @param ?Box $place where all that plays lies, so that touches can be turned back; null where that is not told
     */
    public function __construct(public string $map, public array $answers, private ?int $rest, private bool $isTouched = false, public ?Box $place = null)
    {
    }

    /** The same where it is known where all that plays lies; told only where touches have to be turned back. */
    public function within(Box $place): self
    {
        return $this->isTouched ? new self($this->map, $this->answers, $this->rest, true, $place) : $this;
    }

    public function at(int $atMs): Turn
    {
        return new Turn(PHP_INT_MIN, PHP_INT_MAX, 0, $this->loop());
    }

    /** At rest. */
    public function loop(): Loop
    {
        return $this->rest === null ? Loop::of([]) : Loop::endless($this->rest);
    }
}
