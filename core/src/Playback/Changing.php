<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

/** What makes a part look otherwise at every instant, beside the item that is due. */
interface Changing
{
    /**
     * @param int $atMs the instant, Unix ms
     * @param int $sinceMs since the anchor of its layers
     * @param list<Part|ZonePlan> $layers among which the part stands
     * @return array<string, mixed> what is to be said of it at that instant, in place of what its part says
     */
    public function at(Part $part, int $atMs, int $sinceMs, array $layers): array;

    /** @return array<string, mixed> what a player looks up to do the same (docs/formats/run-sheet.md) */
    public function compiled(): array;
}
