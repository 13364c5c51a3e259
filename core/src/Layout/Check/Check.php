<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;

/** A rule of the trade that can be broken by a layout. */
interface Check
{
    /** @return list<Explanation> of each code that it finds */
    public static function explained(): array;

    /** @return iterable<Finding> one for each place where the rule is broken */
    public function findings(Subject $subject): iterable;
}
