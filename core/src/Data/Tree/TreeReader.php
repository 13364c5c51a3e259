<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Document\Refused;

/** Turns the bytes of a source into one JSON tree: objects are of stdClass, lists are arrays. */
interface TreeReader
{
    /**
     * @param string $bytes without a BOM
     * @throws Refused with what is wrong, where
     */
    public static function read(string $bytes, ReadOptions $options): mixed;
}
