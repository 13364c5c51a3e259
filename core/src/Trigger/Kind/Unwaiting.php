<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Kind;

use UpperPane\Core\Trigger\Memory;
use UpperPane\Core\Units\WallClock;

/** A kind of signal that remembers nothing and waits for nothing. */
trait Unwaiting
{
    public function begun(int $ms, WallClock $clock): Memory
    {
        return new Memory();
    }

    public function waited(Memory $memory, int $ms, WallClock $clock): Memory
    {
        return $memory;
    }
}
