<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\LayoutChanges;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Drawing\Drawer;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Schedule\BookedTurns;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Schedule\ScheduleChanges;
use UpperPane\Core\Time\Schedule\Timetable;
use UpperPane\Core\Time\SteadyTurns;
use UpperPane\Core\Time\Transition;
use UpperPane\Core\Time\Turns;
use UpperPane\Core\Units\WallClock;

/** The lowest track: what plays on the whole display, by a schedule or for ever. */
final readonly class Base implements Track
{
    /** Name of the zone that a schedule plays in. */
    public const SCHEDULE = 'schedule';

    /** @return list<Explanation> of what is found here */
    public static function explained(): array
    {
        return [
            new Explanation('booking.zone', 'warning', 'a zone that is booked, and that no layout booked on the display has', 'it is never seen', 'arithmetic'),
        ];
    }

    /**
     * @param ?Schedule $schedule null where one thing plays for ever
     * @param array<string, Composed> $whole what plays on the whole display, by Played::key()
     * @param array<string, array<string, Composed>> $zones what is booked in zones of what plays there, or is their standby, by zone id and Played::key()
     * @param array<string, Timetable> $timetables of the whole display (''), and of each zone in which anything is booked
     * @param int $anchorMs Unix ms that all counts from, where one thing plays for ever
     * @param ?Fitted $fitted where its canvas lies on a larger one; null where it is the whole
     * @param ?Reactions $reactions what is shown above its zones, or above all of it, because something happened before the display
     */
    private function __construct(
        public ?Schedule $schedule,
        private Size $canvas,
        public Colour $background,
        public WallClock $clock,
        public array $whole,
        public array $zones,
        private array $timetables,
        public int $anchorMs,
        private ?Fitted $fitted = null,
        public ?Reactions $reactions = null,
    ) {
    }

    public static function endless(Composed $plays, WallClock $clock, int $anchorMs): self
    {
        $played = Played::of('layout', $plays->id);

        return new self(null, $plays->canvas, $plays->background, $clock, [$played->key() => $plays], [], ['' => Timetable::endless($played, $clock, $anchorMs)], $anchorMs);
    }

    /** @param \Closure(Played, Size): Composed $composed */
    public static function scheduled(Schedule $schedule, Size $raster, WallClock $clock, \Closure $composed): self
    {
        $whole = [];
        foreach ($schedule->playedIn(null) as $played) {
            $whole[$played->key()] ??= $composed($played, $raster);
        }
        [$zones, $timetables] = [[], ['' => Timetable::of($schedule, $clock)]];
        foreach ($whole as $layout) {
            foreach ($layout->zones as $id => $zone) {
                foreach ($schedule->playedIn((string) $id) as $played) {
                    $zones[$id][$played->key()] ??= $composed($played, $zone->rect()->size());
                    $timetables[$id] ??= Timetable::of($schedule, $clock, (string) $id);
                }
            }
        }

        return new self($schedule, $raster, Colour::black(), $clock, $whole, $zones, $timetables, 0);
    }

    /** The same on another canvas, the rest of which stays black. */
    public function fittedAs(Fitted $fitted): self
    {
        return $this->with($fitted->isWhole() ? null : $fitted, $this->reactions);
    }

    /** The same with what is shown because something happened before the display. */
    public function reacting(Reactions $reactions): self
    {
        return $this->with($this->fitted, $reactions);
    }

    private function with(?Fitted $fitted, ?Reactions $reactions): self
    {
        return new self($this->schedule, $this->canvas, $this->background, $this->clock, $this->whole, $this->zones, $this->timetables, $this->anchorMs, $fitted, $reactions);
    }

    /** Its own canvas, wherever that lies. */
    public function own(): Size
    {
        return $this->canvas;
    }

    /** On which all of it is drawn. */
    public function canvas(): Size
    {
        return $this->fitted->canvas ?? $this->canvas;
    }

    /** Of that canvas, where nothing is drawn. */
    public function ground(): Colour
    {
        return $this->fitted === null || $this->fitted->covers() ? $this->background : Colour::black();
    }

    /** Where a zone lies in what plays; null where none of that name is in any of it. */
    public function zoneRect(string $zone): ?Rect
    {
        foreach ($this->whole as $layout) {
            if (isset($layout->zones[$zone])) {
                return $layout->zones[$zone]->rect();
            }
        }

        return null;
    }

    public function id(): string
    {
        return '';
    }

    public function name(): string
    {
        return $this->schedule->name ?? $this->plays()->name;
    }

    public function timetable(): Timetable
    {
        return $this->timetables[''];
    }

    /**
     * What takes turns in the zones of one of the things that play on the whole display. Behind its items and its standby stand the scenes of what is booked.
     *
     * @param int $anchorMs from which it counts, Unix ms
     * @return array<string, Turns> by zone id
     */
    public function turns(Composed $layout, int $anchorMs): array
    {
        $turns = $layout->turns($this->clock, $anchorMs);
        foreach ($turns as $id => $own) {
            if (isset($this->timetables[$id], $layout->zones[$id])) {
                $turns[$id] = new BookedTurns($this->timetables[$id], $this->booked($layout, (string) $id), $own);
            }
        }

        return $turns;
    }

    /** @return array<string, int> numbers of what is booked in a zone among its scenes, by Played::key() */
    public function booked(Composed $layout, string $zone): array
    {
        $first = Drawer::scenesOf($layout->zones[$zone]);

        return array_map(static fn (int $place): int => $first + $place, array_flip(array_keys($this->zones[$zone] ?? [])));
    }

    public function layers(Surroundings $surroundings): array
    {
        $ground = $this->schedule === null ? $this->fitted?->ground($this->plays()->id, $this->background) : null;

        return [...($ground === null ? [] : [$ground]), ...$this->drawn($surroundings)];
    }

    /**
     * The same on black, its own colour first of all.
     *
     * @return list<Part|ZonePlan> lowest first
     */
    public function plated(Surroundings $surroundings): array
    {
        $fitted = $this->fitted ?? Fitted::into($this->canvas, Rect::whole($this->canvas), Fit::of($this->canvas, $this->canvas, FitMode::Contain));
        $ground = $this->schedule === null ? $fitted->plate($this->plays()->id, $this->background) : null;

        return [...($ground === null ? [] : [$ground]), ...$this->drawn($surroundings)];
    }

    /** @return list<Part|ZonePlan> lowest first */
    private function drawn(Surroundings $surroundings): array
    {
        $drawer = new Drawer($surroundings->in($this->clock->timezone), $this->clock);
        $placing = $this->fitted->placing ?? Placing::outermost();

        return [...$this->below($drawer, $placing), ...$this->reactions?->above(null, Rect::whole($this->canvas), $placing, $drawer) ?? []];
    }

    /** @return list<Part|ZonePlan> lowest first */
    private function below(Drawer $drawer, Placing $placing): array
    {
        if ($this->schedule === null) {
            $plays = $this->plays();

            return $drawer->layout($plays, $placing, $this->turns($plays, $this->anchorMs), $this->reactions);
        }
        $raster = Rect::whole($this->canvas);
        [$scenes, $booked] = [[], []];
        foreach ($this->whole as $key => $layout) {
            $booked[$key] = count($scenes);
            $scenes[] = Scene::later((string) $key, fn (): array => $drawer->booked($layout, self::SCHEDULE, $raster, $placing, $this));
        }
        $standby = $this->schedule->standby === null ? null : $booked[$this->schedule->standby->key()];
        $turns = new BookedTurns($this->timetable(), $booked, new SteadyTurns(Loop::of([])));

        return [$drawer->zone(
            self::SCHEDULE,
            Loop::of([]),
            new ListedScenes($scenes, array_fill(0, count($scenes), Transition::cut())),
            $raster,
            $placing,
            $turns,
            array_values($booked),
            $standby,
        )];
    }

    public function contents(): array
    {
        return [...array_values($this->whole), ...array_merge(...array_map(array_values(...), array_values($this->zones))), ...$this->reactions?->contents() ?? []];
    }

    public function stretches(int $fromMs, int $toMs, bool $items): array
    {
        return (new BaseStretches($this, $items))->between($fromMs, $toMs);
    }

    public function firstShown(SearchTarget $target, int $nowMs): ?FirstShown
    {
        return (new BaseSearch($this, $target))->first($nowMs);
    }

    public function changesFrom(?Track $before): array
    {
        $old = $before instanceof self ? $before : null;

        return [...$this->changesBelow($old), ...($this->reactions ?? Reactions::none())->changesFrom($old?->reactions)];
    }

    /** @return list<string> of what plays whatever happens */
    private function changesBelow(?self $old): array
    {
        $words = match (true) {
            $this->schedule !== null => ScheduleChanges::between($old?->schedule, $this->schedule),
            $old === null || $old->schedule !== null => [sprintf($old === null ? '"%s" is the first to be handed over.' : '"%s" takes the place of what is booked.', $this->plays()->name)],
            default => LayoutChanges::between($old->plays(), $this->plays()),
        };
        if ($old?->schedule === null || $this->schedule === null) {
            return $words;
        }
        foreach ([[$old->whole, $this->whole], ...array_map(fn (string|int $zone): array => [$old->zones[$zone] ?? [], $this->zones[$zone]], array_keys($this->zones))] as [$was, $is]) {
            foreach (array_intersect_key($is, $was) as $key => $layout) {
                array_push($words, ...LayoutChanges::within($was[$key], $layout));
            }
        }

        return array_values(array_unique($words));
    }

    /** @return list<Finding> zones that are booked, and that no layout booked on the display has */
    public function findings(): array
    {
        $known = array_merge(...array_map(static fn (Composed $layout): array => array_map(strval(...), array_keys($layout->zones)), array_values($this->whole)));

        return array_map(static fn (string $zone): Finding => new Finding(
            'booking.zone',
            Level::Warning,
            [],
            sprintf('Zone "%s" is booked, but no layout that plays on the display has a zone of that name.', $zone),
            ['zone' => $zone],
        ), array_values(array_diff($this->schedule?->zonesBooked() ?? [], $known)));
    }

    /** What plays for ever, where there is no schedule. */
    private function plays(): Composed
    {
        return $this->whole[array_key_first($this->whole) ?? throw new \LogicException('Something plays for ever.')];
    }
}
