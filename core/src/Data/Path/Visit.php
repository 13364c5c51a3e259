<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Path;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Reason;

/** One search through a tree: its root, and how many steps it has taken. */
final class Visit
{
    /** A search takes about a second for so many. */
    private const MOST = 5_000_000;

    private int $steps = 0;

    public function __construct(public readonly mixed $root, private readonly string $path)
    {
    }

    /** @throws DataRefused */
    public function took(int $steps): void
    {
        $this->steps += $steps;
        if ($this->steps > self::MOST) {
            $message = sprintf('The path %s looks at more than %s values; one that asks less of each is right.', mb_strimwidth($this->path, 0, 60, '...'), number_format(self::MOST));
            throw DataRefused::because(Reason::PathSteps, $message, '');
        }
    }
}
