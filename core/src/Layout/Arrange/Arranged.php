<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Arrange;

use UpperPane\Core\Layout\Layout;

/** What has come of an act. */
final readonly class Arranged
{
    /**
     * @param Layout $layout the whole one, its variants included
     * @param ?string $variant in which one is now; null for the layout itself
     * @param list<string> $said what changed beside what was asked for, in sentences
     * @param ?list<string> $chosen ids of what a hand holds now; null for what it held before
     */
    public function __construct(public Layout $layout, public ?string $variant, public array $said, public ?array $chosen)
    {
    }

    /** @return array<string, mixed> with what is seen as a layout of its own */
    public function toArray(): array
    {
        return [
            'document' => $this->layout->toArray(),
            'variant' => $this->variant,
            'seen' => $this->layout->seenAs($this->variant)->toArray(),
            'said' => $this->said,
        ] + ($this->chosen === null ? [] : ['chosen' => $this->chosen]);
    }
}
