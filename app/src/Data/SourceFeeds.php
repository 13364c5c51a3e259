<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Layout\Feeding;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Data\Snapshot;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;

/** What the sources have told, for the rows that layouts choose. */
final readonly class SourceFeeds implements Feeding
{
    /** Until players have it, what is new is not told: so all of them change over together. */
    public const ON_ITS_WAY_MS = 5_000;

    public function __construct(private Designs $designs, private SourceStates $states, private Snapshots $snapshots)
    {
    }

    public function now(int $atMs): Feeds
    {
        return Feeds::asked(fn (string $id, string $timezone): ?array => $this->told($id, $timezone, $atMs, false));
    }

    public function goingOn(int $atMs): Feeds
    {
        return Feeds::asked(fn (string $id, string $timezone): ?array => $this->told($id, $timezone, $atMs, true));
    }

    public function key(): string
    {
        return hash('xxh128', serialize(array_map(static fn (SourceState $state): array => [$state->sha256, $state->takenMs, $state->toldMs], $this->states->all())));
    }

    /**
     * When the data were true, as far as screens have to know: to the moment once it fails; while all is well it need not be told at every fetch.
     *
     * @param int $nowMs Unix ms
     */
    public function takenMs(Source $source, ?SourceState $state, int $nowMs): ?int
    {
        $isEnough = $state?->toldMs !== null && $state->failingSinceMs === null && ($source->staleAfterS === null || $nowMs - $state->toldMs < 500 * $source->staleAfterS);

        return $isEnough ? $state->toldMs : $state?->takenMs;
    }

    /** @return ?non-empty-list<Snapshot> */
    private function told(string $id, string $timezone, int $atMs, bool $before): ?array
    {
        $design = $this->designs->those([$id])[0] ?? null;
        if ($design === null || $design->kind !== DesignKind::Source) {
            return null;
        }
        $source = Source::fromNode(Node::root($design->document));
        $staleAfterMs = $source->staleAfterS === null ? null : 1000 * $source->staleAfterS;
        $newest = $this->snapshots->of($source, $timezone, $atMs);
        if ($newest === null || $source->table() !== null) {
            return [new Snapshot($newest['tree'] ?? null, zone: $source->zone)];
        }
        $told = [];
        [$last, $one] = $before ? $this->states->lastRead($id) : [null, null];
        if ($last !== null && $one !== null) {
            try {
                $tree = $this->snapshots->of($source, $timezone, $atMs, $one['id'])['tree'] ?? null;
                $told = [new Snapshot($tree, $last['at_ms'], zone: $source->zone, staleAfterMs: $staleAfterMs)];
            } catch (Refused) {
                // As the source says by now it cannot be read any more: the newest stands there at once.
            }
        }
        $from = $told === [] || $last === null ? PHP_INT_MIN : $last['at_ms'] + self::ON_ITS_WAY_MS;

        $agesFromMs = $before ? $this->takenMs($source, $this->states->of($id), $atMs) : $newest['taken_ms'];

        return [...$told, new Snapshot($newest['tree'], $newest['taken_ms'], $from, $source->zone, $staleAfterMs, $agesFromMs)];
    }
}
