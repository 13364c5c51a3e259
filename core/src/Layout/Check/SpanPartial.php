<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Display\PlacedPanel;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Units\Percent;

/** `span.partial`: a zone over several panels of a wall that ends in the middle of one on which another zone plays. */
final readonly class SpanPartial implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'span.partial',
                'hint',
                'a zone over several panels of a wall that ends in the middle of one on which another zone plays',
                'zones of a wall end at panels, unless meant',
                'common practice',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        if ($subject->display === null || !$subject->display->isWall()) {
            return;
        }
        $zones = array_map(static fn (PlayingZone $zone): Rect => $subject->onRaster($zone->rect()), $subject->layout->zones);
        foreach ($zones as $id => $rect) {
            $touched = array_filter($subject->display->wall->panels, static fn (PlacedPanel $panel): bool => $panel->source->intersection($rect) !== null);
            $shared = count($touched) < 2 ? [] : array_filter($touched, static fn (PlacedPanel $panel): bool => !$rect->contains($panel->source)
                && array_filter($zones, static fn (Rect $other, string $name): bool => $name !== $id && self::apart($other, $rect, $panel->source), ARRAY_FILTER_USE_BOTH) !== []);
            if ($shared === []) {
                continue;
            }
            $panel = $shared[array_key_first($shared)];
            $share = ($panel->source->intersection($rect)?->area() ?? 0) / $panel->source->area();
            $span = $this->span($subject, $rect, $touched);
            yield new Finding('span.partial', Level::Hint, [(string) $id], sprintf(
                '"%s" spans %s but only %s of %s, where another zone plays too.',
                $id,
                implode(', ', array_map(static fn (PlacedPanel $one): string => $one->panel->id, $touched)),
                Percent::of($share),
                $panel->panel->id,
            ), ['panel' => $panel->panel->id, 'share' => round($share, 4)], $subject->layout->zones[$id]->rect(), $span === null ? [] : [Fix::rect(
                sprintf('End it at the panels: %d x %d px', $span->width, $span->height),
                (string) $id,
                $span,
            )]);
        }
    }

    /** Whether another zone plays on this panel too, outside of this one. */
    private static function apart(Rect $other, Rect $rect, Rect $panel): bool
    {
        return $other->intersection($panel) !== null && !$rect->contains($other) && !$other->contains($rect);
    }

    /**
     * The panels of which it covers at least half, as one rectangle of the canvas.
     *
     * @param array<int, PlacedPanel> $touched
     */
    private function span(Subject $subject, Rect $rect, array $touched): ?Rect
    {
        $half = array_filter($touched, static fn (PlacedPanel $panel): bool => 2 * ($panel->source->intersection($rect)?->area() ?? 0) >= $panel->source->area());
        if ($half === []) {
            return null;
        }
        $sources = array_map(static fn (PlacedPanel $panel): Rect => $panel->source, $half);
        $x = min(array_map(static fn (Rect $source): int => $source->x, $sources));
        $y = min(array_map(static fn (Rect $source): int => $source->y, $sources));

        return $subject->onCanvas(Rect::at(
            $x,
            $y,
            max(array_map(static fn (Rect $source): int => $source->right(), $sources)) - $x,
            max(array_map(static fn (Rect $source): int => $source->bottom(), $sources)) - $y,
        ));
    }
}
