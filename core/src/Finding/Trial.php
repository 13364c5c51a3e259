<?php

declare(strict_types=1);

namespace UpperPane\Core\Finding;

/** What is found before and after a cure, as far as it reaches. */
final readonly class Trial
{
    /**
     * @param list<Finding> $before
     * @param list<Finding> $after
     */
    public function __construct(public Fix $cure, public array $before, public array $after)
    {
    }
}
