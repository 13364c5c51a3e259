<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Playback\Drawing\Drawer;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\StandingTurns;
use UpperPane\Core\Time\Transition;
use UpperPane\Core\Trigger\Contents;
use UpperPane\Core\Trigger\Entered;
use UpperPane\Core\Trigger\TriggerMap;

/** What the states of a map show, from when each is entered until the next one is: directly above the zone in which it is shown, or above all that plays. */
final readonly class Reactions
{
    /** Of what is shown over the whole. */
    private const WHOLE = '';

    /**
     * @param array<string, list<array{int, int, int}>> $spans from and to (Unix ms), and which of the contents, by zone
     * @param array<string, list<array{string, Composed}>> $contents state and what it plays, by zone
     */
    private function __construct(private array $spans, private array $contents)
    {
    }

    /**
     * @param list<Entered> $entered one after the other
     * @param Base $base what plays, in whose zones it is shown
     * @throws Refused where what a state plays is not there, or cannot be worked out
     */
    public static function of(TriggerMap $map, array $entered, Contents $contents, Base $base): self
    {
        [$spans, $all, $known] = [[], [], []];
        foreach ($entered as $place => $one) {
            $to = $entered[$place + 1]->atMs ?? PHP_INT_MAX;
            $state = $map->states[$one->state];
            $carried = $contents->carried($one);
            $composed = $to <= $one->atMs ? null : $contents->shown($state, $carried, $state->zone === null ? null : $base->zoneSize($state->zone));
            if ($composed === null) {
                continue;
            }
            $zone = $state->zone ?? self::WHOLE;
            $key = $state->id . ($carried === null ? '' : ' ' . serialize($carried));
            if (!isset($known[$zone][$key])) {
                $known[$zone][$key] = count($all[$zone] ?? []);
                $all[$zone][] = [$state->id, $composed];
            }
            $spans[$zone][] = [$one->atMs, $to, $known[$zone][$key]];
        }

        return new self($spans, $all);
    }

    /** @return list<Composed> all that they may show */
    public function contents(): array
    {
        return array_map(static fn (array $one): Composed => $one[1], array_merge(...array_values($this->contents), ...[[]]));
    }

    /**
     * What is shown above a zone, or above all that plays.
     *
     * @param ?string $zone null for all
     * @param Rect $rect of the zone, or of the whole
     * @return list<ZonePlan>
     */
    public function above(?string $zone, Rect $rect, Placing $placing, Drawer $drawer): array
    {
        $zone ??= self::WHOLE;
        $scenes = [];
        foreach ($this->contents[$zone] ?? [] as $place => [$state, $composed]) {
            $scenes[] = Scene::later("$state $place", static fn (): array => $drawer->booked($composed, $state, $rect, $placing, null));
        }

        return $scenes === [] ? [] : [$drawer->zone(
            $zone === self::WHOLE ? 'reaction' : $zone,
            Loop::of([]),
            new ListedScenes($scenes, array_fill(0, count($scenes), Transition::cut())),
            $rect,
            $placing,
            new StandingTurns($this->spans[$zone]),
            array_keys($scenes),
        )];
    }
}
