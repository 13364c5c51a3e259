<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Told\InLanguages;
use UpperPane\Core\Layout\Told\InTurn;
use UpperPane\Core\Layout\Told\TakesTurns;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Playback\Base;
use UpperPane\Core\Playback\Changing;
use UpperPane\Core\Playback\GrownScenes;
use UpperPane\Core\Playback\ListedScenes;
use UpperPane\Core\Playback\Part;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\Reactions;
use UpperPane\Core\Playback\Scene;
use UpperPane\Core\Playback\Scenes;
use UpperPane\Core\Playback\ZonePlan;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Transition;
use UpperPane\Core\Time\Turns;
use UpperPane\Core\Time\WhenInTime;
use UpperPane\Core\Units\WallClock;

/** Draws layouts: what all drawings have in common, and what they need. */
final readonly class Drawer
{
    /** Name of the scene that the standby of a zone is. No item is called so: an id has no space. */
    private const STANDBY = 'own standby';

    /**
     * @param ?Base $base of which a layout is drawn whose zones can be booked
     * @param bool $begins whether what is drawn begins with the item of a zone: then what is due at its beginning stays until it ends
     */
    public function __construct(public Surroundings $surroundings, public WallClock $clock, private ?Base $base = null, private bool $begins = false)
    {
    }

    /**
     * @param array<string, Turns> $turns by zone id
     * @param ?Reactions $reactions what is shown above zones of what plays on the whole display
     * @return list<Part|ZonePlan> lowest first
     */
    public function layout(Composed $layout, Placing $placing, array $turns, ?Reactions $reactions = null): array
    {
        $layers = [];
        foreach ($layout->visible()->elements as $element) {
            $drawn = fn (): array => $this->element($element, $layout, $placing, $turns[$element->id()] ?? null);
            $when = $layout->whens[$element->id()] ?? null;
            array_push($layers, ...($when === null ? $drawn() : [$this->while($when, $element, $placing, $drawn)]));
            array_push($layers, ...$reactions?->above($element->id(), $element->rect(), $placing, $this) ?? []);
        }

        return $layers;
    }

    /**
     * @param ?Turns $turns that it takes
     * @return list<Part|ZonePlan> lowest first
     */
    private function element(Element $element, Composed $layout, Placing $placing, ?Turns $turns): array
    {
        $takes = $turns !== null && $element instanceof TakesTurns ? $element : null;

        return match (true) {
            $takes?->inLanguages() !== null => [$this->inLanguages($takes->inLanguages(), $takes, $layout, $placing, $turns)],
            $takes?->inTurn() !== null => [$this->inTurn($takes->inTurn(), $takes, $placing, $turns, fn (Element $told): array => $this->element($told, $layout, $placing, null))],
            default => Drawings::of($element)->layers($element, $layout, $placing, $this, $turns),
        };
    }

    /**
     * What is drawn only while something holds.
     *
     * @param \Closure(): list<Part|ZonePlan> $drawn
     */
    private function while(WhenInTime $when, Element $element, Placing $placing, \Closure $drawn): ZonePlan
    {
        $turns = $this->begins ? $when->turns()->begun() : $when->turns();
        $scenes = new ListedScenes([Scene::later('while', $drawn)], [Transition::cut()]);

        return $this->zone($element->id(), $when->holds($this->surroundings->atMs) ? Loop::endless(0) : Loop::of([]), $scenes, $element->rect(), $placing, $turns, walks: true);
    }

    /**
     * A layout that begins with the item of a zone in which it is seen.
     *
     * @return list<Part|ZonePlan> lowest first
     */
    public function begun(Composed $layout, Placing $placing): array
    {
        $turns = array_map(static fn (Turns $own): Turns => $own->begun(), $layout->turns($this->clock, 0));

        return (new self($this->surroundings, $this->clock, null, true))->layout($layout, $placing, $turns);
    }

    /**
     * A layout that is booked, or a standby, fitted into a rectangle.
     *
     * @param ?Base $base where it plays on the whole display, so that its zones can be booked as well
     * @return list<Part|ZonePlan> lowest first
     */
    public function booked(Composed $layout, string $id, Rect $rect, Placing $placing, ?Base $base): array
    {
        [$ground, $box, $fit] = $this->fitted($layout, $id, $rect, $placing);
        $inside = $base !== null ? $placing->onto($box, $fit) : $placing->inside($id, $box, $fit);
        $drawer = new self($this->surroundings, $this->clock, $base);

        return [$ground, ...$drawer->layout($layout, $inside, $base?->turns($layout, 0) ?? $layout->turns($this->clock, 0), $base?->reactions)];
    }

    /**
     * What is shown because something happened, fitted into a rectangle: it begins whenever that is.
     *
     * @return list<Part|ZonePlan> lowest first
     */
    public function answering(Composed $layout, string $id, Rect $rect, Placing $placing): array
    {
        [$ground, $box, $fit] = $this->fitted($layout, $id, $rect, $placing);

        return [$ground, ...$this->begun($layout, $placing->inside($id, $box, $fit))];
    }

    /** @return array{Part, Box, Fit} the colour of a layout in a rectangle, that, and how it lies there */
    private function fitted(Composed $layout, string $id, Rect $rect, Placing $placing): array
    {
        $box = Box::ofRect($rect);
        $fit = Fit::of($layout->canvas, $rect->size(), FitMode::Contain, 50.0, 50.0);
        $drawn = $placing->box($fit->drawn->placed(1, 1, $box->x, $box->y));

        return [new Part($placing->element($id), 'background', null, null, $drawn->clippedTo($placing->rect($box)), $drawn, ['fill' => $layout->background->hex]), $box, $fit];
    }

    /** The standby of a zone. A list or a media plays there as the list of the zone itself does. */
    public function standby(Composed $standby, PlayingZone $zone, Placing $placing): Scene
    {
        $box = Box::ofRect($zone->rect());
        if ($standby->isFullScreen) {
            $inside = $placing->in($box);

            return Scene::later(self::STANDBY, fn (): array => $this->begins ? $this->begun($standby, $inside) : $this->layout($standby, $inside, $standby->turns($this->clock, 0)));
        }
        if (!$this->begins) {
            return Scene::later(self::STANDBY, fn (): array => $this->booked($standby, $zone->id(), $zone->rect(), $placing, null));
        }
        $fit = Fit::of($standby->canvas, $zone->rect()->size(), FitMode::Contain, 50.0, 50.0);

        return Scene::later(self::STANDBY, fn (): array => $this->begun($standby, $placing->inside($zone->id(), $box, $fit)));
    }

    /**
     * What is booked in a zone of what is drawn, as scenes.
     *
     * @return list<Scene>
     */
    public function bookedIn(PlayingZone $zone, Placing $placing): array
    {
        $scenes = [];
        foreach ($this->base->zones[$zone->id()] ?? [] as $key => $layout) {
            $scenes[] = Scene::later((string) $key, fn (): array => $this->booked($layout, $zone->id(), $zone->rect(), $placing, null));
        }

        return $scenes;
    }

    /**
     * @param list<int> $anchored scenes that count from when their turn begins
     */
    public function zone(string $id, Loop $loop, Scenes $scenes, Rect $rect, Placing $placing, Turns $turns, array $anchored = [], ?int $behind = null, bool $walks = false): ZonePlan
    {
        return new ZonePlan($placing->element($id), $loop, $scenes, $placing->rect(Box::ofRect($rect)), $turns, $this->begins, $anchored, $behind, $walks);
    }

    /** An element in one language after the other, each of which may be what data make it. */
    private function inLanguages(InLanguages $inLanguages, Element $element, Composed $layout, Placing $placing, Turns $turns): ZonePlan
    {
        $inside = new self($this->surroundings, $this->clock, null, true);
        $scenes = [];
        foreach ($inLanguages->elements as $language => $one) {
            $scenes[] = Scene::later("in $language", static fn (): array => $inside->element($one, $layout, $placing, $one->dataTurns()?->begun()));
        }

        return $this->zone($element->id(), $inLanguages->loop(), new ListedScenes($scenes, array_fill(0, count($scenes), Transition::cut())), $element->rect(), $placing, $turns);
    }

    /**
     * An element as data make it one after the other.
     *
     * @param \Closure(Element): list<Part|ZonePlan> $drawn
     */
    private function inTurn(InTurn $inTurn, Element $element, Placing $placing, Turns $turns, \Closure $drawn): ZonePlan
    {
        $scenes = new GrownScenes(static fn (int $number): Scene => Scene::later(
            'told ' . substr(hash('sha256', $inTurn->element($number)->says()), 0, 12),
            static fn (): array => $drawn($inTurn->element($number)),
        ), Transition::cut());

        return $this->zone($element->id(), $inTurn->loop($this->surroundings->atMs), $scenes, $element->rect(), $placing, $turns, walks: true);
    }

    /** How many scenes a zone has by itself: its enabled items, and its standby where it may come to play. */
    public static function scenesOf(PlayingZone $zone): int
    {
        return count($zone->playlist->enabled()) + ($zone->standby === null ? 0 : 1);
    }

    /** @param array<string, mixed> $look */
    public function plain(Element $element, Placing $placing, array $look, ?Changing $changing = null): Part
    {
        $box = Box::ofRect($element->rect());

        return new Part($placing->element($element->id()), $element->kind(), null, null, $placing->rect($box), $placing->box($box), $look, changing: $changing);
    }

    /** @return list<Part> the colour of a box, below what is in it */
    public function ground(Element $element, ?Colour $ground, Placing $placing): array
    {
        $box = Box::ofRect($element->rect());

        return $ground === null ? [] : [new Part($placing->element($element->id()), 'background', null, null, $placing->rect($box), $placing->box($box), ['fill' => $ground->hex])];
    }

    /** @return array<string, mixed> */
    public function words(string $text, TextStyle $style, float $scale): array
    {
        return ['text' => $text, 'style' => $style->toArray($scale)];
    }
}
