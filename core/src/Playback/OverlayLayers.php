<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Programme\Programme as OpeningElement;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Media\Holes;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Overlay\Mark;
use UpperPane\Core\Overlay\Notice;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Pace;
use UpperPane\Core\Overlay\Room;
use UpperPane\Core\Overlay\Strip;
use UpperPane\Core\Overlay\Takeover;
use UpperPane\Core\Overlay\Window;
use UpperPane\Core\Playback\Drawing\Drawer;
use UpperPane\Core\Text\SetText;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Transition;

/** What overlays draw, and what plays below or within them, as layers on the canvas of a display: for each what of it others leave decides where it lies. */
final class OverlayLayers
{
    /** @var array<string, ?Rect> the opening of a window, by its id: looking through a picture takes long */
    private array $openings = [];

    /** @var array<string, list<Part|ZonePlan>> what says the words of an overlay, by its id and where it lies */
    private array $told = [];

    private readonly Surroundings $surroundings;

    /**
     * @param Base $base what plays, on its own canvas
     * @param Size $canvas of the display
     * @param ?Holes $holes who looks through pictures; without it none has an opening
     */
    public function __construct(
        private readonly Base $base,
        private readonly OverlayCourse $course,
        private readonly Composer $composer,
        private readonly Size $canvas,
        private readonly ?Holes $holes,
    ) {
        $this->surroundings = $composer->surroundings->in($base->clock->timezone);
    }

    /**
     * What strips that squeeze leave of the canvas.
     *
     * @param list<InForce> $standing lowest first
     * @param ?Overlay $before those below this one alone; null for all
     * @throws DocumentRefused where that is nothing
     */
    public function room(array $standing, ?Overlay $before = null): Room
    {
        $room = Room::whole($this->canvas);
        foreach ($standing as $one) {
            if ($one->overlay === $before) {
                break;
            }
            $room = $one->overlay->lies instanceof Strip && $one->overlay->lies->squeezes ? $one->overlay->lies->squeezed($room, $one->overlay->id) : $room;
        }

        return $room;
    }

    /**
     * What of the canvas decides where an overlay lies.
     *
     * @param list<InForce> $standing lowest first
     */
    public function roomOf(Overlay $overlay, array $standing): Room
    {
        return match (true) {
            $overlay->lies instanceof Mark, $overlay->lies instanceof Notice => $this->room($standing),
            $overlay->lies instanceof Strip && $overlay->lies->squeezes => $this->room($standing, $overlay),
            default => Room::whole($this->canvas),
        };
    }

    /** Whether an overlay decides where another lies. */
    public function isMovedBy(Overlay $overlay, Overlay $other): bool
    {
        $squeezes = $other->lies instanceof Strip && $other->lies->squeezes;

        return $squeezes && match (true) {
            $overlay->lies instanceof Mark, $overlay->lies instanceof Notice => true,
            $overlay->lies instanceof Strip && $overlay->lies->squeezes => $other->comparedTo($overlay) < 0,
            default => false,
        };
    }

    /**
     * What plays, in what strips leave, or in the opening of a window.
     *
     * @param list<InForce> $standing lowest first
     * @return list<Part|ZonePlan> lowest first, on black
     * @throws Refused
     */
    public function below(array $standing): array
    {
        $room = $this->room($standing);
        $top = self::window($standing);
        if ($top !== null && $top->lies instanceof Window) {
            return $this->windowed($top, $top->lies, $room);
        }
        $own = $this->base->own();

        return $this->base->fittedAs(Fitted::into($this->canvas, $room->rest, Fit::of($own, $room->rest->size(), FitMode::Contain)))->plated($this->surroundings);
    }

    /**
     * Of windows the highest is drawn.
     *
     * @param list<InForce> $standing lowest first
     */
    public static function window(array $standing): ?Overlay
    {
        $windows = array_filter($standing, static fn (InForce $one): bool => $one->overlay->lies instanceof Window);

        return (end($windows) ?: null)?->overlay;
    }

    /**
     * What an overlay draws above what plays, anew with each of its occurrences.
     *
     * @return list<Part|ZonePlan> lowest first
     * @throws Refused
     */
    public function above(Overlay $overlay, Room $room): array
    {
        return $this->anew($overlay, $this->drawn($overlay, $room));
    }

    /**
     * The same, counted from the start of its occurrence.
     *
     * @return list<Part|ZonePlan> lowest first
     * @throws Refused
     */
    public function drawn(Overlay $overlay, Room $room): array
    {
        $lies = $overlay->lies;

        return match (true) {
            $lies instanceof Mark => [$this->mark($overlay, $lies, $room)],
            $lies instanceof Strip => $this->strip($overlay, $lies, $room),
            $lies instanceof Notice => $this->notice($overlay, $lies, $room),
            $lies instanceof Takeover => $this->takeover($overlay, $lies),
            default => throw new \LogicException("Nobody draws an overlay of kind $overlay->kind above what plays."),
        };
    }

