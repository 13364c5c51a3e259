<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

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
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Media\Holes;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Overlay\After;
use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Overlay\Mark;
use UpperPane\Core\Overlay\Notice;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Overlay\OverlayTimetable;
use UpperPane\Core\Overlay\Pace;
use UpperPane\Core\Overlay\Piece;
use UpperPane\Core\Overlay\Room;
use UpperPane\Core\Overlay\Strip;
use UpperPane\Core\Overlay\Takeover;
use UpperPane\Core\Overlay\Window;
use UpperPane\Core\Overlay\Words;
use UpperPane\Core\Text\SetText;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Turns;

/** What a display shows at an instant with all that lies above what plays: strips squeeze it, a takeover stands in the place of it. */
final class Overlaid
{
    /** Where items say what is drawn, so many such lists are kept. */
    private const KEPT = 256;

    private ?OverlayTimetable $timetable = null;

    private ?bool $goesByTimeAlone = null;

    /** @var array<string, Piece> where items say what is drawn, by what that is */
    private array $pieces = [];

    /** @var \WeakMap<Piece, \Closure(int): Shown<Thing>> what is drawn while the same overlays are: all but the instant is worked out */
    private \WeakMap $drawing;

    /** @var array<string, ?Rect> the opening of a window, by its id: looking through a picture takes long */
    private array $openings = [];

    /** @var array<string, ShownAt> what plays, by what is left for it */
    private array $plays = [];

    /** @var array<string, ShownAt> what says the words of an overlay, by its id, where it lies and what it counts from */
    private array $said = [];

    /** @var array<string, array<string, Turns>> what takes turns in what plays, by zone; by its id and what it counts from */
    private array $turns = [];

    private function __construct(
        private readonly Programme $programme,
        private readonly Overlays $overlays,
        private readonly Composer $composer,
        private readonly Size $canvas,
        private readonly ?Holes $holes,
    ) {
        $this->drawing = new \WeakMap();
    }

    /**
     * @param Size $canvas of the display, or of what plays where there is none
     * @param ?Holes $holes who looks through pictures; without it none has an opening
     */
    public static function of(Programme $programme, Overlays $overlays, Composer $composer, Size $canvas, ?Holes $holes = null): self
    {
        return new self($programme, $overlays, $composer, $canvas, $holes);
    }

    /**
     * That all that the overlays name is there, whether they are in force or not.
     *
     * @throws Refused where something is not, at its place in its overlay
     */
    public function check(): void
    {
        $styling = Styling::on($this->canvas, $this->composer->surroundings);
        $whole = Rect::whole($this->canvas);
        foreach ($this->overlays->all as $overlay) {
            $lies = $overlay->lies;
            $one = new InForce($overlay, 0);
            [$colour, $path] = match (true) {
                $lies instanceof Strip => [$lies->ground, '/ground'],
                $lies instanceof Notice => [$lies->plate, '/plate'],
                default => [null, ''],
            };
            if ($colour !== null && str_starts_with($colour, '@')) {
                $styling->colour(substr($colour, 1), $path);
            }
            match (true) {
                $lies instanceof Strip => $this->said($one, $lies->element($overlay->id, $whole), 0),
                $lies instanceof Notice => $this->said($one, $lies->element($overlay->id, $whole), 0),
                $lies instanceof Mark => $this->seen($lies->media),
                $lies instanceof Takeover, $lies instanceof Window => $this->played($lies->plays),
                default => null,
            };
            if (($after = $overlay->when->after) !== null) {
                array_map(static fn (Composed $layout): PlayingZone => self::zone($layout, $after->zone) ?? throw self::zoneless($after, $layout), $this->programme->base->whole);
            }
        }
    }

    /**
     * Those that are drawn, lowest first.
     *
     * @param int $ms Unix ms
     * @return list<InForce>
     * @throws DocumentRefused where one comes after items of a zone that is not there
     */
    public function drawn(int $ms): array
    {
        return $this->piece($ms)->drawn;
    }

