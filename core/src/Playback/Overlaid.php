<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Media\Holes;
use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Overlay\Notice;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Overlay\Room;
use UpperPane\Core\Overlay\Takeover;
use UpperPane\Core\Overlay\Window;
use UpperPane\Core\Time\Schedule\Play;

/** A display with all that lies above what it plays: strips squeeze it, a takeover stands in the place of it. */
final class Overlaid
{
    /** What is worked out differs from exact figures by less. */
    private const NOTHING_PX = 1e-6;

    /** What plays and the overlays, one above the other, on the canvas of the display. */
    public readonly Programme $programme;

    private readonly OverlayCourse $course;

    private readonly OverlayLayers $layers;

    private readonly ShownAt $shown;

    /** @var \WeakMap<Part, LaidOver> what overlays say, but for where it runs */
    private \WeakMap $standing;

    /** @var array<string, Overlay> of which words or a picture are one thing, by id */
    private readonly array $laid;

    private function __construct(private readonly Programme $below, public readonly Overlays $overlays, public readonly Composer $composer, private readonly Size $canvas, ?Holes $holes)
    {
        $this->standing = new \WeakMap();
        $this->course = new OverlayCourse($below->base, $overlays);
        $this->layers = new OverlayLayers($below->base, $this->course, $composer, $canvas, $holes);
        $this->programme = $this->programmed();
        $this->shown = ShownAt::of($this->programme, $composer->surroundings);
        $laid = array_values(array_filter($overlays->all, static fn (Overlay $one): bool => !$one->lies instanceof Window && !$one->lies instanceof Takeover));
        $this->laid = array_combine(array_map(static fn (Overlay $one): string => $one->id, $laid), $laid);
    }

    /**
     * @param Programme $programme what plays, with nothing above it
     * @param Size $canvas of the display, or of what plays where there is none
     * @param ?Holes $holes who looks through pictures; without it none has an opening
     */
    public static function of(Programme $programme, Overlays $overlays, Composer $composer, Size $canvas, ?Holes $holes = null): self
    {
        return new self($programme, $overlays, $composer, $canvas, $holes);
    }

    private function programmed(): Programme
    {
        $clock = $this->below->clock();
        $tracks = array_map(fn (Overlay $one): OverlayTrack => new OverlayTrack($one, $this->canvas, $clock, $this->course, $this->layers), $this->overlays->all);
        $isMoved = array_filter($this->overlays->all, PlacedBase::isMovedBy(...)) !== [];
        $fitted = $this->below->canvas()->equals($this->canvas) ? $this->below : $this->below->into($this->canvas, Rect::whole($this->canvas));

        return ($isMoved ? $this->below->placed(new PlacedBase($this->below->base, $this->canvas, $this->course, $this->layers)) : $fitted)->under(...$tracks);
    }

    /**
     * That all that the overlays name is there, whether they are in force or not.
     *
     * @throws Refused where something is not, at its place in its overlay
     */
    public function check(): void
    {
        foreach ($this->overlays->all as $overlay) {
            $this->layers->check($overlay);
        }
        $this->course->check();
    }

    /**
     * @param int $ms Unix ms
     * @return Shown<Thing> in which what an overlay says is one thing
     * @throws Refused where an overlay cannot be worked out
     */
    public function at(int $ms): Shown
    {
        $shown = $this->shown->at($ms);
        $things = $shown->things;
        $background = $shown->background;
        // What covers all of the canvas from below is its background.
        while (($things[0] ?? null) !== null && $this->isGround($things[0])) {
            $fill = array_shift($things)->part->look['fill'];
            $background = is_string($fill) ? $fill : Colour::black()->hex;
        }
        // What overlays say lies above all else: the ground of words below them.
        $laid = [];
        for ($n = count($things) - 1; $n >= 0 && isset($this->laid[$things[$n]->part->place['overlay'] ?? '']); $n--) {
            $overlay = $this->laid[$things[$n]->part->place['overlay'] ?? ''];
            if (($laid[0] ?? null)?->overlay !== $overlay->id) {
                array_unshift($laid, $this->one($overlay, $things[$n]));
            }
        }

        array_splice($things, $n + 1, count($things), $laid);

        return new Shown($ms, $this->canvas, $background, $things);
    }

    /**
     * What an overlay shows as one thing.
     *
     * @param list<InForce> $drawn with what else it is drawn, lowest first
     * @throws Refused where it cannot be worked out
     */
    public function laid(Overlay $overlay, array $drawn, int $ms): LaidOver
    {
        $anchors = array_map(static fn (InForce $one): int => $one->anchorMs, array_filter($drawn, static fn (InForce $one): bool => $one->overlay === $overlay));
        $things = ShownAt::drawn($this->layers->drawn($overlay, $this->layers->roomOf($overlay, $drawn)), $ms, $ms - (array_values($anchors)[0] ?? $ms));

        return $this->one($overlay, $things[count($things) - 1]);
    }

