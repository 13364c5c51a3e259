<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Account;

use UpperPane\App\Account\ByPlace;
use UpperPane\App\Account\Reach;

/** Reaches what the roles of whoever asks are for, but for what a test hides. */
final class ReachOfTests implements Reach
{
    /** @var array<string, string> id of what is hidden, by kind */
    public static array $hidden = [];

    public function __construct(private readonly ByPlace $byPlace)
    {
    }

    public function condition(string $kind, string $id): string
    {
        return isset(self::$hidden[$kind]) ? sprintf("%s <> '%s'", $id, self::$hidden[$kind]) : $this->byPlace->condition($kind, $id);
    }
}