    /** With those that are drawn; a value of its own only where something else is. */
    private function piece(int $ms): Piece
    {
        if ($this->goesByTimeAlone()) {
            return ($this->timetable ??= new OverlayTimetable($this->overlays, $this->programme->clock()))->at($ms);
        }
        $without = $this->due($ms)->withoutOverlays ?? [];
        $drawn = Overlays::drawn($this->overlays->at($this->programme->clock(), $ms, fn (After $after): ?int => $this->followed($after, $ms), $without));
        $key = implode(' ', array_map(static fn (InForce $one): string => "{$one->overlay->id}@$one->anchorMs", $drawn));
        $this->pieces = count($this->pieces) < self::KEPT ? $this->pieces : [];

        return $this->pieces[$key] ??= new Piece($ms, $ms, $drawn);
    }

    /** Whether neither items that end nor items that do without say what is drawn. */
    private function goesByTimeAlone(): bool
    {
        return $this->goesByTimeAlone ??= array_filter($this->overlays->all, static fn (Overlay $one): bool => $one->when->after !== null) === []
            && array_filter($this->programme->base->whole, static fn (Composed $layout): bool => array_filter(
                self::zone($layout, null)?->playlist->enabled() ?? [],
                static fn (Item $item): bool => $item->withoutOverlays !== [],
            ) !== []) === [];
    }

    /**
     * @param int $ms Unix ms
     * @return Shown<Thing>
     * @throws Refused where an overlay cannot be worked out
     */
    public function at(int $ms): Shown
    {
        $piece = $this->piece($ms);

        return ($this->drawing[$piece] ??= $this->drawing($piece->drawn))($ms);
    }

    /**
     * @param list<InForce> $drawn lowest first
     * @return \Closure(int): Shown<Thing>
     */
    private function drawing(array $drawn): \Closure
    {
        $lies = ($drawn[0] ?? null)?->overlay->lies;
        if ($lies instanceof Takeover) {
            return $this->takeover($drawn[0], $lies);
        }
        $room = $this->room($drawn);
        $below = $lies instanceof Window ? $this->window($drawn[0], $lies, $room) : $this->below($room)->at(...);
        $laying = $this->laying($drawn);

        return function (int $ms) use ($below, $laying): Shown {
            $shown = $below($ms);
            $things = $shown->things;
            foreach ($laying as $lays) {
                $things[] = $lays instanceof LaidOver ? $lays : $lays($ms);
            }

            return new Shown($ms, $this->canvas, $shown->background, $things);
        };
    }

    /**
     * Marks and words where they lie together.
     *
     * @param list<InForce> $drawn lowest first
     * @return list<LaidOver>
     * @throws Refused where one cannot be worked out
     */
    public function laid(array $drawn, int $ms): array
    {
        return array_map(static fn (LaidOver|\Closure $lays): LaidOver => $lays instanceof LaidOver ? $lays : $lays($ms), $this->laying($drawn));
    }

    /**
     * The same for any instant at which these are drawn: what never changes is known.
     *
     * @param list<InForce> $drawn lowest first
     * @return list<LaidOver|\Closure(int): LaidOver>
     */
    private function laying(array $drawn): array
    {
        $room = $this->room($drawn);
        [$laying, $left] = [[], Room::whole($this->canvas)];
        foreach ($drawn as $one) {
            $lies = $one->overlay->lies;
            if ($lies instanceof Window) {
                continue;
            }
            $laying[] = match (true) {
                $lies instanceof Strip => $this->strip($one, $lies, $lies->squeezes ? $left : Room::whole($this->canvas)),
                $lies instanceof Mark => $this->mark($one, $lies, $room),
                $lies instanceof Notice => $this->notice($one, $lies, $room),
                default => throw new \LogicException('Nobody draws an overlay of kind ' . $one->overlay->kind . '.'),
            };
            $left = $lies instanceof Strip && $lies->squeezes ? $lies->squeezed($left, $one->overlay->id) : $left;
        }

        return $laying;
    }

    /**
     * The first instant behind this one at which something else takes its turn in what plays, or in what has been said; Unix ms.
     *
     * @param list<InForce> $drawn lowest first
     * @return int PHP_INT_MAX where nothing ever does
     */
    public function nextChange(int $ms, array $drawn): int
    {
        $all = [$this->below($this->room($drawn)), ...array_values($this->said)];

        return min(array_map(static fn (ShownAt $one): int => $one->nextChange($ms), $all));
    }