    /** Whether a window has an opening: an element of a layout, or a transparent part of a picture. */
    public function isOpen(Overlay $overlay, Window $window): bool
    {
        return $this->opening($overlay, $this->played($window->plays)) !== null;
    }

    /**
     * That all that an overlay names is there, whether it is in force or not.
     *
     * @throws Refused where something is not, at its place in the overlay
     */
    public function check(Overlay $overlay): void
    {
        $lies = $overlay->lies;
        [$colour, $path] = match (true) {
            $lies instanceof Strip => [$lies->ground, '/ground'],
            $lies instanceof Notice => [$lies->plate, '/plate'],
            default => [null, ''],
        };
        $this->colour($colour, $path);
        $whole = Rect::whole($this->canvas);
        match (true) {
            $lies instanceof Strip, $lies instanceof Notice => $this->told($overlay, $lies->element($overlay->id, $whole)),
            $lies instanceof Mark => $this->seen($lies->media),
            $lies instanceof Takeover, $lies instanceof Window => $this->played($lies->plays),
            default => null,
        };
    }

    /**
     * All that an overlay may show, as layouts.
     *
     * @return list<Composed>
     */
    public function contents(Overlay $overlay): array
    {
        $lies = $overlay->lies;

        return match (true) {
            $lies instanceof Mark => [$this->composer->media($this->seen($lies->media), $this->canvas, $overlay->id)],
            $lies instanceof Takeover, $lies instanceof Window => [$this->played($lies->plays)],
            $lies instanceof Strip, $lies instanceof Notice => [$this->composed($overlay, $lies->element($overlay->id, Rect::whole($this->canvas)))],
            default => [],
        };
    }

    private function mark(Overlay $overlay, Mark $mark, Room $room): Part
    {
        $media = $this->seen($mark->media);
        $box = Box::ofRect($mark->rect($room, $media->size));

        return (new Part($overlay->id, 'picture', null, $media, $box, $box, [], $mark->opacity))->lyingOver($overlay->id);
    }

    /** A picture itself, or what the house style calls so. */
    private function seen(Media $media): Media
    {
        return $media->isNamed ? Styling::on($this->canvas, $this->composer->surroundings)->mark($media->name, '/media/mark') : $media;
    }

    private function colour(?string $colour, string $path): ?string
    {
        return $colour !== null && str_starts_with($colour, '@') ? Styling::on($this->canvas, $this->composer->surroundings)->colour(substr($colour, 1), $path)->hex : $colour;
    }

    /** @return list<Part|ZonePlan> */
    private function strip(Overlay $overlay, Strip $strip, Room $room): array
    {
        $rect = $strip->rect($room);
        $lying = $strip->isUpright() ? Rect::at(0, 0, $rect->height, $rect->width) : $rect;
        $ground = $this->ground($overlay, $rect, $this->colour($strip->ground, '/ground'));
        $pace = $strip->pace($this->refreshHz());

        return Layering::each($this->told($overlay, $strip->element($overlay->id, $lying)), fn (Part $part): array => [
            ...$ground, $this->running($overlay, $part, $pace, static fn (TextStyle $style): Rect => $rect, $strip->isUpright()),
        ]);
    }

    /** @return list<Part|ZonePlan> */
    private function notice(Overlay $overlay, Notice $notice, Room $room): array
    {
        $told = $this->told($overlay, $notice->element($overlay->id, Rect::whole($this->canvas)));
        $plate = $this->colour($notice->plate, '/plate');
        if ($notice->isMoving()) {
            $pace = $notice->pace($this->refreshHz());
            $rect = static fn (TextStyle $style): Rect => $notice->rect($room, $style->sizePx * $style->lineHeight);

            return Layering::each($told, fn (Part $part): array => [
                ...$this->ground($overlay, $rect(self::style($part)), $plate), $this->running($overlay, $part, $pace, $rect, false),
            ]);
        }

        return Layering::each($told, function (Part $part) use ($overlay, $notice, $room, $plate): array {
            $rect = $notice->rect($room, $this->set(self::text($part), self::style($part), (float) $notice->linePx($room))->heightPx);
            $padding = $notice->paddingPx($room);
            $words = Rect::at($rect->x + $padding, $rect->y + $padding, max(1, $rect->width - 2 * $padding), max(1, $rect->height - 2 * $padding));
            $box = Box::ofRect($words);

            return [
                ...$this->ground($overlay, $rect, $plate),
                (new Part($overlay->id, 'text', null, null, $box, $box, $part->look, of: Box::ofRect($rect)))->lyingOver($overlay->id),
            ];
        });
    }

