<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

/** Whoever is signed in reaches everything. */
final readonly class Everything implements Reach
{
    public function condition(string $kind, string $id): string
    {
        return self::ALL;
    }
}
