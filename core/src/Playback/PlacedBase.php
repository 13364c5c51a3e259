<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Strip;
use UpperPane\Core\Overlay\Window;
use UpperPane\Core\Time\Loop;

/** What plays, where strips that squeeze and windows leave room for it; windows are drawn with it, since they lie below it and above. */
final readonly class PlacedBase implements Track
{
    /** @param Size $canvas of the display */
    public function __construct(private Base $base, public Size $canvas, private OverlayCourse $course, private OverlayLayers $layers)
    {
    }

    /** Whether an overlay decides where what plays lies. */
    public static function isMovedBy(Overlay $overlay): bool
    {
        return $overlay->lies instanceof Window || ($overlay->lies instanceof Strip && $overlay->lies->squeezes);
    }

    public function id(): string
    {
        return $this->base->id();
    }

    public function name(): string
    {
        return $this->base->name();
    }

    public function layers(Surroundings $surroundings): array
    {
        $moving = array_values(array_filter($this->course->overlays->all, self::isMovedBy(...)));
        if (array_filter($moving, fn (Overlay $one): bool => !$this->course->isSteady($one)) === []) {
            return $this->layers->below(array_map(static fn (Overlay $one): InForce => new InForce($one, 0), $moving));
        }
        $places = new Places($this->place(...), $this->layers->below(...));

        return [new ZonePlan('what plays', Loop::endless(0), $places->scenes(), Box::ofRect(Rect::whole($this->canvas)), new PlacedTurns($this->course, $places), behind: 0, through: true)];
    }

    /** @param list<InForce> $standing */
    private function place(array $standing): string
    {
        $window = OverlayLayers::window($standing);
        $room = $this->layers->room($standing);

        return $window === null && $room->rest->equals(Rect::whole($this->canvas)) ? '' : implode(' ', [...$room->rest->toArray(), $window->id ?? '']);
    }

    public function contents(): array
    {
        return $this->base->contents();
    }

    public function stretches(int $fromMs, int $toMs, bool $items): array
    {
        return $this->base->stretches($fromMs, $toMs, $items);
    }

    public function firstShown(SearchTarget $target, int $nowMs): ?FirstShown
    {
        return $this->base->firstShown($target, $nowMs);
    }

    public function changesFrom(?Track $before): array
    {
        return $this->base->changesFrom($before instanceof self ? $before->base : $before);
    }
}
