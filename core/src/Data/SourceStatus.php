<?php

declare(strict_types=1);

namespace UpperPane\Core\Data;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;

/** How a source stands at an instant: nothing on a screen goes blank because one fails, but somebody should know. */
enum SourceStatus: string
{
    /** What is told is as new as it is meant to be. */
    case Fresh = 'fresh';
    /** Nothing was ever fetched or brought in. */
    case Empty = 'empty';
    /** It was not fetched when it was due: nobody does. */
    case Late = 'late';
    /** It was fetched last in vain; what was told before stays. */
    case Failing = 'failing';
    /** What is told is older than the source allows. */
    case Stale = 'stale';

    /** A fetch may take its time, and who fetches may be about other sources. Common practice, no source. */
    private const PATIENCE_MS = 60_000;

    /** @return list<Explanation> of what is found here */
    public static function explained(): array
    {
        $goesOn = 'what was read last stays on the screens, and grows old';

        return [
            new Explanation('source.failing', 'warning', 'a source cannot be fetched or read; says why and since when', $goesOn, 'arithmetic'),
            new Explanation('source.late', 'warning', 'a source was not fetched when it was due', $goesOn, 'common practice'),
            new Explanation('source.stale', 'warning', 'what a source tells is older than it allows', 'viewers read what may not be true any more', 'arithmetic'),
            new Explanation('source.empty', 'warning', 'a source was never read', 'there is nothing to choose rows of', 'arithmetic'),
        ];
    }

    /**
     * @param ?int $takenMs when the data were true, Unix ms: last fetched and found the same, or brought in; null where there are none
     * @param ?int $failingSinceMs since when it fails; null where it does not
     */
    public static function of(Source $source, ?int $takenMs, ?int $failingSinceMs, int $nowMs): self
    {
        return match (true) {
            $takenMs === null => $failingSinceMs === null ? self::Empty : self::Failing,
            $source->staleAfterS !== null && $nowMs - $takenMs > 1000 * $source->staleAfterS => self::Stale,
            $failingSinceMs !== null => self::Failing,
            $source->everyMs() !== null && $nowMs - $takenMs > $source->everyMs() + 1000 * $source->timeoutS() + self::PATIENCE_MS => self::Late,
            default => self::Fresh,
        };
    }

    /** @param ?string $why it cannot be fetched or read, as a sentence */
    public function finding(Source $source, ?int $takenMs, ?int $failingSinceMs, ?string $why, int $nowMs): ?Finding
    {
        $age = $takenMs === null ? '' : self::length($nowMs - $takenMs);
        $since = $failingSinceMs === null ? '' : self::length($nowMs - $failingSinceMs);

        return match ($this) {
            self::Fresh => null,
            self::Empty => new Finding('source.empty', Level::Warning, [], "\"$source->name\" was never read."),
            self::Late => new Finding('source.late', Level::Warning, [], "\"$source->name\" was read $age ago, and was due before: nobody fetches it."),
            self::Failing => new Finding('source.failing', Level::Warning, [], trim("\"$source->name\" fails for $since: " . ($why ?? ''))),
            self::Stale => new Finding('source.stale', Level::Warning, [], trim("\"$source->name\" is $age old, more than it allows. " . ($why ?? ''))),
        };
    }

    private static function length(int $ms): string
    {
        $minutes = intdiv(max(0, $ms), 60_000);

        return match (true) {
            $minutes < 1 => sprintf('%d s', intdiv(max(0, $ms), 1000)),
            $minutes < 120 => "$minutes min",
            $minutes < 2 * 1440 => sprintf('%d h', intdiv($minutes, 60)),
            default => sprintf('%d days', intdiv($minutes, 1440)),
        };
    }
}
