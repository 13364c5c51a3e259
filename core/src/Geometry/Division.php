<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Units\Integers;

/** One side of a canvas as rectangles divide it: where it is cut, and tracks that give just these cuts. */
final readonly class Division
{
    /** @param non-empty-list<array{start: int, size: int}> $lines tracks in whole px, rising */
    private function __construct(public array $lines)
    {
    }

    /**
     * @param list<array{int, int}> $spans [from, to) of what lies along the side, px
     * @param int $gap px between neighbouring tracks
     * @param int $margin px at either end
     * @return ?self null where no tracks with this gap and margin begin and end just there
     */
    public static function of(array $spans, int $length, int $gap, int $margin): ?self
    {
        $end = $length - $margin;
        $cuts = [];
        foreach ($spans as [$from, $to]) {
            if ($from < $margin || $to > $end) {
                return null;
            }
            if ($from > $margin) {
                $cuts[$from - $gap] = true;
            }
            if ($to < $end) {
                $cuts[$to] = true;
            }
        }
        $cuts[$end] = true;
        ksort($cuts);
        [$lines, $start] = [[], $margin];
        foreach (array_keys($cuts) as $cut) {
            if ($cut - $start < 1 || count($lines) === Tracks::MOST) {
                return null;
            }
            $lines[] = ['start' => $start, 'size' => $cut - $start];
            $start = $cut + $gap;
        }

        return new self($lines);
    }

    /**
     * The first track that a span takes, and how many.
     *
     * @return array{int, int}
     */
    public function cells(int $from, int $to): array
    {
        [$first, $last] = [0, 0];
        foreach ($this->lines as $index => $line) {
            if ($line['start'] === $from) {
                $first = $index;
            }
            if ($line['start'] + $line['size'] === $to) {
                $last = $index;
            }
        }

        return [$first, $last - $first + 1];
    }

    /**
     * Shares that are to each other as these sizes, in the smallest whole numbers.
     *
     * @param non-empty-list<array{start: int, size: int}> $lines
     */
    public static function shares(array $lines): Tracks
    {
        $sizes = array_map(static fn (array $line): int => max(1, $line['size']), $lines);
        $common = Integers::greatestCommonDivisor($sizes);

        return Tracks::of(array_map(static fn (int $size): Track => Track::fr(intdiv($size, $common)), $sizes));
    }

    /**
     * Tracks that solve to this division, as near to how it was written before as that can be: what is of px or percent stays so, shares are shares.
     *
     * @param ?Tracks $before how it was written
     * @param list<array{start: int, size: int}> $old where those tracks lie now
     */
    public function written(?Tracks $before, array $old, int $length, int $gap, int $margin): Tracks
    {
        foreach ($before === null ? [] : [$this->lines === $old ? $before : null, $this->kept($before, $old, 0.05), $this->kept($before, $old, 1e-6), $this->kept($before, $old, null)] as $tracks) {
            if ($tracks !== null && $this->isSolvedBy($tracks, $length, $gap, $margin)) {
                return $tracks;
            }
        }

        return self::shares($this->lines);
    }

    private function isSolvedBy(Tracks $tracks, int $length, int $gap, int $margin): bool
    {
        try {
            $solved = $tracks->solve($length - 2 * $margin, $gap);
        } catch (DocumentRefused) {
            return false;
        }

        return array_map(static fn (array $line): array => ['start' => $line['start'] + $margin, 'size' => $line['size']], $solved) === $this->lines;
    }

    /**
     * @param list<array{start: int, size: int}> $old
     * @param ?float $tolerance parts of a share are parts of its figure, as near as this; null tells all shares anew from their px
     */
    private function kept(Tracks $before, array $old, ?float $tolerance): ?Tracks
    {
        $asParts = $tolerance !== null;
        $tracks = [];
        $figures = [];
        foreach ($this->lines as $index => $line) {
            // As many tracks as before are the same ones, moved; else what lies in a track is a part of it.
            [$track, $size] = count($old) === count($this->lines) ? [$before->tracks[$index] ?? null, $old[$index]['size']] : self::around($line, $before, $old);
            if ($track !== null && !$track->isShare() && $size === $line['size'] && $size > 0) {
                $tracks[$index] = $track;
            } elseif ($track !== null && $track->isPx()) {
                $tracks[$index] = Track::px($line['size']);
            } elseif ($asParts && ($track === null || !$track->isShare())) {
                return null;
            } else {
                $figures[$index] = $asParts && $size > 0 ? $track->fr * $line['size'] / $size : (float) $line['size'];
            }
        }
        $figures = self::readable($figures, $tolerance ?? 1e-6);
        foreach ($figures ?? [] as $index => $figure) {
            $tracks[$index] = Track::fr($figure);
        }
        ksort($tracks);

        return $tracks === [] || $figures === null ? null : Tracks::of(array_values($tracks));
    }

    /**
     * The old track in which a new one lies, and its size.
     *
     * @param array{start: int, size: int} $line
     * @param list<array{start: int, size: int}> $old
     * @return array{?Track, int}
     */
    private static function around(array $line, Tracks $before, array $old): array
    {
        foreach ($old as $index => ['start' => $start, 'size' => $size]) {
            if ($start <= $line['start'] && $start + $size >= $line['start'] + $line['size']) {
                return [$before->tracks[$index] ?? null, $size];
            }
        }

        return [null, 0];
    }

    /**
     * The same proportions in whole numbers, where small multiples tell them.
     *
     * @param array<int, float> $figures
     * @return ?array<int, int>
     */
    private static function readable(array $figures, float $tolerance): ?array
    {
        for ($times = 1; $times <= 12; $times++) {
            $scaled = array_map(static fn (float $figure): float => $figure * $times, $figures);
            if (array_filter($scaled, static fn (float $figure): bool => abs($figure - round($figure)) > $tolerance || $figure < 0.5) !== []) {
                continue;
            }
            $whole = array_map(static fn (float $figure): int => (int) round($figure), $scaled);
            $common = $whole === [] ? 1 : Integers::greatestCommonDivisor(array_values($whole));

            return array_map(static fn (int $figure): int => intdiv($figure, $common), $whole);
        }

        return null;
    }
}
