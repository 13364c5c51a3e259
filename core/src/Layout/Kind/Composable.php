<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Layout\Composer;

/** An element that becomes another one once what it refers to is known. */
interface Composable extends Element
{
    /**
     * @param string $path JSON Pointer to the element
     * @throws DocumentRefused
     */
    public function composed(Composer $composer, string $path): Element;
}
