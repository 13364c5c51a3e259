<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

/** A piece of a message, which is told over values. */
interface Piece
{
    public function told(Telling $telling): string;

    /** @return list<string> the arguments that it and all its branches name */
    public function names(): array;
}
