<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Small work that may be due at any moment; the keeper looks after it all the time. */
#[AutoconfigureTag]
interface Errand
{
    /** Does some of what is due, and tells how much; 0 where nothing is. */
    public function doDue(): int;

    /** Notes that all of it is due, also what was done: after a restart. */
    public function allDue(): void;
}
