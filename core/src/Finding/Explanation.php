<?php

declare(strict_types=1);

namespace UpperPane\Core\Finding;

/** What one code of findings means: it stands at the class that finds it, and docs/checks.md is made of it. */
final readonly class Explanation
{
    /**
     * @param string $level stop, warning or hint, and when which
     * @param string $what is looked for, and its cure
     * @param string $why it matters
     * @param string $source standard and clause, or "common practice", or "from memory"
     */
    public function __construct(public string $code, public string $level, public string $what, public string $why, public string $source)
    {
    }
}
