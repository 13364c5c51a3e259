<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

/** A piece of a message, which is told over values. */
interface Piece
{
    public function told(Telling $telling): string;

    /**
     * With the arguments that are given told, and all others as they were: words, and parts of a pattern.
     *
     * @return list<array{bool, string}> whether it is words, and what
     */
    public function inPart(Telling $telling): array;

    /** @return list<string> the arguments that it and all its branches name */
    public function names(): array;
}
