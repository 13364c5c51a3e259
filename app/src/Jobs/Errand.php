<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Work that may be due at any moment; a worker looks after it all the time. */
#[AutoconfigureTag]
interface Errand
{
    /** Whether it is done in a moment, so that what players say and are told never waits for long. */
    public static function isQuick(): bool;

    /** Does some of what is due, and tells how much; 0 where nothing is. */
    public function doDue(): int;

    /** Notes that all of it is due, also what was done: after a restart. */
    public function allDue(): void;
}
