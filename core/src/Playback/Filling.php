<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Kind\Shape\Progress;

/** A shape that fills up as a zone beside it goes on. */
final readonly class Filling implements Changing
{
    /** @param string $zone id of the zone, with the way to it */
    public function __construct(private Progress $progress, private string $zone)
    {
    }

    public function at(Part $part, int $atMs, int $sinceMs, array $layers): array
    {
        return ['rect' => self::filled($part->rect, $part->drawn, $this->progress->from, $this->share($atMs, $sinceMs, $layers))];
    }

    public function compiled(): array
    {
        return ['progress' => $this->progress->toArray($this->zone)];
    }

    /**
     * How far the zone is, 0 to 1: nothing where it has nothing to play or never comes round.
     *
     * @param list<Part|ZonePlan> $layers
     */
    private function share(int $atMs, int $sinceMs, array $layers): float
    {
        foreach ($layers as $layer) {
            if (!$layer instanceof ZonePlan || $layer->element !== $this->zone) {
                continue;
            }
            [$loop, $since] = $layer->loopAt($atMs, $sinceMs);
            if ($loop->items === []) {
                return 0.0;
            }
            $position = $loop->position($since);
            if ($this->progress->of === 'loop') {
                return $loop->periodMs === null || $loop->periodMs === 0 ? 0.0 : $position / $loop->periodMs;
            }
            $slot = $loop->slotAt($position);
            $endless = $loop->periodMs === null && $slot === count($loop->items) - 1;

            return $endless || $loop->lengths[$slot] === 0 ? 0.0 : min(1.0, ($position - $loop->starts[$slot]) / $loop->lengths[$slot]);
        }

        return 0.0;
    }

    private static function filled(Box $rect, Box $drawn, string $from, float $share): Box
    {
        [$width, $height] = [$drawn->width * $share, $drawn->height * $share];

        return $rect->clippedTo(match ($from) {
            'right' => new Box($drawn->x + $drawn->width - $width, $drawn->y, $width, $drawn->height),
            'top' => new Box($drawn->x, $drawn->y, $drawn->width, $height),
            'bottom' => new Box($drawn->x, $drawn->y + $drawn->height - $height, $drawn->width, $height),
            default => new Box($drawn->x, $drawn->y, $width, $drawn->height),
        });
    }
}
