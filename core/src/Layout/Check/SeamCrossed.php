<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Display\PlacedPanel;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\SeamSensitive;

/** `seam.crossed`: words, a clock or a code that lie across the seam of a wall, with the smallest move that puts them on one panel. */
final readonly class SeamCrossed implements Check
{
    /** Panels onto which moving it is tried. */
    private const MOST_MOVES = 4;

    public static function explained(): array
    {
        return [
            new Explanation(
                'seam.crossed',
                'warning',
                'words, a clock or a code on a wall that do not lie on one panel and are partly hidden behind bezels or where no panel hangs; the cure is the smallest move onto one',
                'a seam goes through a letter',
                'common practice',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        if ($subject->display === null || !$subject->display->isWall() || $subject->matching === null) {
            return;
        }
        foreach ($subject->layout->elements as $element) {
            if ($element instanceof SeamSensitive) {
                yield from $this->of($subject, $element);
            }
        }
    }

    /** @return iterable<Finding> */
    private function of(Subject $subject, Element $element): iterable
    {
        $rect = $subject->onRaster($element->rect());
        $panels = $subject->display->wall->panels ?? [];
        $touched = [];
        foreach ($panels as $panel) {
            if ($panel->source->contains($rect)) {
                return;
            }
            if (($part = $panel->source->intersection($rect)) !== null) {
                $touched[$panel->panel->id] = $part;
            }
        }
        $seen = array_sum(array_map(static fn (Rect $part): int => $part->area(), $touched));
        $whole = $rect->intersection(Rect::whole($subject->matching->raster ?? $rect->size()));
        if ($whole === null || ($touched !== [] && count($touched) === 1 && $seen === $whole->area())) {
            return;
        }
        $hidden = $whole->area() - $seen;
        if ($hidden === 0) {
            // Where nothing is hidden the picture goes on from one panel to the next, as it does between LED cabinets.
            return;
        }
        $moves = self::moves($subject, $element->rect(), $panels);
        yield new Finding(
            'seam.crossed',
            Level::Warning,
            [$element->id()],
            sprintf(
                '"%s" %s%s.%s',
                $element->id(),
                match (count($touched)) {
                    0 => 'lies where no panel hangs',
                    1 => sprintf('lies half on %s, half where no panel hangs', array_key_first($touched)),
                    2 => sprintf('crosses the seam between %s', self::parts($touched)),
                    default => sprintf('crosses the seams of %d panels, %s', count($touched), self::parts($touched)),
                },
                $hidden > 0 ? sprintf(', %.1f %% of it behind bezels', $hidden / $whole->area() * 100) : '',
                $moves === [] ? ' It is larger than any panel.' : '',
            ),
            [
                'panels' => array_keys($touched),
                'hidden' => round($hidden / $whole->area(), 4),
                'depth' => $touched === [] ? 0 : min(array_map(static fn (Rect $part): int => min($part->width, $part->height), $touched)),
            ],
            $element->rect(),
            array_map(fn (array $move): Fix => Fix::rect($this->words($element->rect(), $move[0], $move[1]->panel->id), $element->id(), $move[0]), array_slice($moves, 0, self::MOST_MOVES)),
        );
    }

    /**
     * The places on one panel, the nearest to where it lies now first.
     *
     * @param list<PlacedPanel> $panels
     * @return list<array{Rect, PlacedPanel}> none where it is larger than every panel
     */
    private static function moves(Subject $subject, Rect $rect, array $panels): array
    {
        $moves = [];
        foreach ($panels as $panel) {
            $room = $subject->onCanvas($panel->source);
            if ($room === null || $room->width < $rect->width || $room->height < $rect->height) {
                continue;
            }
            $x = max($room->x, min($rect->x, $room->right() - $rect->width));
            $y = max($room->y, min($rect->y, $room->bottom() - $rect->height));
            $moves[] = [Rect::at($x, $y, $rect->width, $rect->height), $panel];
        }
        $way = static fn (Rect $to): float => hypot($to->x - $rect->x, $to->y - $rect->y);
        usort($moves, static fn (array $a, array $b): int => $way($a[0]) <=> $way($b[0]));

        return $moves;
    }

    private function words(Rect $from, Rect $to, string $panel): string
    {
        $ways = array_filter([
            $to->x === $from->x ? '' : sprintf('%d px to the %s', abs($to->x - $from->x), $to->x > $from->x ? 'right' : 'left'),
            $to->y === $from->y ? '' : sprintf('%d px %s', abs($to->y - $from->y), $to->y > $from->y ? 'down' : 'up'),
        ]);

        return sprintf('Move it %s, onto %s', implode(' and ', $ways), $panel);
    }

    /** @param array<string, Rect> $touched */
    private static function parts(array $touched): string
    {
        $parts = [];
        foreach (array_slice($touched, 0, 6, true) as $panel => $part) {
            $parts[] = sprintf('%s (%d x %d px)', $panel, $part->width, $part->height);
        }

        return implode(', ', array_slice($parts, 0, -1)) . ' and ' . $parts[count($parts) - 1];
    }
}
