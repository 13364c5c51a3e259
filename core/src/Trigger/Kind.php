<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Trigger\Reading\Reading;
use UpperPane\Core\Units\WallClock;

/** What a signal listens to: one of the kinds of Kinds::ALL. */
interface Kind
{
    /** The fields that it has beside those of every signal. */
    public static function fields(): Fields;

    /** @throws Refused */
    public static function fromNode(Node $node): self;

    public static function rank(): Rank;

    /**
     * What it remembers before anything was said.
     *
     * @param int $ms Unix ms
     */
    public function begun(int $ms, WallClock $clock): Memory;

    /**
     * What it remembers after a reading, and whether it comes with it.
     *
     * @param int $ms Unix ms
     * @return array{Memory, bool}|null null where the reading changes nothing
     */
    public function hears(Reading $reading, Memory $memory, int $ms): ?array;

    /**
     * What it remembers after its wait has ended, with which it comes.
     *
     * @param int $ms Unix ms, when it ended
     */
    public function waited(Memory $memory, int $ms, WallClock $clock): Memory;

    /** Whether one reading raises it and another at once. */
    public function comesWith(self $other): bool;

    /**
     * What a player needs to know of it.
     *
     * @param \Closure(): list<int> $dueMs when its waits end in the span of what is compiled, Unix ms: of one that waits from the beginning on whatever is said
     * @return array<string, mixed>
     */
    public function compiled(\Closure $dueMs): array;

    /** What a display lacks for it, in words that follow its name; null where it has all. */
    public function lacks(Display $display): ?string;

    /** @return ?array<string, mixed> an entry that raises it; empty where it is asked for by its name, null where somebody has to walk before the display */
    public function raisedBy(): ?array;
}
