<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Arrange;

use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Layout;

/** Where things go that lie in something that moves: with the zone in which most of them lies, else with the canvas. */
final readonly class Scaling
{
    /** @param array<string, Rect> $rects where the elements go that are given a place, by id */
    public function __construct(private Layout $layout, private array $rects, private Size $canvas)
    {
    }

    /** Each edge is rounded to whole px by itself, so that what was flush stays flush; never under 1 px. */
    public function rect(Element $element): Rect
    {
        [$from, $to] = $this->host($element);
        $rect = $element->rect();
        [$left, $right] = array_map(static fn (int $x): int => (int) round($to->x + ($x - $from->x) * $to->width / $from->width), [$rect->x, $rect->right()]);
        [$top, $bottom] = array_map(static fn (int $y): int => (int) round($to->y + ($y - $from->y) * $to->height / $from->height), [$rect->y, $rect->bottom()]);

        return Rect::at($left, $top, max(1, $right - $left), max(1, $bottom - $top));
    }

    /** By how much its type, its corners and the like scale: by the smaller factor, so that what fitted goes on to fit. */
    public function factor(Element $element): float
    {
        [$from, $to] = $this->host($element);

        return min($to->width / $from->width, $to->height / $from->height);
    }

    /** @return array{Rect, Rect} what it lies in, before and after */
    private function host(Element $element): array
    {
        if (isset($this->rects[$element->id()])) {
            return [$element->rect(), $this->rects[$element->id()]];
        }
        [$best, $most] = [[Rect::whole($this->layout->canvas), Rect::whole($this->canvas)], 0];
        foreach ($this->rects as $id => $to) {
            $from = $this->layout->element((string) $id)?->rect();
            $common = $from?->intersection($element->rect())?->area() ?? 0;
            if ($from !== null && $common > $most) {
                [$best, $most] = [[$from, $to], $common];
            }
        }

        return $best;
    }
}