    /** After how long all begins anew as long as the same overlays are drawn, ms; null where that is not known. */
    public function repeatsAfterMs(): ?int
    {
        $base = $this->programme->base;
        $plays = count($base->whole) === 1 && $base->schedule === null ? array_values($base->whole)[0] : null;
        $steady = array_filter($this->overlays->all, static fn (Overlay $one): bool => !$one->lies instanceof Notice || $one->lies->isMoving() || $one->lies->words->isSteady());

        return $plays === null || $plays->isTurning() || $plays->tellsData() || count($steady) < count($this->overlays->all) ? null : $plays->loopMs();
    }

    private function below(Room $room): ShownAt
    {
        return $this->plays[implode(' ', $room->rest->toArray())] ??= ShownAt::of($this->programme->into($this->canvas, $room->rest), $this->composer->surroundings);
    }

    /**
     * What strips that squeeze leave of the canvas.
     *
     * @param list<InForce> $drawn lowest first
     * @throws DocumentRefused where that is nothing
     */
    public function room(array $drawn): Room
    {
        $room = Room::whole($this->canvas);
        foreach ($drawn as $one) {
            $room = $one->overlay->lies instanceof Strip && $one->overlay->lies->squeezes ? $one->overlay->lies->squeezed($room, $one->overlay->id) : $room;
        }

        return $room;
    }

    private function mark(InForce $one, Mark $mark, Room $room): LaidOver
    {
        return new LaidOver($one->overlay->id, $one->overlay->kind, $mark->rect($room, $this->seen($mark->media)->size), $mark->opacity, null);
    }

    /** A picture itself, or what the house style calls so. */
    private function seen(Media $media): Media
    {
        return $media->isNamed ? Styling::on($this->canvas, $this->composer->surroundings)->mark($media->name, '/media/mark') : $media;
    }

    /** @return \Closure(int): LaidOver */
    private function strip(InForce $one, Strip $strip, Room $room): \Closure
    {
        $rect = $strip->rect($room);
        $lying = $strip->isUpright() ? Rect::at(0, 0, $rect->height, $rect->width) : $rect;

        return $this->running($one, $strip->element($one->overlay->id, $lying), $strip->words, $strip->pace($this->refreshHz()), $lying->width, static fn (): Rect => $rect);
    }

    /** @return LaidOver|\Closure(int): LaidOver */
    private function notice(InForce $one, Notice $notice, Room $room): LaidOver|\Closure
    {
        $element = $notice->element($one->overlay->id, Rect::whole($this->canvas));
        if ($notice->isMoving()) {
            $rect = fn (TextStyle $style): Rect => $notice->rect($room, $style->sizePx * $style->lineHeight);

            return $this->running($one, $element, $notice->words, $notice->pace($this->refreshHz()), $notice->widthPx($room), $rect);
        }
        $stands = function (int $ms) use ($one, $notice, $room, $element): LaidOver {
            [$text, $style] = $this->said($one, $element, $ms);

            return new LaidOver($one->overlay->id, $one->overlay->kind, $notice->rect($room, $this->set($text, $style, (float) $notice->linePx($room))->heightPx), 1.0, null, $style);
        };

        return $notice->words->isSteady() ? $stands($one->anchorMs) : $stands;
    }

    /**
     * A line that runs through a box.
     *
     * @param array<string, mixed> $element that says it
     * @param \Closure(TextStyle): Rect $rect where it lies
     * @return \Closure(int): LaidOver
     */
    private function running(InForce $one, array $element, Words $words, Pace $pace, int $boxPx, \Closure $rect): \Closure
    {
        $told = function (int $ms) use ($one, $element, $rect): array {
            [$text, $style] = $this->said($one, $element, $ms);
            $text = trim((string) preg_replace('/\s+/u', ' ', $text));

            return [$text, $style, $this->set($text, $style, INF)->widthPx, $rect($style)];
        };
        $steady = $words->isSteady() ? $told($one->anchorMs) : null;

        return static function (int $ms) use ($one, $pace, $boxPx, $told, $steady): LaidOver {
            [$text, $style, $length, $at] = $steady ?? $told($ms);

            return new LaidOver($one->overlay->id, $one->overlay->kind, $at, 1.0, [
                'text' => $text, 'length_px' => $length, 'from_px' => $pace->fromPx($boxPx, $length, $ms - $one->anchorMs),
            ], $style);
        };
    }

