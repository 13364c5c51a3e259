<?php

declare(strict_types=1);

namespace UpperPane\Core\Text;

/** A part of a text in another weight or size. A line is as high as the largest size on it, and never lower than that of the text itself (CSS Inline 3, the strut). */
final readonly class Run
{
    /**
     * @param int $from byte of the text at which it begins
     * @param int $to byte behind its end
     */
    public function __construct(public int $from, public int $to, public int $weight, public float $sizePx)
    {
    }

    /**
     * Those that reach into [from, to), counted from there.
     *
     * @param list<self> $runs
     * @return list<self>
     */
    public static function within(array $runs, int $from, int $to): array
    {
        $within = [];
        foreach ($runs as $run) {
            if ($run->from < $to && $run->to > $from) {
                $within[] = new self(max(0, $run->from - $from), min($to, $run->to) - $from, $run->weight, $run->sizePx);
            }
        }

        return $within;
    }

    /**
     * A stretch of text cut where weight or size change.
     *
     * @param list<self> $runs
     * @return iterable<array{int, int, int, float}> begin, end, weight, size in px
     */
    public static function parts(array $runs, int $from, int $to, int $weight, float $sizePx): iterable
    {
        $at = $from;
        foreach ($runs as $run) {
            if ($run->to <= $at || $run->from >= $to) {
                continue;
            }
            if ($run->from > $at) {
                yield [$at, $run->from, $weight, $sizePx];
            }
            yield [max($at, $run->from), min($to, $run->to), $run->weight, $run->sizePx];
            $at = min($to, $run->to);
        }
        if ($at < $to) {
            yield [$at, $to, $weight, $sizePx];
        }
    }

    /**
     * @param list<self> $runs
     * @return float px
     */
    public static function largest(array $runs, int $from, int $to, float $sizePx): float
    {
        foreach ($runs as $run) {
            if ($run->from < $to && $run->to > $from) {
                $sizePx = max($sizePx, $run->sizePx);
            }
        }

        return $sizePx;
    }
}
