<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Document\BudgetExceeded;

/** All changes of a span, in words: what the display shows from when to when, and what each of its zones does. */
final readonly class Course
{
    /** @param list<Stretch> $stretches by their beginnings, the whole display before its zones */
    private function __construct(public array $stretches)
    {
    }

    /**
     * @param int $fromMs Unix ms
     * @param bool $items whether the items of zones are told as well, or bookings alone
     * @throws BudgetExceeded where there are too many changes
     */
    public static function of(Programme $programme, int $fromMs, int $toMs, bool $items = true): self
    {
        $stretches = array_merge(...array_map(static fn (Track $track): array => $track->stretches($fromMs, $toMs, $items), $programme->tracks()));
        // Stable: what begins together stays in the order of the layout, the whole display first.
        usort($stretches, static fn (Stretch $a, Stretch $b): int => $a->fromMs <=> $b->fromMs ?: ($a->zone !== null) <=> ($b->zone !== null));

        return new self($stretches);
    }
}
