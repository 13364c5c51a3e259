<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Division\Neighbours;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;

/** `zone.sliver`: a gap or overlap of under 4 px is almost certainly a slip. Common practice, no source. */
final readonly class ZoneSliver implements Check
{
    private const UNDER = 4;

    public static function explained(): array
    {
        return [
            new Explanation('zone.sliver', 'warning', 'a gap or overlap of under 4 px', 'almost certainly a slip', 'common practice'),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach (Neighbours::within(array_values($subject->layout->zones), self::UNDER) as [$a, $b]) {
            [$p, $q] = [$a->rect(), $b->rect()];
            if ($p->contains($q) || $q->contains($p)) {
                continue;
            }
            $gapX = max($p->x, $q->x) - min($p->right(), $q->right());
            $gapY = max($p->y, $q->y) - min($p->bottom(), $q->bottom());
            if ($gapY < 0 && $gapX !== 0 && abs($gapX) < self::UNDER) {
                yield $this->between($a, $b, $gapX, true);
            } elseif ($gapX < 0 && $gapY !== 0 && abs($gapY) < self::UNDER) {
                yield $this->between($a, $b, $gapY, false);
            }
        }
        foreach ($subject->layout->zones as $zone) {
            yield from $this->atEdges($zone, $subject->layout->canvas);
        }
    }

    /** @param int $gap px; below 0 an overlap */
    private function between(PlayingZone $a, PlayingZone $b, int $gap, bool $sideBySide): Finding
    {
        $first = ($sideBySide ? $a->rect()->x <= $b->rect()->x : $a->rect()->y <= $b->rect()->y) ? $a : $b;
        $rect = $first->rect();
        $width = $sideBySide ? $rect->width + $gap : $rect->width;
        $height = $sideBySide ? $rect->height : $rect->height + $gap;
        [$p, $q] = [$a->rect(), $b->rect()];
        $x = $sideBySide ? min($p->right(), $q->right()) : max($p->x, $q->x);
        $y = $sideBySide ? max($p->y, $q->y) : min($p->bottom(), $q->bottom());
        $place = $sideBySide
            ? Rect::at($gap > 0 ? $x : $x + $gap, $y, abs($gap), min($p->bottom(), $q->bottom()) - $y)
            : Rect::at($x, $gap > 0 ? $y : $y + $gap, min($p->right(), $q->right()) - $x, abs($gap));

        return new Finding(
            'zone.sliver',
            Level::Warning,
            [$a->id(), $b->id()],
            sprintf('Zones "%s" and "%s" %s by %d px.', $a->id(), $b->id(), $gap > 0 ? 'are apart' : 'overlap', abs($gap)),
            ['px' => $gap],
            $place,
            $width < 1 || $height < 1 ? [] : [
                Fix::rect(
                    $sideBySide ? sprintf('Make "%s" %d px wide', $first->id(), $width) : sprintf('Make "%s" %d px high', $first->id(), $height),
                    $first->id(),
                    Rect::at($rect->x, $rect->y, $width, $height),
                ),
                ...self::otherwise($first === $a ? $b : $a, $gap, $sideBySide),
            ],
        );
    }

    /** @return list<Fix> the second zone brought to the first: larger or smaller, or moved as it is */
    private static function otherwise(PlayingZone $second, int $gap, bool $sideBySide): array
    {
        $rect = $second->rect();
        [$x, $y] = $sideBySide ? [$rect->x - $gap, $rect->y] : [$rect->x, $rect->y - $gap];
        [$width, $height] = $sideBySide ? [$rect->width + $gap, $rect->height] : [$rect->width, $rect->height + $gap];
        $way = $sideBySide ? ($gap > 0 ? 'to the left' : 'to the right') : ($gap > 0 ? 'up' : 'down');

        return [
            ...($width < 1 || $height < 1 ? [] : [Fix::rect(
                $sideBySide ? sprintf('Make "%s" %d px wide', $second->id(), $width) : sprintf('Make "%s" %d px high', $second->id(), $height),
                $second->id(),
                Rect::at($x, $y, $width, $height),
            )]),
            Fix::rect(sprintf('Move "%s" %d px %s', $second->id(), abs($gap), $way), $second->id(), Rect::at($x, $y, $rect->width, $rect->height)),
        ];
    }

    /** @return iterable<Finding> */
    private function atEdges(PlayingZone $zone, Size $canvas): iterable
    {
        $rect = $zone->rect();
        $gaps = [
            'left' => [$rect->x, 0, $rect->y, $rect->x, $rect->height],
            'top' => [$rect->y, $rect->x, 0, $rect->width, $rect->y],
            'right' => [$canvas->width - $rect->right(), $rect->right(), $rect->y, $canvas->width - $rect->right(), $rect->height],
            'bottom' => [$canvas->height - $rect->bottom(), $rect->x, $rect->bottom(), $rect->width, $canvas->height - $rect->bottom()],
        ];
        foreach ($gaps as $side => [$gap, $x, $y, $width, $height]) {
            if ($gap <= 0 || $gap >= self::UNDER) {
                continue;
            }
            yield new Finding(
                'zone.sliver',
                Level::Warning,
                [$zone->id()],
                sprintf('Zone "%s" ends %d px before the %s edge of the canvas.', $zone->id(), $gap, $side),
                ['px' => $gap],
                Rect::at($x, $y, $width, $height),
                [Fix::rect(sprintf('Bring "%s" to the edge', $zone->id()), $zone->id(), match ($side) {
                    'left' => Rect::at(0, $rect->y, $rect->width + $gap, $rect->height),
                    'top' => Rect::at($rect->x, 0, $rect->width, $rect->height + $gap),
                    'right' => Rect::at($rect->x, $rect->y, $rect->width + $gap, $rect->height),
                    'bottom' => Rect::at($rect->x, $rect->y, $rect->width, $rect->height + $gap),
                }), Fix::rect(sprintf('Move "%s" to the edge', $zone->id()), $zone->id(), match ($side) {
                    'left' => Rect::at(0, $rect->y, $rect->width, $rect->height),
                    'top' => Rect::at($rect->x, 0, $rect->width, $rect->height),
                    'right' => Rect::at($rect->x + $gap, $rect->y, $rect->width, $rect->height),
                    'bottom' => Rect::at($rect->x, $rect->y + $gap, $rect->width, $rect->height),
                })],
            );
        }
    }
}
