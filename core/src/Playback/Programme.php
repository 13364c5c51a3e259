<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\WallClock;

/** What a display plays: one thing for ever, or what a schedule says; and the tracks above it. */
final readonly class Programme
{
    /**
     * @param string $id of the design that it plays: of the layout, playlist or media for ever, or of the schedule
     * @param list<Track> $above lowest first
     * @param ?PlacedBase $placed the base as others leave room for it; null where it has its canvas for itself
     */
    private function __construct(public string $id, public string $name, public Base $base, public array $above, private ?PlacedBase $placed = null)
    {
    }

    /**
     * One thing for ever: a programme whose standby it is. It keeps its canvas, and has no end.
     *
     * @param string $timezone of the display
     * @param int $anchorMs Unix ms at which all loops begin; 1970-01-01T00:00:00Z unless said otherwise
     */
    public static function endless(Composed $plays, string $timezone = 'UTC', int $anchorMs = 0): self
    {
        return new self($plays->id, $plays->name, Base::endless($plays, WallClock::in($timezone), $anchorMs), []);
    }

    /**
     * What is booked, each as it stands on the raster of the display.
     *
     * @param string $timezone of the display
     * @param \Closure(Played, Size): Composed $composed a layout, or a playlist or media as a layout of that size
     */
    public static function scheduled(Schedule $schedule, Size $raster, string $timezone, \Closure $composed): self
    {
        return new self($schedule->id, $schedule->name, Base::scheduled($schedule, $raster, WallClock::in($timezone), $composed), []);
    }

    /** With what is shown because something happened before the display. */
    public function reacting(Reactions $reactions): self
    {
        return new self($this->id, $this->name, $this->base->reacting($reactions), $this->above, $this->placed);
    }

    /** With tracks above all that it has. */
    public function under(Track ...$above): self
    {
        return new self($this->id, $this->name, $this->base, [...$this->above, ...array_values($above)], $this->placed);
    }

    /** With what plays at one place after the other, as what lies above leaves room for it. */
    public function placed(PlacedBase $placed): self
    {
        return new self($this->id, $this->name, $this->base, $this->above, $placed);
    }

    /** With what plays fitted (contain) into a part of another canvas; tracks above it stay where they are. */
    public function into(Size $canvas, Rect $part): self
    {
        return $this->fittedAs(Fitted::into($canvas, $part, Fit::of($this->own(), $part->size(), FitMode::Contain)));
    }

    /** The same with what plays where it is said. */
    public function fittedAs(Fitted $fitted): self
    {
        return new self($this->id, $this->name, $this->base->fittedAs($fitted), $this->above);
    }

    /** @return non-empty-list<Track> lowest first */
    public function tracks(): array
    {
        return [$this->placed ?? $this->base, ...$this->above];
    }

    /** On which all of it is drawn. */
    public function canvas(): Size
    {
        return $this->placed->canvas ?? $this->base->canvas();
    }

    /** That of what plays, wherever it lies on the other. */
    public function own(): Size
    {
        return $this->base->own();
    }

    public function background(): Colour
    {
        return $this->placed === null ? $this->base->ground() : Colour::black();
    }

    /** Unix ms that all counts from, unless its layers say otherwise. */
    public function anchorMs(): int
    {
        return $this->base->anchorMs;
    }

    public function clock(): WallClock
    {
        return $this->base->clock;
    }

    /** @return list<Composed> all that can be shown; what is in that is another matter */
    public function contents(): array
    {
        return array_merge(...array_map(static fn (Track $track): array => $track->contents(), $this->tracks()));
    }

    /** @return list<Media> every picture and film that it may show, each once */
    public function media(): array
    {
        $once = [];
        foreach ($this->contents() as $layout) {
            foreach ($layout->media() as $media) {
                $once[$media->id ?? $media->name] = $media;
            }
        }

        return array_values($once);
    }

    /** @return list<string> families of the faces in which it is set */
    public function families(): array
    {
        return array_values(array_unique(array_merge(...array_map(static fn (Composed $layout): array => $layout->families(), $this->contents()))));
    }

    /** @return list<Finding> what is found in how it is put together */
    public function findings(): array
    {
        return $this->base->findings();
    }

    /**
     * What a viewer would see change.
     *
     * @return list<string> in words; empty where nothing changes
     */
    public function changesFrom(?self $before): array
    {
        $known = [];
        foreach ($before?->tracks() ?? [] as $track) {
            $known[$track->id()] = $track;
        }
        $words = [];
        foreach ($this->tracks() as $track) {
            array_push($words, ...$track->changesFrom($known[$track->id()] ?? null));
            unset($known[$track->id()]);
        }

        return [...$words, ...array_map(static fn (Track $track): string => sprintf('"%s" no longer lies above.', $track->name()), array_values($known))];
    }
}
