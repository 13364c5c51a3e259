<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Display\PlacedPanel;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;

/** `span.edge`: zones of a wall that end a few px beside the edge of a panel. Common practice, no source. */
final readonly class SpanEdge implements Check
{
    /** So many px beside an edge is meant to be at it. */
    private const FEW = 8;

    public static function explained(): array
    {
        return [
            new Explanation(
                'span.edge',
                'warning',
                'a zone of a wall that ends up to 8 px beside the edge of a panel, on that panel; the cure puts every zone that ends there at the edge',
                'the sliver on the other side of the seam is seen',
                'common practice',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        if ($subject->display === null || !$subject->display->isWall()) {
            return;
        }
        // Zones that meet share the line at which they meet: they are told, and put right, together.
        $lines = [];
        foreach ($subject->layout->zones as $id => $zone) {
            $rect = $subject->onRaster($zone->rect());
            foreach ($subject->display->wall->panels as $panel) {
                if ($panel->source->intersection($rect) === null) {
                    continue;
                }
                foreach ([true, false] as $across) {
                    foreach (self::ends($rect, $across) as $line) {
                        $edge = self::edgeBeside($panel->source, $line, $across);
                        if ($edge !== null) {
                            $lines[$across ? 'x' : 'y'][$line][$edge] ??= [[], $panel];
                            $lines[$across ? 'x' : 'y'][$line][$edge][0][(string) $id] = $rect;
                        }
                    }
                }
            }
        }
        $isExact = (string) $subject->layout->canvas === (string) $subject->display->raster();
        foreach ($lines as $axis => $at) {
            foreach ($at as $line => $edges) {
                foreach ($edges as $edge => [$zones, $panel]) {
                    yield self::told($zones, $panel, $axis === 'x', $line, $edge, $isExact);
                }
            }
        }
    }

    /** @param non-empty-array<array-key, Rect> $zones by id */
    private static function told(array $zones, PlacedPanel $panel, bool $across, int $line, int $edge, bool $isExact): Finding
    {
        $ids = array_map(strval(...), array_keys($zones));
        $cured = array_filter(array_map(static fn (Rect $rect): ?Rect => self::moved($rect, $across, $line, $edge), $zones));

        return new Finding(
            'span.edge',
            Level::Warning,
            $ids,
            sprintf(
                '%s %s at %d px %s, %d px beside the edge of panel %s at %d px.',
                implode(' and ', array_map(static fn (string $id): string => "\"$id\"", $ids)),
                count($ids) === 1 ? 'ends' : 'end',
                $line,
                $across ? 'across' : 'down',
                abs($line - $edge),
                $panel->panel->id,
                $edge,
            ),
            ['panel' => $panel->panel->id, 'at' => $line, 'edge' => $edge, 'px' => abs($line - $edge)],
            null,
            !$isExact || $cured === [] || count($cured) < count($zones) ? [] : [Fix::rects(sprintf('End at the panel: %d px', $edge), $cured)],
        );
    }

    /** @return array{int, int} px at which it begins and ends */
    private static function ends(Rect $rect, bool $across): array
    {
        return $across ? [$rect->x, $rect->right()] : [$rect->y, $rect->bottom()];
    }

    /** The edge of a panel that a line on it lies beside, px; null where it lies at one, or in the midst. */
    private static function edgeBeside(Rect $panel, int $line, bool $across): ?int
    {
        [$from, $to] = self::ends($panel, $across);
        if ($line <= $from || $line >= $to) {
            return null;
        }

        return match (true) {
            $line - $from <= self::FEW => $from,
            $to - $line <= self::FEW => $to,
            default => null,
        };
    }

    private static function moved(Rect $rect, bool $across, int $line, int $edge): ?Rect
    {
        [$from, $to] = array_map(static fn (int $end): int => $end === $line ? $edge : $end, self::ends($rect, $across));

        return $to <= $from ? null : ($across ? Rect::at($from, $rect->y, $to - $from, $rect->height) : Rect::at($rect->x, $from, $rect->width, $to - $from));
    }
}
