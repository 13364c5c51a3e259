<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Units\Instant;

/** A state that was entered, or begun again. */
final readonly class Entered
{
    public const START = 'start';
    public const LAPSE = 'lapse';

    /**
     * @param int $atMs Unix ms
     * @param string $why the signal; `lapse` where the one before ended, `start` for the first
     * @param ?Entry $carried what came then, where the way carries it to what the state plays; without one it came by itself
     */
    public function __construct(public int $atMs, public string $state, public string $why, public bool $carries = false, public ?Entry $carried = null)
    {
    }

    /** @return array{at: string, state: string, why: string} */
    public function toArray(): array
    {
        return ['at' => (string) Instant::ofMs($this->atMs), 'state' => $this->state, 'why' => $this->why];
    }
}
