<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Division;

use UpperPane\Core\Geometry\FreeSpace;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;

/** What no covering element hides of a canvas: its area and its maximal rectangles, by a sweep from left to right. */
final readonly class Uncovered
{
    /**
     * @param list<Rect> $rects maximal: none can grow on any side; they may overlap each other
     * @param int $area px without any cover
     */
    private function __construct(public array $rects, public int $area)
    {
    }

    /** @param list<Rect> $covers */
    public static function of(Size $canvas, array $covers): self
    {
        $whole = Rect::whole($canvas);
        $begins = $ends = [];
        $edges = [0 => true, $canvas->width => true];
        foreach ($covers as $index => $cover) {
            $cover = $cover->intersection($whole);
            if ($cover === null) {
                continue;
            }
            $begins[$cover->x][$index] = [$cover->y, $cover->bottom()];
            $ends[$cover->right()][] = $index;
            $edges[$cover->x] = $edges[$cover->right()] = true;
        }
        ksort($edges);
        $edges = array_keys($edges);
        $active = [];
        $area = 0;
        $rects = [];
        /** @var array<string, array{int, int, int}> $open from y, to y, from x */
        $open = [];
        foreach ($edges as $number => $x) {
            foreach ($ends[$x] ?? [] as $index) {
                unset($active[$index]);
            }
            $active += $begins[$x] ?? [];
            $free = $x < $canvas->width ? FreeSpace::free($active, $canvas->height) : [];
            foreach ($free as [$from, $to]) {
                $area += ($to - $from) * ($edges[$number + 1] - $x);
            }
            $next = self::carriedOn($open, $free, $x);
            foreach ($open as $key => [$from, $to, $start]) {
                if (!isset($next[$key])) {
                    $rects[] = Rect::at($start, $from, $x - $start, $to - $from);
                }
            }
            $open = $next;
        }

        return new self($rects, $area);
    }

    /**
     * The open rectangles cut to what is free in the next strip, without those that lie in a longer one.
     *
     * @param array<string, array{int, int, int}> $open
     * @param list<array{int, int}> $free
     * @return array<string, array{int, int, int}>
     */
    private static function carriedOn(array $open, array $free, int $x): array
    {
        $next = [];
        foreach ($free as [$from, $to]) {
            $cut = ["$from-$to" => [$from, $to, $x]];
            foreach ($open as [$openFrom, $openTo, $start]) {
                $a = max($from, $openFrom);
                $b = min($to, $openTo);
                if ($a < $b && (!isset($cut["$a-$b"]) || $start < $cut["$a-$b"][2])) {
                    $cut["$a-$b"] = [$a, $b, $start];
                }
            }
            // Longest first, so that what lies within an earlier and taller one is left out.
            uasort($cut, static fn (array $p, array $q): int => [$p[2], $q[1] - $q[0]] <=> [$q[2], $p[1] - $p[0]]);
            $kept = [];
            foreach ($cut as $key => $piece) {
                foreach ($kept as $other) {
                    if ($other[0] <= $piece[0] && $other[1] >= $piece[1]) {
                        continue 2;
                    }
                }
                $kept[$key] = $piece;
            }
            $next += $kept;
        }

        return $next;
    }
}
