<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Time\Transition;
use UpperPane\Core\Time\TransitionKind;

/** A push or a wipe at one moment: where what leaves and what comes are seen within their zone. */
final readonly class Moving
{
    /**
     * @param float $gone how much of the transition is over, from 0 to 1
     * @param Box $zone what both are cut to
     * @param list<ShownPart> $leaving
     * @param list<ShownPart> $coming
     * @return list<ShownPart>
     */
    public static function of(Transition $transition, float $gone, Box $zone, array $leaving, array $coming): array
    {
        [$x, $y] = match ($transition->from) {
            'right' => [1.0, 0.0],
            'top' => [0.0, -1.0],
            'bottom' => [0.0, 1.0],
            default => [-1.0, 0.0],
        };
        if ($transition->kind === TransitionKind::Push) {
            [$dx, $dy] = [$x * $zone->width, $y * $zone->height];

            return [
                ...array_map(static fn (ShownPart $thing): ShownPart => $thing->moved(-$dx * $gone, -$dy * $gone, $zone), $leaving),
                ...array_map(static fn (ShownPart $thing): ShownPart => $thing->moved($dx * (1 - $gone), $dy * (1 - $gone), $zone), $coming),
            ];
        }
        $open = new Box(
            $x > 0 ? $zone->x + $zone->width * (1 - $gone) : $zone->x,
            $y > 0 ? $zone->y + $zone->height * (1 - $gone) : $zone->y,
            $x === 0.0 ? $zone->width : $zone->width * $gone,
            $y === 0.0 ? $zone->height : $zone->height * $gone,
        );

        return [...$leaving, ...array_map(static fn (ShownPart $thing): ShownPart => $thing->moved(0.0, 0.0, $open), $coming)];
    }
}