    /** @return list<Part> */
    private function ground(Overlay $overlay, Rect $rect, ?string $colour): array
    {
        $box = Box::ofRect($rect);

        return $colour === null ? [] : [(new Part($overlay->id, 'background', null, null, $box, $box, ['fill' => $colour]))->lyingOver($overlay->id)];
    }

    /**
     * A line that runs through a box.
     *
     * @param Part $part that tells its words
     * @param \Closure(TextStyle): Rect $rect where it lies
     */
    private function running(Overlay $overlay, Part $part, Pace $pace, \Closure $rect, bool $isUpright): Part
    {
        $text = trim((string) preg_replace('/\s+/u', ' ', self::text($part)));
        $style = self::style($part);
        $at = $rect($style);
        $box = Box::ofRect($at);
        $look = ['text' => $text] + array_intersect_key($part->look, ['style' => 1]);
        $paced = new PacedText($pace, $this->set($text, $style, INF)->widthPx, $at, $isUpright);

        return (new Part($overlay->id, 'ticker', null, null, $box, $box, $look, changing: $paced))->lyingOver($overlay->id);
    }

    private static function text(Part $part): string
    {
        return is_string($part->look['text'] ?? null) ? $part->look['text'] : '';
    }

    /** As it is set on the canvas. */
    public static function style(Part $part): TextStyle
    {
        /** @var array<string, mixed> $style */
        $style = is_array($part->look['style'] ?? null) ? $part->look['style'] : [];

        return TextStyle::of($style);
    }

    /** @return list<Part|ZonePlan> */
    private function takeover(Overlay $overlay, Takeover $takeover): array
    {
        $plays = $this->played($takeover->plays);
        $whole = Rect::whole($this->canvas);
        $fitted = Fitted::into($this->canvas, $whole, Fit::of($plays->canvas, $this->canvas, $takeover->fit));
        $black = new Part($overlay->id, 'background', null, null, Box::ofRect($whole), Box::ofRect($whole), ['fill' => Colour::black()->hex]);

        return Layering::each([$black, ...$this->playing($overlay, $plays, $fitted)], static fn (Part $part): array => [$part->lyingOver($overlay->id)]);
    }

    /**
     * What an overlay plays, its own colour first.
     *
     * @return list<Part|ZonePlan>
     */
    private function playing(Overlay $overlay, Composed $plays, Fitted $fitted): array
    {
        $ground = $fitted->plate($plays->id, $plays->background);
        $clock = $this->base->clock;
        $drawer = new Drawer($this->surroundings, $clock);
        // After items it begins as an item does: what is due at its beginning stays until it ends.
        $own = $overlay->when->after !== null ? $drawer->begun($plays, $fitted->placing) : $drawer->layout($plays, $fitted->placing, $plays->turns($clock, 0));

        return [...($ground === null ? [] : [$ground]), ...$own];
    }

    /** @return list<Part|ZonePlan> what of the window lies below, what plays, and what of it lies above */
    private function windowed(Overlay $overlay, Window $window, Room $room): array
    {
        // What holds it is squeezed as a whole.
        $stage = Placing::outermost()->into(Box::ofRect($room->rest), Fit::of($this->canvas, $room->rest->size(), FitMode::Contain));
        $plays = $this->played($window->plays);
        $isPicture = $window->plays->kind === 'media';
        $placing = $stage->into(Box::ofRect(Rect::whole($this->canvas)), Fit::of($plays->canvas, $this->canvas, $isPicture ? FitMode::Fill : FitMode::Contain));
        $own = Layering::each(
            $this->playing($overlay, $plays, new Fitted($this->canvas, $placing, $plays->canvas)),
            static fn (Part $part): array => [$part->lyingOver($overlay->id)->heard($window->heard())],
        );
        $opening = $this->opening($overlay, $plays);
        $through = match (true) {
            $opening === null => [],
            $isPicture => $this->through($stage, $this->inwards($opening, $plays->canvas)),
            default => $this->through($placing, $opening),
        };
        $seen = Layering::each($through, static fn (Part $part): array => [$part->heard($window->programmeHeard())]);
        $element = OpeningElement::in($plays)?->id();
        $at = array_search($element, array_map(static fn (Part|ZonePlan $one): string => $one->element, $own), true);
        // At the place of its opening; a picture lies above all of it.
        [$under, $over] = is_int($at) ? [array_slice($own, 0, $at), array_slice($own, $at + 1)] : [[], $own];

        return [...$this->anew($overlay, $under), ...$seen, ...$this->anew($overlay, $over)];
    }

