<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Geometry\Rect;

/** One thing on a canvas. */
interface Element
{
    public function id(): string;

    public function rect(): Rect;

    public function kind(): string;

    /** Whether nothing below can be seen through it. */
    public function covers(): bool;

    /** Whether it is left out for the time being: neither drawn nor checked. */
    public function isHidden(): bool;

    /** @return array<string, mixed> as it stands in its document */
    public function toArray(): array;
}
