<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Psr\Clock\ClockInterface;
use UpperPane\App\Layout\RowsInUse;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Data\Tree\Trees;
use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;

/** What sources said at an instant, as trees; and how what comes anew is taken. */
final readonly class Snapshots
{
    /** A source that has begun to fail is asked again so soon, then more and more seldom, until it is as often as it is meant to be. Common practice, no source. */
    private const AGAIN_MS = 15_000;

    public function __construct(private SourceStates $states, private SourceFiles $files, private RowsInUse $rows, private ClockInterface $clock)
    {
    }

    /**
     * @param int $atMs for which it is read, Unix ms
     * @param ?int $fetch id of an earlier fetch; the last good one otherwise
     * @return array{tree: mixed, taken_ms: ?int}|null null where there is nothing yet, or nothing any more
     * @throws Refused where it cannot be read as the source says by now
     */
    public function of(Source $source, string $timezone, int $atMs, ?int $fetch = null): ?array
    {
        $table = $source->table();
        if ($table !== null) {
            return ['tree' => $table, 'taken_ms' => $this->clock->now()->getTimestamp() * 1000];
        }
        $state = $this->states->of($source->id);
        $sha256 = $fetch === null ? $state?->sha256 : $this->states->shaOf($source->id, $fetch);
        $bytes = $sha256 === null ? null : $this->files->read($sha256);

        return $bytes === null ? null : ['tree' => Trees::read($bytes, $source->options($timezone, $atMs), $source->as), 'taken_ms' => $state?->takenMs];
    }

    /**
     * Keeps what came, where it can be read; otherwise the last good one stays.
     *
     * @param array<string, mixed> $document of the source
     * @param ?string $file name of the file that it came in, where nobody fetched it
     * @return ?string why it cannot be taken, as a sentence; null where it was
     */
    public function take(array $document, Fetched $fetched, ?string $file = null): ?string
    {
        $source = Source::fromNode(Node::root($document));
        $now = (int) $this->clock->now()->format('Uv');
        $state = $this->states->of($source->id);
        $every = $source->everyMs();
        $next = $every === null ? null : $now + $every;
        $why = $fetched->why;
        $outcome = $why === null ? Outcome::Same : Outcome::Failed;
        [$sha256, $size, $kind] = [$state?->sha256, $state?->bytes, null];
        if ($why === null && $fetched->bytes !== null && hash('sha256', $fetched->bytes) !== $sha256) {
            try {
                $kind = self::kindOf($fetched->bytes, $source, $state);
                $this->holdShape($source, $state, Trees::read($fetched->bytes, $source->options('UTC', $now), $kind), $now);
                [$sha256, $size, $outcome] = [$this->files->keep($fetched->bytes), strlen($fetched->bytes), Outcome::Read];
            } catch (Refused $e) {
                [$why, $outcome] = [$e->getMessage(), Outcome::Refused];
            }
        } elseif ($why === null && $sha256 === null) {
            [$why, $outcome] = ['The server says that nothing is new, and nothing was read before.', Outcome::Failed];
        }
        $isGood = $outcome === Outcome::Read || $outcome === Outcome::Same;
        if (!$isGood && $every !== null) {
            $failing = $state?->failingSinceMs === null ? 0 : $now - $state->failingSinceMs;
            $next = $now + max(self::AGAIN_MS, min($every, $failing));
        }
        $this->states->note($source->id, $outcome, $fetched, $now, $next, $isGood ? $sha256 : null, $size, $isGood ? $kind : null, $isGood ? $file : null, $why);

        return $why;
    }

    /**
     * Holds that what rows are told of is still there: of another shape they would all be gone, and screens would tell that there are none.
     *
     * @throws Refused
     */
    private function holdShape(Source $source, ?SourceState $state, mixed $tree, int $nowMs): void
    {
        // Once something was changed at the source it may come otherwise.
        $before = $state?->kind === null ? null : $this->of($source, 'UTC', $nowMs);
        if ($before === null) {
            return;
        }
        foreach ($this->rows->of($source->id) as $rows) {
            $lost = $rows->lost($before['tree'], $tree);
            if ($lost !== null) {
                $message = 'What came has no %s, of which rows are told: it has another shape than before. Say at "Read as" how it is read, if it is meant, and choose the rows anew.';
                throw DataRefused::because(Reason::DataKind, sprintf($message, $lost), '');
            }
        }
    }

    /**
     * The format of what came. A page that says that all is down reads as a table of words: what came in one format is not taken in another.
     *
     * @throws DataRefused
     */
    private static function kindOf(string $bytes, Source $source, ?SourceState $state): string
    {
        if (trim($bytes) === '') {
            throw DataRefused::because(Reason::DataKind, 'Nothing is in what came.', '');
        }
        $kind = $source->as ?? Trees::kindOf($bytes);
        if ($state?->kind !== null && $state->kind !== $kind) {
            $message = 'What came is %s, and was %s before; say at "Read as" which is right, if it is meant.';
            throw DataRefused::because(Reason::DataKind, sprintf($message, strtoupper($kind), strtoupper($state->kind)), '');
        }

        return $kind;
    }
}
