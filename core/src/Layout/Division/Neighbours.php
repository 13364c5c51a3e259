<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Division;

use UpperPane\Core\Layout\Kind\Element;

/** Which elements meet: a sweep from left to right, so that not all pairs are looked at, and pairs are handed out one by one. */
final readonly class Neighbours
{
    /** Bits for the place of an element: two places make one number, so that a million pairs have room. */
    private const BITS = 24;

    /**
     * Pairs whose rectangles have a common part, the lower element first.
     *
     * @template T of Element
     * @param list<T> $elements
     * @return iterable<int, array{T, T}>
     */
    public static function overlapping(array $elements): iterable
    {
        return self::within($elements, 0);
    }

    /**
     * Pairs whose rectangles overlap, or are less than $gap px apart; the lower element first.
     *
     * @template T of Element
     * @param list<T> $elements
     * @return iterable<int, array{T, T}>
     */
    public static function within(array $elements, int $gap): iterable
    {
        $edges = [];
        foreach ($elements as $index => $element) {
            $rect = $element->rect();
            $edges[] = [$rect->x, $rect->right() + $gap, $rect->y, $rect->bottom() + $gap, $index];
        }
        sort($edges);
        $pairs = [];
        $open = [];
        foreach ($edges as $edge) {
            foreach ($open as $key => $other) {
                if ($other[1] <= $edge[0]) {
                    unset($open[$key]);
                } elseif ($other[2] < $edge[3] && $edge[2] < $other[3]) {
                    $pairs[] = min($edge[4], $other[4]) << self::BITS | max($edge[4], $other[4]);
                }
            }
            $open[] = $edge;
        }
        sort($pairs);
        foreach ($pairs as $pair) {
            yield [$elements[$pair >> self::BITS], $elements[$pair & (1 << self::BITS) - 1]];
        }
    }
}