    /** Whether a window has an opening: an element of a layout, or a transparent part of a picture. */
    public function isOpen(Overlay $overlay, Window $window): bool
    {
        return $this->opening($overlay, $this->played($window->plays)) !== null;
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

    /** What an overlay plays, from the start of its occurrence. */
    private function playing(InForce $one, Composed $plays, Fitted $fitted): ShownAt
    {
        return ShownAt::of(Programme::endless($plays, $this->programme->clock()->timezone, $one->anchorMs)->fittedAs($fitted), $this->composer->surroundings);
    }

    /** @return \Closure(int): Shown<Thing> what of the window lies below, what plays, and what of it lies above */
    private function window(InForce $one, Window $window, Room $room): \Closure
    {
        // What holds it is squeezed as a whole.
        $stage = Placing::outermost()->into(Box::ofRect($room->rest), Fit::of($this->canvas, $room->rest->size(), FitMode::Contain));
        $plays = $this->played($window->plays);
        $isPicture = $window->plays->kind === 'media';
        $placing = $stage->into(Box::ofRect(Rect::whole($this->canvas)), Fit::of($plays->canvas, $this->canvas, $isPicture ? FitMode::Fill : FitMode::Contain));
        $own = $this->playing($one, $plays, new Fitted($this->canvas, $placing, $plays->canvas));
        $opening = $this->opening($one->overlay, $plays);
        $through = match (true) {
            $opening === null => null,
            $isPicture => $this->through($stage, $this->inwards($opening, $plays->canvas)),
            default => $this->through($placing, $opening),
        };
        $element = OpeningElement::in($plays)?->id();

        return function (int $ms) use ($one, $window, $own, $through, $element): Shown {
            $shown = $own->at($ms);
            $things = array_map(static fn (ShownPart $part): ShownPart => $part->of($one->overlay->id)->heard($window->heard()), $shown->things);
            $seen = array_map(static fn (ShownPart $part): ShownPart => $part->heard($window->programmeHeard()), $through?->at($ms)->things ?? []);
            // At the place of its opening; a picture lies above all of it.
            $at = array_search($element, array_map(static fn (ShownPart $part): string => $part->part->element, $things), true);
            array_splice($things, is_int($at) ? $at : 0, is_int($at) ? 1 : 0, $seen);

            return new Shown($ms, $this->canvas, $shown->background, $things);
        };
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
     */
    private function through(Placing $placing, Rect $opening): ShownAt
    {
        $own = $this->programme->base->own();
        $fitted = new Fitted($this->canvas, $placing->into(Box::ofRect($opening), Fit::of($own, $opening->size(), FitMode::Contain)), $own, false);

        return ShownAt::of($this->programme->fittedAs($fitted), $this->composer->surroundings);
    }

    /** @return \Closure(int): Shown<Thing> */
    private function takeover(InForce $one, Takeover $takeover): \Closure
    {
        $plays = $this->played($takeover->plays);
        $own = $this->playing($one, $plays, Fitted::into($this->canvas, Rect::whole($this->canvas), Fit::of($plays->canvas, $this->canvas, $takeover->fit)));

        return function (int $ms) use ($one, $own): Shown {
            $shown = $own->at($ms);

            return new Shown($ms, $this->canvas, $shown->background, array_map(static fn (ShownPart $part): ShownPart => $part->of($one->overlay->id), $shown->things));
        };
    }

    /**
     * What an overlay says at an instant, and how that is set.
     *
     * @param array<string, mixed> $element that says it
     * @return array{string, TextStyle}
     * @throws Refused
     */
    private function said(InForce $one, array $element, int $ms): array
    {
        $key = json_encode([$one->overlay->id, $element['rect'], $one->anchorMs], JSON_THROW_ON_ERROR);
        try {
            $this->said[$key] ??= ShownAt::of(Programme::endless($this->composer->layout(Layout::fromArray([
                'format' => Layout::FORMAT, 'id' => $one->overlay->id, 'name' => $one->overlay->name, 'canvas' => $this->canvas->toArray(), 'elements' => [$element],
            ])), $this->programme->clock()->timezone, $one->anchorMs), $this->composer->surroundings);
        } catch (DocumentRefused $e) {
            throw DocumentRefused::because($e->reason, str_replace('/elements/0/', '/', $e->getMessage()), str_replace('/elements/0/', '/', $e->path));
        }
        $look = ($this->said[$key]->at($ms)->things[0] ?? null)?->toArray() ?? [];
        /** @var array<string, mixed> $style as it is set on the canvas */
        $style = $look['style'] ?? $element['style'];

        return [is_string($look['text'] ?? null) ? $look['text'] : '', TextStyle::of($style)];
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

    /**
     * Since when something is shown that comes after every so many items; null while it is not.
     *
     * @throws DocumentRefused where there is no such zone
     */
    private function followed(After $after, int $ms): ?int
    {
        $stands = $this->turn($ms, $after->zone, $after);
        if ($stands === null) {
            return null;
        }
        [, $loop, $anchorMs, $ended] = $stands;
        $last = $ended - $ended % $after->every;
        $count = count($loop->items);
        $end = $last === 0 ? null : $anchorMs + intdiv($last, $count) * (int) $loop->periodMs + $loop->starts[$last % $count];

        return $end !== null && $ms - $end < $after->lastsMs ? $end : null;
    }

    /** The item that plays full screen; null where none does. */
    private function due(int $ms): ?Item
    {
        $stands = $this->turn($ms, null, null);
        if ($stands === null) {
            return null;
        }
        [$playing, $loop, , $ended] = $stands;

        return $playing->playlist->enabled()[$loop->items[$ended % count($loop->items)]] ?? null;
    }

    /**
     * What a zone of what plays goes through at an instant.
     *
     * @param ?string $zone id; null for the one that is as large as the canvas
     * @param ?After $after that is refused where there is none; null where that is no matter
     * @return ?array{PlayingZone, Loop, int, int} the zone, its loop, what that counts from (Unix ms), and how many of its items have ended since
     */
    private function turn(int $ms, ?string $zone, ?After $after): ?array
    {
        $base = $this->programme->base;
        $play = $base->timetable()->at($ms);
        $layout = $play->plays === null ? null : $base->whole[$play->plays->key()] ?? null;
        $playing = $layout === null ? null : self::zone($layout, $zone);
        if ($layout === null || $playing === null) {
            return $after === null || $layout === null ? null : throw self::zoneless($after, $layout);
        }
        $turns = $this->turns["$layout->id $play->anchorMs"] ??= $base->turns($layout, $play->anchorMs);
        $turn = ($turns[$playing->id()] ?? null)?->at($ms);
        if ($turn === null || $turn->loop->items === [] || $ms < $turn->anchorMs) {
            return null;
        }
        $since = $ms - $turn->anchorMs;
        $rounds = $turn->loop->periodMs === null ? 0 : intdiv($since, $turn->loop->periodMs);

        return [$playing, $turn->loop, $turn->anchorMs, $rounds * count($turn->loop->items) + $turn->loop->slotAt($turn->loop->position($since))];
    }

    private static function zoneless(After $after, Composed $layout): DocumentRefused
    {
        return DocumentRefused::because(
            Reason::RefUnknown,
            $after->zone === null
                ? sprintf('%s names no zone, and "%s" has none that is as large as its canvas.', $after->path, $layout->name)
                : sprintf('%s/zone is "%s", no zone of "%s".', $after->path, $after->zone, $layout->name),
            $after->zone === null ? $after->path : "$after->path/zone",
        );
    }

    private static function zone(Composed $layout, ?string $id): ?PlayingZone
    {
        foreach ($layout->zones as $name => $zone) {
            if ($id === null ? $zone->rect()->equals(Rect::whole($layout->canvas)) : (string) $name === $id) {
                return $zone;
            }
        }

        return null;
    }
}
