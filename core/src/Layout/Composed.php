<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\BudgetExceeded;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Division\Recipe;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\HasMedia;
use UpperPane\Core\Layout\Kind\HasWords;
use UpperPane\Core\Layout\Kind\Nests;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Layout\Told\HasLength;
use UpperPane\Core\Layout\Told\InLanguages;
use UpperPane\Core\Layout\Told\PlaysByData;
use UpperPane\Core\Layout\Told\ReadsData;
use UpperPane\Core\Layout\Told\TakesTurns;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\ItemComings;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Rota;
use UpperPane\Core\Time\RotaTurns;
use UpperPane\Core\Time\StandbyTurns;
use UpperPane\Core\Time\SteadyTurns;
use UpperPane\Core\Time\Turns;
use UpperPane\Core\Time\WhenInTime;
use UpperPane\Core\Units\Integers;
use UpperPane\Core\Units\WallClock;

/** A layout with all that it refers to, and its loops worked out: what is judged, and what plays. */
final readonly class Composed
{
    /** Loops that meet only after more than a year are said never to meet. */
    public const YEAR_MS = 31_536_000_000;

    /**
     * @param list<Element> $elements the first lowest
     * @param array<string, PlayingZone> $zones by id, lowest first; those that are to be seen
     * @param array<string, PlayingZone> $all the hidden ones as well, which may lead others
     * @param array<string, Loop> $loops of the zones, by id
     * @param array<string, self> $variants the same content on other canvases, by id
     * @param bool $isFullScreen whether it is a list or a media by itself, that nobody has laid out
     * @param array<string, WhenInTime> $whens only while what holds elements are drawn, by their ids
     */
    private function __construct(
        public string $id,
        public string $name,
        public Size $canvas,
        public Colour $background,
        public array $elements,
        public array $zones,
        private array $all,
        public array $loops,
        public ?Recipe $recipe = null,
        public array $variants = [],
        public bool $isFullScreen = false,
        public array $whens = [],
    ) {
    }

    /**
     * @param list<Element> $elements the first lowest
     * @param array<string, self> $variants
     * @param string $path JSON Pointer to the layout
     * @param array<string, WhenInTime> $whens only while what holds elements are drawn, by their ids
     * @throws BudgetExceeded where a loop, or that of followers, has too many slots
     */
    public static function of(string $id, string $name, Size $canvas, Colour $background, array $elements, ?Recipe $recipe = null, array $variants = [], string $path = '', array $whens = []): self
    {
        $zones = PlayingZone::among($elements);
        [$loops, $leaders] = [[], []];
        foreach ($elements as $place => $element) {
            $zone = $zones[$element->id()] ?? null;
            if ($zone === null) {
                continue;
            }
            if ($zone->follows === null) {
                $loops[$zone->id()] = $leaders[$zone->id()] ?? $zone->loop(null);
                continue;
            }
            $leader = $leaders[$zone->follows] ??= $loops[$zone->follows] ?? $zones[$zone->follows]->loop(null);
            Budget::ofSlots($leader->slotsFollowedBy($zone->slots()), "$path/elements/$place/follows");
            $loops[$zone->id()] = $zone->loop($leader);
        }

        return new self($id, $name, $canvas, $background, $elements, $zones, $zones, $loops, $recipe, $variants, whens: $whens);
    }

    /** One zone over a whole canvas, drawn by nobody. */
    public static function fullScreen(string $id, string $name, Size $canvas, PlayingZone $zone): self
    {
        $loops = [$zone->id() => $zone->loop(null)];

        return new self($id, $name, $canvas, Colour::black(), [$zone], [$zone->id() => $zone], [$zone->id() => $zone], $loops, isFullScreen: true);
    }

    /** Itself or its variant, whichever suits a raster best (Matching::bestOf). */
    public function for(Size $raster): self
    {
        $all = [$this, ...array_values($this->variants)];

        return $all[Matching::bestOf(array_map(static fn (self $layout): Size => $layout->canvas, $all), $raster)];
    }

    /** Without the elements that are left out for the time being; followers of a hidden leader go on following it. */
    public function visible(): self
    {
        return $this->only(static fn (Element $element): bool => !$element->isHidden());
    }

    /**
     * With some of its elements alone; loops stay as they are.
     *
     * @param \Closure(Element): bool $which
     */
    public function only(\Closure $which): self
    {
        $elements = array_values(array_filter($this->elements, $which));

        return count($elements) === count($this->elements) ? $this : $this->with($elements, PlayingZone::among($elements));
    }

    /**
     * As it is seen in another language than the first, where elements take turns in several: each in the second, then in the third.
     *
     * @return list<array{array<string, string>, self}> the language of each of those elements, by its id, and the layout
     */
    public function inOtherLanguages(): array
    {
        $speaking = array_filter(array_map(static fn (Element $one): ?InLanguages => $one instanceof TakesTurns ? $one->inLanguages() : null, $this->elements));
        $others = [];
        $most = max([0, ...array_map(static fn (InLanguages $one): int => count($one->elements), $speaking)]);
        for ($number = 1; $number < $most; $number++) {
            [$elements, $languages] = [$this->elements, []];
            foreach ($speaking as $place => $one) {
                $elements[$place] = $one->element($number);
                $languages[$elements[$place]->id()] = $one->languages()[min($number, count($one->elements) - 1)];
            }
            $others[] = [$languages, $this->with(array_values($elements), $this->zones)];
        }

        return $others;
    }

    /** As a picture that nothing divides: its zones paint, and are asked for nothing else. */
    public function still(): self
    {
        return $this->with($this->elements, []);
    }

    /**
     * @param list<Element> $elements
     * @param array<string, PlayingZone> $zones
     */
    private function with(array $elements, array $zones): self
    {
        return new self(
            $this->id,
            $this->name,
            $this->canvas,
            $this->background,
            $elements,
            $zones,
            $this->all,
            $this->loops,
            $this->recipe,
            $this->variants,
            $this->isFullScreen,
            $this->whens,
        );
    }

    /** Whether the layout has a zone that plays something. */
    public function hasLoop(): bool
    {
        foreach ($this->loops as $loop) {
            if ($loop->items !== []) {
                return true;
            }
        }

        return $this->lengthByData() !== null;
    }

    /**
     * How long the longest of what tells data in it takes, ms; null where nothing does.
     *
     * @param ?int $ms of the instant whose rows it tells, Unix ms; that at which it is looked at where null
     */
    public function lengthByData(?int $ms = null): ?int
    {
        $lengths = array_map(static fn (HasLength $one): int => $one->lengthMs($ms), $this->havingLength());

        return $lengths === [] || max($lengths) === 0 ? null : max($lengths);
    }

    /** The first instant after this (Unix ms) at which that may be another length; null where there is none. */
    public function lengthChangesAfter(int $ms): ?int
    {
        $changes = array_filter(array_map(static fn (HasLength $one): ?int => $one->changesAfter($ms), $this->havingLength()), is_int(...));

        return $changes === [] ? null : min($changes);
    }

    /** Whether anything in it, or in a layout within it, tells rows of data. */
    public function tellsData(): bool
    {
        foreach ($this->layouts() as $layout) {
            foreach ($layout->elements as $element) {
                $isTold = ($element instanceof ReadsData && $element->reads() !== null) || ($element instanceof PlaysByData && ($element->conditions() !== [] || $element->rowByRow() !== []));
                if ($isTold || isset($layout->whens[$element->id()])) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @return list<HasLength> */
    private function havingLength(): array
    {
        return array_values(array_filter($this->elements, static fn (Element $one): bool => $one instanceof HasLength && !$one->isHidden()));
    }

    /**
     * What takes turns in each zone, the hidden ones too, and in what tells data. Scenes of a zone are numbered as the enabled items of its list; behind them stands its standby.
     *
     * @param WallClock $clock on the wall of the display
     * @param int $anchorMs Unix ms at which all loops begin
     * @return array<string, Turns> by id of the element
     */
    public function turns(WallClock $clock, int $anchorMs): array
    {
        [$turns, $following] = [[], []];
        foreach ($this->all as $zone) {
            if ($zone->follows !== null) {
                $following[$zone->follows][] = $zone;
            }
        }
        foreach ($this->all as $id => $leader) {
            if ($leader->follows !== null) {
                continue;
            }
            $family = [$leader, ...$following[$id] ?? []];
            $rota = array_filter($family, static fn (PlayingZone $zone): bool => $zone->comesAndGoes()) === [] ? null : new Rota(
                array_map(static fn (PlayingZone $zone): Playlist => $zone->playlist, $family),
                new ItemComings(
                    array_map(static fn (PlayingZone $zone): Playlist => $zone->list, $family),
                    $clock,
                    $leader->lengthsAt(...),
                    $leader->lengthChanges(),
                    array_map(static fn (PlayingZone $zone): array => $zone->whens, $family),
                    array_map(static fn (PlayingZone $zone): array => $zone->rowItems(), $family),
                ),
                $clock,
                $anchorMs,
            );
            foreach ($family as $member => $zone) {
                $own = $rota === null ? new SteadyTurns($this->loops[$zone->id()], $anchorMs) : new RotaTurns($rota, $member);
                // A list that always has something to play never needs a standby.
                $turns[$zone->id()] = $zone->standby === null || ($own instanceof SteadyTurns && $own->loop->items !== [])
                    ? $own
                    : new StandbyTurns($own, count($zone->playlist->enabled()));
            }
        }

        foreach ($this->elements as $element) {
            $own = $element instanceof ReadsData ? $element->dataTurns() : null;
            if ($own !== null) {
                $turns[$element->id()] = $own->anchored($anchorMs);
            }
        }

        return $turns;
    }

    /** Whether anything comes and goes in it, or in a layout within it. */
    public function isTurning(): bool
    {
        foreach ($this->zones as $zone) {
            if ($zone->comesAndGoes() || array_filter($zone->nested(), static fn (self $nested): bool => $nested->isTurning()) !== []) {
                return true;
            }
        }

        return false;
    }

    /** Length of the layout's loop, ms: of the longest of what tells data, the leader's, or until all loops meet; null where it never comes round. */
    public function loopMs(): ?int
    {
        $byData = $this->lengthByData();
        if ($byData !== null) {
            return $byData;
        }
        foreach ($this->zones as $zone) {
            if ($zone->follows !== null) {
                return $this->loops[$zone->follows]->periodMs;
            }
        }
        foreach ($this->loops as $loop) {
            if ($loop->periodMs === null) {
                return null;
            }
        }

        return $this->meetsEveryMs();
    }

    /** After how many ms all loops that come round begin together again; null beyond a year, or where none comes round. */
    public function meetsEveryMs(): ?int
    {
        $periods = [];
        foreach ($this->loops as $loop) {
            if ($loop->periodMs !== null && $loop->periodMs > 0) {
                $periods[] = $loop->periodMs;
            }
        }

        return $periods === [] ? null : Integers::leastCommonMultiple($periods, self::YEAR_MS);
    }

    /** @return array<string, float> which part of the canvas each zone takes up, by id; what lies outside counts as well */
    public function shares(): array
    {
        return array_map(fn (PlayingZone $zone): float => $zone->rect()->area() / $this->canvas->area(), $this->zones);
    }

    public function element(string $id): ?Element
    {
        foreach ($this->elements as $element) {
            if ($element->id() === $id) {
                return $element;
            }
        }

        return null;
    }

    /** @return list<Media> every picture and film that it or a layout within it may show, each once */
    public function media(): array
    {
        $once = [];
        foreach ($this->layouts() as $layout) {
            foreach ($layout->visible()->elements as $element) {
                foreach ($element instanceof HasMedia ? $element->media() : [] as $media) {
                    $once[$media->id ?? $media->name] = $media;
                }
            }
        }

        return array_values($once);
    }

    /** @return list<string> families of the faces in which it and the layouts within it are set */
    public function families(): array
    {
        $families = [];
        foreach ($this->layouts() as $layout) {
            foreach ($layout->visible()->elements as $element) {
                foreach ($element instanceof HasWords ? $element->styles() : [] as $style) {
                    $families[$style->family] = $style->family;
                }
            }
        }

        return array_values($families);
    }

    /** @return list<self> itself and the layouts that may be seen in it, however deep, each once */
    public function layouts(): array
    {
        $found = [spl_object_id($this) => $this];
        for ($open = [$this]; ($layout = array_shift($open)) !== null;) {
            foreach ($layout->visible()->elements as $element) {
                foreach ($element instanceof Nests ? $element->nested() : [] as $nested) {
                    if (!isset($found[spl_object_id($nested)])) {
                        $found[spl_object_id($nested)] = $nested;
                        $open[] = $nested;
                    }
                }
            }
        }

        return array_values($found);
    }
}
