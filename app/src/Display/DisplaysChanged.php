<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

/** Something of these displays changed that their players are told; said in the transaction in which it does. */
final readonly class DisplaysChanged
{
    /** @param list<string> $ids */
    public function __construct(public array $ids)
    {
    }
}
