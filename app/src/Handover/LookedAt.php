<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

/** What something would mean was worked out in a transaction; this takes it back. */
final class LookedAt extends \RuntimeException
{
    /** @param list<Offer> $offers */
    public function __construct(public readonly array $offers)
    {
        parent::__construct('It was only looked at.');
    }
}
