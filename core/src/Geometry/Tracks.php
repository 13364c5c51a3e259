<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;

/**
 * How a length is divided, written as CSS grid track sizes: `7fr 3fr`, `repeat(3, 1fr)`, `216px minmax(400px, 1fr) 10%`.
 *
 * Source: W3C CSS Grid Layout Module Level 2, 7.2 (syntax) and 12 (track sizing), for tracks whose content asks for nothing.
 * The result is the CSS one, rounded to whole px by largest remainder, ties to the earlier track.
 */
final readonly class Tracks
{
    /** More tracks than anybody divides a screen into. */
    public const MOST = 1000;

    private const LARGEST = 1_000_000.0;

    /** @param non-empty-list<Track> $tracks */
    private function __construct(public array $tracks)
    {
    }

    /**
     * @param string $path JSON Pointer to where the text stands
     * @throws DocumentRefused with the place of the fault marked
     */
    public static function parse(string $text, string $path = ''): self
    {
        return self::of((new TracksReader($text, $path))->tracks());
    }

    /** @param non-empty-list<Track> $tracks */
    public static function of(array $tracks): self
    {
        return new self($tracks);
    }

    /** @param non-empty-list<int> $px tracks of so many px */
    public static function px(array $px): self
    {
        return new self(array_map(static fn (int $size): Track => Track::px($size), $px));
    }

    /**
     * The division of a length.
     *
     * @param int $length in px
     * @param int $gap px between neighbouring tracks
     * @return non-empty-list<array{start: int, size: int}> in px; equal in sum to the length, gaps taken off, wherever the tracks fill it
     * @throws DocumentRefused `tracks.too-long` where the tracks need more than there is
     */
    public function solve(int $length, int $gap = 0, string $path = ''): array
    {
        $room = $length - $gap * (count($this->tracks) - 1);
        $sizes = $this->sizes($length, $room);
        $total = array_sum($sizes);
        if ($total > $room + 1e-6) {
            throw DocumentRefused::because(Reason::TracksTooLong, sprintf(
                '"%s"%s needs %s px, there are %d: %s px too many.',
                $this->written(),
                $gap > 0 ? sprintf(' with gaps of %d px', $gap) : '',
                Box::figure($total + $length - $room),
                $length,
                Box::figure($total - $room),
            ), $path);
        }
        [$solved, $start] = [[], 0];
        foreach (self::whole($sizes) as $size) {
            $solved[] = ['start' => $start, 'size' => $size];
            $start += $size + $gap;
        }

        return $solved;
    }

    /**
     * Whole numbers instead of fractions, by largest remainder: they add up to the sum of the fractions, rounded. Ties go to the earlier one.
     *
     * @param non-empty-list<float> $sizes none negative
     * @return non-empty-list<int>
     */
    public static function whole(array $sizes): array
    {
        // To a millionth: what is equal but for the last bit of a float is a tie.
        $sizes = array_map(static fn (float $size): float => round($size, 6), $sizes);
        $whole = array_map(static fn (float $size): int => (int) floor($size), $sizes);
        $missing = (int) round(array_sum($sizes)) - array_sum($whole);
        $rests = array_map(static fn (float $size, int $px): float => round($size - $px, 6), $sizes, $whole);
        $order = array_keys($rests);
        usort($order, static fn (int $a, int $b): int => [$rests[$b], $a] <=> [$rests[$a], $b]);
        foreach (array_slice($order, 0, max(0, $missing)) as $index) {
            $whole[$index]++;
        }

        return array_values($whole);
    }

    /** The text as one writes it, repetitions written out. */
    public function written(): string
    {
        return implode(' ', array_map(static fn (Track $track): string => $track->written(), $this->tracks));
    }

    /**
     * Base sizes after CSS Grid 12.4 (initialise), 12.6 (maximise) and 12.7 (expand flexible tracks).
     *
     * @return non-empty-list<float>
     */
    private function sizes(int $length, int $room): array
    {
        $base = array_map(static fn (Track $track): float => $track->leastOf($length), $this->tracks);
        $limit = array_map(static fn (Track $track): float => $track->mostOf($length), $this->tracks);
        $base = self::maximised($base, $limit, $room);
        if ($room - array_sum($base) <= 0.0) {
            return $base;
        }
        $fr = $this->fraction($base, (float) $room);
        foreach ($this->tracks as $index => $track) {
            $base[$index] = max($base[$index], $track->fr * $fr);
        }

        return array_values($base);
    }

    /**
     * Shares what is free equally among the tracks that may still grow.
     *
     * @param non-empty-list<float> $base
     * @param non-empty-list<float> $limit
     * @return non-empty-list<float>
     */
    private static function maximised(array $base, array $limit, int $room): array
    {
        while (($free = $room - array_sum($base)) > 1e-9) {
            $growing = array_keys(array_filter($base, static fn (float $size, int $index): bool => $size < $limit[$index] - 1e-9, ARRAY_FILTER_USE_BOTH));
            if ($growing === []) {
                break;
            }
            $share = $free / count($growing);
            foreach ($growing as $index) {
                $base[$index] = min($limit[$index], $base[$index] + $share);
            }
        }

        return array_values($base);
    }

    /**
     * CSS Grid 12.7.1, the size of an fr.
     *
     * @param non-empty-list<float> $base
     * @return float px
     */
    private function fraction(array $base, float $room): float
    {
        $flexible = array_map(static fn (Track $track): bool => $track->fr > 0.0, $this->tracks);
        do {
            [$rest, $factors] = [$room, 0.0];
            foreach ($this->tracks as $index => $track) {
                $flexible[$index] ? $factors += $track->fr : $rest -= $base[$index];
            }
            $fr = $rest / max(1.0, $factors);
            $again = false;
            foreach ($this->tracks as $index => $track) {
                if ($flexible[$index] && $fr * $track->fr < $base[$index] - 1e-9) {
                    $flexible[$index] = false;
                    $again = true;
                }
            }
        } while ($again);

        return max(0.0, $fr);
    }

    /** The largest figure that is read in a track. */
    public static function largest(): float
    {
        return self::LARGEST;
    }
}
