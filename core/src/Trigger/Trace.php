<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\Instant;

/** What happened, one after the other. */
final readonly class Trace
{
    private const MOST = 1_000_000;

    /** @param list<Entry> $entries rising */
    private function __construct(public array $entries)
    {
    }

    /**
     * @param Node $node list of entries, each with `at`
     * @param ?int $fromMs Unix ms; null for when the first one happened
     * @throws Refused where one is not understood, or they do not rise
     */
    public static function fromNode(Node $node, TriggerMap $map, ?Display $display, ?int $fromMs = null): self
    {
        $entries = [];
        $before = $fromMs ?? PHP_INT_MIN;
        foreach ($node->items(self::MOST) as $one) {
            $entry = Entry::fromNode($one, $map, $display);
            if ($entry->atMs < $before) {
                throw $one->field('at')->refused(Reason::ValueRange, $entries === []
                    ? sprintf('is before the beginning, %s.', Instant::ofMs($before))
                    : sprintf('is before the entry that stands before it, %s; they are written as they happened.', Instant::ofMs($before)));
            }
            $before = $entry->atMs;
            $entries[] = $entry;
        }

        return new self($entries);
    }
}
