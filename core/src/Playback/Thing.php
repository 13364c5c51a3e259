<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

/** What is drawn at an instant. */
interface Thing
{
    /** @return array<string, mixed> as `bin/upperpane shown` prints it */
    public function toArray(): array;
}