    /** The hole of a picture that fills the canvas, in whole px of that, rounded inwards. */
    private function inwards(Rect $hole, Size $picture): Rect
    {
        [$x, $y] = [$this->canvas->width / $picture->width, $this->canvas->height / $picture->height];
        [$left, $top] = [(int) ceil(round($hole->x * $x, 6)), (int) ceil(round($hole->y * $y, 6))];

        return Rect::at($left, $top, max(1, (int) floor(round($hole->right() * $x, 6)) - $left), max(1, (int) floor(round($hole->bottom() * $y, 6)) - $top));
    }

    /**
     * What plays, seen through an opening.
     *
     * @param Placing $placing of the canvas on which the opening lies
     * @return list<Part|ZonePlan>
     */
    private function through(Placing $placing, Rect $opening): array
    {
        $own = $this->base->own();
        $fitted = new Fitted($this->canvas, $placing->into(Box::ofRect($opening), Fit::of($own, $opening->size(), FitMode::Contain)), $own, false);

        return $this->base->fittedAs($fitted)->plated($this->surroundings);
    }

    /** Where what plays goes on in a window, px of what that is; null where it has no opening. */
    private function opening(Overlay $overlay, Composed $plays): ?Rect
    {
        if (!array_key_exists($overlay->id, $this->openings)) {
            $media = $plays->isFullScreen ? $plays->media()[0] ?? null : null;
            $this->openings[$overlay->id] = $media === null ? OpeningElement::in($plays)?->rect() : $this->holes?->largest($media);
        }

        return $this->openings[$overlay->id];
    }

    /** What an overlay plays: a layout or a list on the canvas, a picture or film in its own size, to be fitted as the overlay says. */
    private function played(Played $played): Composed
    {
        $plays = $this->composer->played($played, $this->canvas, path: '/plays');
        $media = $played->kind === 'media' ? $plays->media()[0] ?? null : null;

        return $media === null ? $plays : $this->composer->played($played, $media->size, path: '/plays');
    }

    /**
     * Layers that count from the start of each occurrence of an overlay; what is always in force counts from 1970-01-01T00:00:00Z.
     *
     * @param list<Part|ZonePlan> $layers
     * @return list<Part|ZonePlan>
     */
    private function anew(Overlay $overlay, array $layers): array
    {
        if ($layers === [] || ($overlay->when->isAlways && $this->base->anchorMs === 0)) {
            return $layers;
        }
        $scenes = new ListedScenes([Scene::later('shown', static fn (): array => $layers)], [Transition::cut()]);
        $turns = new OccurrenceTurns($this->course, $overlay, $this->base->clock);

        return [new ZonePlan($overlay->id, Loop::endless(0), $scenes, Box::ofRect(Rect::whole($this->canvas)), $turns, anchored: $overlay->when->after === null ? [0] : [], anew: true)];
    }

    /**
     * What says the words of an overlay.
     *
     * @param array<string, mixed> $element
     * @return list<Part|ZonePlan>
     * @throws Refused
     */
    private function told(Overlay $overlay, array $element): array
    {
        $key = json_encode([$overlay->id, $element['rect']], JSON_THROW_ON_ERROR);
        if (!isset($this->told[$key])) {
            $layout = $this->composed($overlay, $element);
            $clock = $this->base->clock;
            $this->told[$key] = (new Drawer($this->surroundings, $clock))->layout($layout, Placing::outermost(), $layout->turns($clock, 0));
        }

        return $this->told[$key];
    }

    /**
     * @param array<string, mixed> $element
     * @throws Refused
     */
    private function composed(Overlay $overlay, array $element): Composed
    {
        try {
            return $this->composer->layout(Layout::fromArray([
                'format' => Layout::FORMAT, 'id' => $overlay->id, 'name' => $overlay->name, 'canvas' => $this->canvas->toArray(), 'elements' => [$element],
            ]));
        } catch (DocumentRefused $e) {
            throw DocumentRefused::because($e->reason, str_replace('/elements/0/', '/', $e->getMessage()), str_replace('/elements/0/', '/', $e->path));
        }
    }

    /** @throws DocumentRefused where nobody can measure its face */
    private function set(string $text, TextStyle $style, float $widthPx): SetText
    {
        $faces = $this->composer->surroundings->faces;
        if ($faces === null || !$faces->knows($style->family)) {
            throw DocumentRefused::because(Reason::ValueUnknown, sprintf('/style/family is "%s", which is no face of the house: its letters cannot be measured.', $style->family), '/style/family');
        }

        return SetText::of($text, $faces, $style->family, $style->weight, $style->sizePx, $style->lineHeight, $widthPx);
    }

    private function refreshHz(): ?float
    {
        return $this->composer->surroundings->display?->refreshHz;
    }
}
