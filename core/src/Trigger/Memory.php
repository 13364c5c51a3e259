<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

/** What a signal remembers between what it hears. */
final readonly class Memory
{
    /**
     * @param bool $is what it waits for or has come to: within its bands, nobody there, armed
     * @param ?int $dueMs when its wait ends, Unix ms; null where nothing is waited for
     */
    public function __construct(public bool $is = false, public ?int $dueMs = null)
    {
    }
}
