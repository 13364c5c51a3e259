<?php

declare(strict_types=1);

namespace UpperPane\App\Time;

use Psr\Clock\ClockInterface;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\Places;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\DesignLibrary;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Media\MediaAssets;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Handover\Planned;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Zone\Zone;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Ruling;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\WallClock;

/** Which schedules rule on a display: its own, and those of the places it hangs in. */
final readonly class Schedules
{
    public function __construct(
        private Designs $anyDesigns,
        private Displays $displays,
        private Places $places,
        private MediaAssets $media,
        private DesignLibrary $library,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param array<string, array<string, mixed>> $instead documents in place of saved ones, by id, to look at before they are saved
     * @return ?Schedule null where none rules there
     */
    public function on(SurveyedDisplay $display, array $instead = []): ?Schedule
    {
        return self::together($this->ruling($display), $instead);
    }

    /**
     * @param list<Design> $ruling the nearest first
     * @param array<string, array<string, mixed>> $instead documents in place of saved ones, by id
     * @return ($ruling is non-empty-list ? Schedule : null) all of them as one
     */
    public static function together(array $ruling, array $instead = []): ?Schedule
    {
        $found = array_map(static fn (Design $design): Schedule => Schedule::fromArray($instead[$design->id] ?? $design->document), $ruling);
        $nearest = array_shift($found);

        return $nearest?->together(...$found);
    }

    /** @return Ruling<Design> every schedule, where it rules */
    public function all(): Ruling
    {
        [$ofDisplays, $ofPlaces] = [[], []];
        foreach ($this->anyDesigns->all(DesignKind::Schedule) as $design) {
            if ($design->displayId !== null) {
                $ofDisplays[$design->displayId] = $design;
            } elseif ($design->placeId !== null) {
                $ofPlaces[$design->placeId] = $design;
            }
        }

        return new Ruling($ofDisplays, $ofPlaces);
    }

    /** @return list<Design> the schedules that rule on a display: its own, then those of its places, the nearest first */
    public function ruling(SurveyedDisplay $display): array
    {
        return $this->all()->on($display->id, ...$display->place->outwards());
    }

    /** @param ?DesignLibrary $library where what is booked is read from, if not as it is saved by now */
    public function programme(Display $display, Schedule $schedule, ?DesignLibrary $library = null): Programme
    {
        $played = [$schedule->standby, ...array_values($schedule->zones), ...array_column($schedule->bookings, 'plays')];
        $composer = ($library ?? $this->library)->composer(['format' => Schedule::FORMAT, 'bookings' => array_map(
            static fn (mixed $one): array => ['plays' => $one instanceof Played ? $one->toArray() : []],
            $played,
        )]);

        return Programme::scheduled($composer->schedule($schedule), $display->raster(), $display->timezone, function (Played $played, Size $size) use ($composer, $library): Composed {
            $isThere = $played->kind === 'media'
                ? $this->asset($played)?->media() !== null
                : $this->design($played) !== null || $library?->document($played->id, ...DesignKind::playedAs($played->kind)) !== null;
            if (!$isThere) {
                throw self::gone($played);
            }

            return $composer->played($played, $size);
        });
    }

    /** @return list<SurveyedDisplay> the displays that a schedule rules on */
    public function displays(Design $schedule): array
    {
        $display = $schedule->displayId === null ? null : $this->displays->find($schedule->displayId);
        $place = $schedule->placeId === null ? null : $this->places->find($schedule->placeId);

        return $display !== null ? [$display] : $this->displays->hangingIn($place === null ? [] : $this->places->in($place));
    }

    /**
     * @param array<string, mixed> $document
     * @throws Refused also where it books what is not there, or so often that nobody can be told
     */
    public function check(array $document): void
    {
        $schedule = Schedule::fromArray($document);
        $node = Node::root($document);
        $nodes = array_map(static fn (Node $booking): Node => $booking->field('plays'), $node->field('bookings')->items());
        foreach ([$node->optional('standby'), ...array_map(static fn (Node $zone): ?Node => $zone->optional('standby'), array_values($node->optional('zones')?->members() ?? [])), ...$nodes] as $one) {
            if ($one === null) {
                continue;
            }
            $played = Played::fromNode($one);
            if ($played->kind === 'media' ? $this->asset($played) === null : $this->design($played) === null) {
                throw $one->field($played->kind)->refused(Reason::RefUnknown, sprintf('is "%s", and there is no %s of that id.', $played->id, $played->kind));
            }
        }
        // Whoever asks what plays, asks for as long as a handover plans.
        $now = 1000 * $this->clock->now()->getTimestamp();
        foreach ([null, ...$schedule->zonesNamed()] as $zone) {
            Plays::of($schedule, WallClock::in($schedule->timezone), $now, $now + Planned::AHEAD_MS, $zone);
        }
    }

    /** @return list<string> zones that can be booked: those of the layouts that play on the whole display */
    public function zones(Schedule $schedule): array
    {
        $zones = [];
        foreach ($schedule->playedIn(null) as $played) {
            $design = $played->kind === 'layout' ? $this->design($played) : null;
            foreach ($design === null ? [] : array_keys(Zone::among($this->library->written($design->document)->elements)) as $zone) {
                $zones[$zone] = (string) $zone;
            }
        }

        return array_values($zones);
    }

    /** @return array<string, string> names of what a schedule books, by Played::key() */
    public function names(Schedule $schedule): array
    {
        $names = [];
        foreach ([$schedule->standby, ...array_values($schedule->zones), ...array_column($schedule->bookings, 'plays')] as $played) {
            if ($played instanceof Played) {
                $names[$played->key()] ??= ($played->kind === 'media' ? $this->asset($played)?->name : $this->design($played)?->name) ?? $played->id;
            }
        }

        return $names;
    }

    private function asset(Played $played): ?MediaAsset
    {
        return $this->media->find($played->id);
    }

    private function design(Played $played): ?Design
    {
        return $this->anyDesigns->played($played->kind, $played->id);
    }

    private static function gone(Played $played): Problem
    {
        return new Problem(409, 'schedule.gone', sprintf('The %s "%s" is booked, and is not there any more. Book something else in its place.', $played->kind, $played->id));
    }
}
