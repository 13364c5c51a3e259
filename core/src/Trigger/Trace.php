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
     * @param list<TriggerMap> $beside that run on the same display: what is a signal of these alone is not heard
     * @throws Refused where one is not understood, or they do not rise
     */
    public static function fromNode(Node $node, TriggerMap $map, ?Display $display, ?int $fromMs = null, array $beside = []): self
    {
        $entries = [];
        $before = $fromMs ?? PHP_INT_MIN;
        foreach ($node->items(self::MOST) as $one) {
            if ($beside !== [] && self::isOf($one, $beside) && !self::isOf($one, [$map])) {
                continue;
            }
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

    /** @param list<TriggerMap> $maps */
    private static function isOf(Node $one, array $maps): bool
    {
        $signal = $one->optional('signal')?->value;

        return is_string($signal) && array_filter($maps, static fn (TriggerMap $map): bool => isset($map->signals[$signal])) !== [];
    }
}
