<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Division;

use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;

/**
 * The sums that a layout has to keep: in each strip between neighbouring zone edges, what the zones crossed add up to.
 *
 * Zones wholly inside another (insets) and zones wholly off the canvas are left out; strips with the same zones, and strips with equal lists of sizes, are one sum.
 * Zones of a strip that begin and end alike lie beside one another and count once.
 */
final readonly class Sums
{
    /** @return list<Sum> sums of widths first, then of heights */
    public static function of(Composed $layout): array
    {
        $rects = [];
        $canvas = Rect::whole($layout->canvas);
        foreach (self::withoutInsets(array_values($layout->zones)) as $zone) {
            if ($zone->rect()->intersection($canvas) !== null) {
                $rects[$zone->id()] = $zone->rect();
            }
        }

        return [
            ...self::along('width', $rects, $layout->canvas->width, $layout->canvas->height),
            ...self::along('height', $rects, $layout->canvas->height, $layout->canvas->width),
        ];
    }

    /**
     * @template Z of Element
     * @param list<Z> $zones
     * @return list<Z> those that lie in no other; of two alike the lower one stays
     */
    public static function withoutInsets(array $zones): array
    {
        $insets = [];
        foreach (Neighbours::overlapping($zones) as [$a, $b]) {
            if ($a->rect()->contains($b->rect())) {
                $insets[$b->id()] = true;
            } elseif ($b->rect()->contains($a->rect())) {
                $insets[$a->id()] = true;
            }
        }

        return array_values(array_filter($zones, static fn (Element $zone): bool => !isset($insets[$zone->id()])));
    }

    /**
     * @param 'width'|'height' $side
     * @param array<string, Rect> $rects
     * @return list<Sum>
     */
    private static function along(string $side, array $rects, int $length, int $breadth): array
    {
        $wide = $side === 'width';
        $begins = [];
        $ends = [];
        $edges = [];
        foreach ($rects as $id => $rect) {
            [$from, $to] = $wide ? [$rect->y, $rect->bottom()] : [$rect->x, $rect->right()];
            $from = max(0, $from);
            $to = min($breadth, $to);
            if ($from < $to) {
                $begins[$from][] = $id;
                $ends[$to][] = $id;
                $edges[$from] = $edges[$to] = true;
            }
        }
        // In the order in which they stand along the strip, so that each strip's list is in order by itself.
        uasort($rects, static fn (Rect $a, Rect $b): int => $wide ? [$a->x, $a->y] <=> [$b->x, $b->y] : [$a->y, $a->x] <=> [$b->y, $b->x]);
        $order = array_flip(array_keys($rects));
        $sizeOf = array_map(static fn (Rect $rect): int => $wide ? $rect->width : $rect->height, $rects);
        $sums = [];
        ksort($edges);
        /** @var array<int, int|string> $crossed by place in the order */
        $crossed = [];
        foreach (array_keys($edges) as $edge) {
            foreach ($ends[$edge] ?? [] as $id) {
                unset($crossed[$order[$id]]);
            }
            foreach ($begins[$edge] ?? [] as $id) {
                $crossed[$order[$id]] = $id;
            }
            if ($crossed === []) {
                continue;
            }
            ksort($crossed);
            [$sizes, $list, $counted] = [[], [], []];
            foreach ($crossed as $id) {
                $rect = $rects[(string) $id];
                // What begins and ends alike lies beside one another, not after it.
                $place = ($wide ? $rect->x : $rect->y) . ' ' . $sizeOf[(string) $id];
                if (isset($counted[$place])) {
                    continue;
                }
                $counted[$place] = true;
                $sizes[] = $sizeOf[(string) $id];
                $list[] = (string) $id;
            }
            $key = implode('+', $sizes);
            $sums[$key]['sizes'] = $sizes;
            $sums[$key]['first'] ??= $list;
            $sums[$key]['all'] = ($sums[$key]['all'] ?? []) + array_flip($list);
        }
        $found = [];
        foreach ($sums as $sum) {
            $others = array_map(strval(...), array_keys(array_diff_key($sum['all'], array_flip($sum['first']))));
            $found[] = new Sum($side, $sum['sizes'], $sum['first'], $others, $length);
        }

        return $found;
    }
}
