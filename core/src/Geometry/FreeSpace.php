<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

/** What is left of a canvas once rectangles are taken away, as rectangles that do not overlap. */
final readonly class FreeSpace
{
    /**
     * @param list<Rect> $taken may overlap, and may lie outside
     * @return list<Rect> from left to right, each as wide as it goes on unchanged
     */
    public static function of(Size $canvas, array $taken): array
    {
        $whole = Rect::whole($canvas);
        $taken = array_values(array_filter(array_map(static fn (Rect $rect): ?Rect => $rect->intersection($whole), $taken)));
        $edges = [0 => true, $canvas->width => true];
        foreach ($taken as $rect) {
            $edges[$rect->x] = $edges[$rect->right()] = true;
        }
        ksort($edges);
        $edges = array_keys($edges);
        [$parts, $open] = [[], []];
        foreach ($edges as $x) {
            $covered = array_map(
                static fn (Rect $rect): array => [$rect->y, $rect->bottom()],
                array_filter($taken, static fn (Rect $rect): bool => $rect->x <= $x && $rect->right() > $x),
            );
            $next = [];
            foreach ($x < $canvas->width ? self::free($covered, $canvas->height) : [] as [$from, $to]) {
                $next["$from-$to"] = $open["$from-$to"] ?? [$x, $from, $to];
            }
            foreach (array_diff_key($open, $next) as [$start, $from, $to]) {
                $parts[] = Rect::at($start, $from, $x - $start, $to - $from);
            }
            $open = $next;
        }

        return $parts;
    }

    /**
     * What spans leave free of a length.
     *
     * @param array<int, array{int, int}> $covered [from, to)
     * @return list<array{int, int}> [from, to), rising
     */
    public static function free(array $covered, int $length): array
    {
        sort($covered);
        $free = [];
        $at = 0;
        foreach ($covered as [$from, $to]) {
            if ($from > $at) {
                $free[] = [$at, $from];
            }
            $at = max($at, $to);
        }
        if ($at < $length) {
            $free[] = [$at, $length];
        }

        return $free;
    }
}
