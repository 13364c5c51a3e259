<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Layout\Feeding;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Data\Snapshot;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Media\Media;

/** What the sources have told, for the rows that layouts choose. */
final readonly class SourceFeeds implements Feeding
{
    /** Until players have it, what is new is not told: so all of them change over together. */
    public const ON_ITS_WAY_MS = 5_000;

    public function __construct(private Designs $anyDesigns, private SourceStates $states, private Snapshots $snapshots, private FieldPictures $pictures)
    {
    }

    public function now(int $atMs): Feeds
    {
        return Feeds::asked(fn (string $id, string $timezone): ?array => $this->told($id, $timezone, $atMs, false), $this->picture(...));
    }

    public function goingOn(int $atMs): Feeds
    {
        return Feeds::asked(fn (string $id, string $timezone): ?array => $this->told($id, $timezone, $atMs, true), $this->picture(...));
    }

    public function asOf(array $fetches, int $atMs): Feeds
    {
        $told = function (string $id, string $timezone) use ($fetches, $atMs): ?array {
            $source = isset($fetches[$id]) ? $this->source($id) : null;
            if ($source === null || $source->table() !== null) {
                return $this->told($id, $timezone, $atMs, false);
            }
            $kept = $this->snapshots->of($source, $timezone, $atMs, $fetches[$id]);

            return $kept === null
                ? throw new Problem(409, 'fetch.gone', sprintf('What "%s" told then is not kept any more. Choose a later fetch.', $source->name))
                : [new Snapshot($kept['tree'], zone: $source->zone, name: $source->name)];
        };

        return Feeds::asked($told, $this->picture(...));
    }

    public function key(): string
    {
        return $this->pictures->key() . ' ' . hash('xxh128', serialize(array_map(static fn (SourceState $state): array => [$state->sha256, $state->takenMs, $state->toldMs], $this->states->all())));
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

    /** The picture that a value means; null where there is none, or not yet. */
    private function picture(string $id, string $value): ?Media
    {
        return $this->pictures->of($id, fn (): ?string => $this->source($id)?->address(), $value);
    }

    private function source(string $id): ?Source
    {
        $design = $this->anyDesigns->those([$id])[0] ?? null;

        return $design === null || $design->kind !== DesignKind::Source ? null : Source::fromNode(Node::root($design->document));
    }

    /** @return ?non-empty-list<Snapshot> */
    private function told(string $id, string $timezone, int $atMs, bool $before): ?array
    {
        $source = $this->source($id);
        if ($source === null) {
            return null;
        }
        $staleAfterMs = $source->staleAfterS === null ? null : 1000 * $source->staleAfterS;
        $newest = $this->snapshots->of($source, $timezone, $atMs);
        if ($newest === null || $source->table() !== null) {
            return [new Snapshot($newest['tree'] ?? null, zone: $source->zone, name: $source->name)];
        }
        $told = [];
        [$last, $one] = $before ? $this->states->lastRead($id) : [null, null];
        if ($last !== null && $one !== null) {
            try {
                $tree = $this->snapshots->of($source, $timezone, $atMs, $one['id'])['tree'] ?? null;
                $told = [new Snapshot($tree, $last['at_ms'], zone: $source->zone, staleAfterMs: $staleAfterMs, name: $source->name)];
            } catch (Refused) {
                // As the source says by now it cannot be read any more: the newest stands there at once.
            }
        }
        $from = $told === [] || $last === null ? PHP_INT_MIN : $last['at_ms'] + self::ON_ITS_WAY_MS;

        $agesFromMs = $before ? $this->takenMs($source, $this->states->of($id), $atMs) : $newest['taken_ms'];

        return [...$told, new Snapshot($newest['tree'], $newest['taken_ms'], $from, $source->zone, $staleAfterMs, $agesFromMs, $source->name)];
    }
}
