<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** What is done again and again by itself. */
#[AutoconfigureTag]
interface Chore
{
    public static function name(): string;

    /** How often, s. */
    public static function everyS(): int;

    public function run(): void;
}