    /** Whether neither items that end nor items that do without say what is in force. */
    public function goesByTimeAlone(): bool
    {
        return $this->course->goesByTimeAlone();
    }

    /**
     * All that plays, and what overlays say above it, in a span in which the same ones are drawn, with the first instant at which each is seen.
     *
     * @param list<InForce> $drawn lowest first
     * @param int $fromMs UTC ms
     * @return array{\SplObjectStorage<Part, int>, list<array{LaidOver, int}>}
     */
    public function sightings(array $drawn, int $fromMs, int $toMs): array
    {
        $laid = [];
        foreach ($drawn as $one) {
            $overlay = $this->laid[$one->overlay->id] ?? null;
            if ($overlay === null) {
                continue;
            }
            $seen = Sightings::in($this->layers->drawn($overlay, $this->layers->roomOf($overlay, $drawn)), $fromMs, $toMs, $one->anchorMs);
            foreach ($seen as $part) {
                if ($part->kind !== 'background') {
                    $laid[] = [$this->one($overlay, new ShownPart($part, null, 1.0)), $seen[$part]];
                }
            }
        }

        return [Sightings::in($this->layers->below($drawn), $fromMs, $toMs, $this->below->anchorMs()), $laid];
    }

    /**
     * What strips that squeeze leave of the canvas.
     *
     * @param list<InForce> $drawn lowest first
     * @throws DocumentRefused where that is nothing
     */
    public function room(array $drawn): Room
    {
        return $this->layers->room($drawn);
    }

    /**
     * The first instant behind this one at which something else takes its turn, Unix ms.
     *
     * @return int PHP_INT_MAX where nothing ever does
     */
    public function nextChange(int $ms): int
    {
        return $this->shown->nextChange($ms);
    }

    /**
     * What plays one after the other in [from, to), and after how long each begins anew as long as the same overlays are drawn, ms; null where that is not known.
     *
     * @return list<array{int, int, ?int}> from, to, and that
     */
    public function rounds(int $fromMs, int $toMs): array
    {
        $base = $this->below->base;

        return array_map(fn (Play $play): array => [
            $play->fromMs,
            $play->toMs,
            $play->plays === null ? $toMs - $fromMs : $this->repeatsAfterMs($base->whole[$play->plays->key()]),
        ], $base->timetable()->between($fromMs, $toMs));
    }

    private function repeatsAfterMs(Composed $plays): ?int
    {
        $booked = array_intersect_key($this->below->base->zones, $plays->zones) !== [];
        $steady = array_filter($this->overlays->all, static fn (Overlay $one): bool => !$one->lies instanceof Notice || $one->lies->isMoving() || $one->lies->words->isSteady());

        return $booked || $plays->isTurning() || $plays->tellsData() || count($steady) < count($this->overlays->all) ? null : $plays->loopMs();
    }

    /** Whether a window has an opening: an element of a layout, or a transparent part of a picture. */
    public function isOpen(Overlay $overlay, Window $window): bool
    {
        return $this->layers->isOpen($overlay, $window);
    }

    private function isGround(ShownPart $thing): bool
    {
        $part = $thing->part;

        if ($part->kind !== 'background' || $thing->opacity < 1.0 || isset($this->laid[$part->place['overlay'] ?? ''])) {
            return false;
        }
        $rect = $part->rect;

        return max($rect->x, $rect->y, $this->canvas->width - $rect->x - $rect->width, $this->canvas->height - $rect->y - $rect->height) < self::NOTHING_PX;
    }

    private function one(Overlay $overlay, ShownPart $thing): LaidOver
    {
        $part = $thing->part;
        $stands = $this->standing[$part] ??= $this->stands($overlay, $part);
        $drawn = $thing->now['drawn'] ?? null;

        return $part->changing instanceof PacedText && $drawn instanceof Box ? $stands->at($part->changing->stands($drawn)) : $stands;
    }

    private function stands(Overlay $overlay, Part $part): LaidOver
    {
        $box = $part->of ?? $part->rect;

        return new LaidOver(
            $overlay->id,
            $overlay->kind,
            Rect::at((int) round($box->x), (int) round($box->y), (int) round($box->width), (int) round($box->height)),
            $part->opacity,
            is_string($part->look['text'] ?? null) ? $part->look['text'] : '',
            null,
            isset($part->look['style']) ? OverlayLayers::style($part) : null,
        );
    }
}
