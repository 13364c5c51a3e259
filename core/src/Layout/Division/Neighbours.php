<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Division;

use UpperPane\Core\Layout\Kind\Element;

/** Which elements meet: a sweep from left to right, so that not all pairs are looked at. */
final readonly class Neighbours
{
    /**
     * Pairs whose rectangles have a common part, the lower element first.
     *
     * @template T of Element
     * @param list<T> $elements
     * @return list<array{T, T}>
     */
    public static function overlapping(array $elements): array
    {
        return self::within($elements, 0);
    }

    /**
     * Pairs whose rectangles overlap, or are less than $gap px apart; the lower element first.
     *
     * @template T of Element
     * @param list<T> $elements
     * @return list<array{T, T}>
     */
    public static function within(array $elements, int $gap): array
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
                    $pairs[] = [min($edge[4], $other[4]), max($edge[4], $other[4])];
                }
            }
            $open[] = $edge;
        }
        sort($pairs);

        return array_map(static fn (array $pair): array => [$elements[$pair[0]], $elements[$pair[1]]], $pairs);
    }
}
