<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Style\Styling;

/** What is put into a slot. */
interface Value
{
    /** Whether it says nothing, as white space does. */
    public function isEmpty(): bool;

    public function put(Draft $draft): void;

    /**
     * That the names of the house style in it mean something.
     *
     * @param string $path JSON Pointer to it
     * @throws Refused
     */
    public function checkNames(Styling $styling, string $path): void;

    /** @return iterable<Finding> what is wrong with it where it stands */
    public function findings(FilledView $view): iterable;
}
