<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Spell;
use UpperPane\Core\Overlay\Takeover;
use UpperPane\Core\Overlay\Window;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Units\WallClock;

/** An overlay of a display: where it lies while it is in force. A window is drawn with what plays in it (PlacedBase). */
final readonly class OverlayTrack implements Track
{
    /** @param Size $canvas of the display */
    public function __construct(private Overlay $overlay, private Size $canvas, private WallClock $clock, private OverlayCourse $course, private OverlayLayers $layers)
    {
    }

    public function id(): string
    {
        return $this->overlay->id;
    }

    public function name(): string
    {
        return $this->overlay->name;
    }

    /** @return array{int, int, int} where it lies among the others: its kind, its level, and when it was made (Unix ms) */
    public function lies(): array
    {
        return $this->overlay->lies();
    }

    public function layers(Surroundings $surroundings): array
    {
        if ($this->overlay->lies instanceof Window) {
            return [];
        }
        $isAlone = $this->overlay->lies instanceof Takeover;
        $moving = array_values(array_filter($this->course->overlays->all, fn (Overlay $one): bool => $this->layers->isMovedBy($this->overlay, $one)));
        $isSteady = $this->course->isSteady($this->overlay) && array_filter($moving, fn (Overlay $one): bool => !$this->course->isSteady($one)) === [];
        if ($isSteady && !$isAlone) {
            return $this->layers->above($this->overlay, $this->layers->roomOf($this->overlay, array_map(static fn (Overlay $one): InForce => new InForce($one, 0), $moving)));
        }
        $places = new Places($this->place(...), fn (array $standing): array => $this->place($standing) === ''
            ? []
            : $this->layers->above($this->overlay, $this->layers->roomOf($this->overlay, $standing)));

        return [new ZonePlan(
            'its place',
            Loop::endless(0),
            $places->scenes(),
            Box::ofRect(Rect::whole($this->canvas)),
            new PlacedTurns($this->course, $places),
            behind: 0,
            through: true,
            alone: $isAlone,
        )];
    }

    /** @param list<InForce> $standing */
    private function place(array $standing): string
    {
        $mine = array_filter($standing, fn (InForce $one): bool => $one->overlay === $this->overlay);

        return $mine === [] ? '' : implode(' ', $this->layers->roomOf($this->overlay, $standing)->rest->toArray());
    }

    public function contents(): array
    {
        return $this->layers->contents($this->overlay);
    }

    public function stretches(int $fromMs, int $toMs, bool $items): array
    {
        return array_map(
            fn (Spell $spell): Stretch => new Stretch($spell->fromMs, $spell->toMs, $this->overlay->id, 'overlay', $this->overlay->id, $this->overlay->name, null, $this->why()),
            $this->overlay->when->spells($this->clock, $fromMs, $toMs),
        );
    }

    public function firstShown(SearchTarget $target, int $nowMs): ?FirstShown
    {
        if (array_filter($this->contents(), static fn (Composed $one): bool => $target->isIn($one)) === []) {
            return null;
        }
        foreach (FirstShown::SPANS_MS as $ahead) {
            foreach ($this->overlay->when->spells($this->clock, $nowMs, $nowMs + $ahead) as $spell) {
                return new FirstShown($spell->fromMs, null, sprintf('in the %s "%s"', $this->overlay->kind, $this->overlay->name));
            }
        }

        return new FirstShown(null, 'expired', sprintf('the %s "%s" is over', $this->overlay->kind, $this->overlay->name));
    }

    public function changesFrom(?Track $before): array
    {
        return $before instanceof self ? $this->overlay->changesFrom($before->overlay) : [sprintf('The %s "%s" lies above.', $this->overlay->kind, $this->overlay->name)];
    }

    private function why(): string
    {
        $after = $this->overlay->when->after;

        return match (true) {
            $after !== null => sprintf('after every %s, for %s s', $after->every === 1 ? 'item' : "$after->every items", round($after->lastsMs / 1000, 1)),
            $this->overlay->lies instanceof Takeover => 'takeover: ' . $this->overlay->lies->reason,
            default => $this->overlay->kind,
        };
    }
}
