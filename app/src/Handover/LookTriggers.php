<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Layout\Pictures;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Display\Sensor;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Type\ReadingTime;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\Reactions;
use UpperPane\Core\Trigger\Contents;
use UpperPane\Core\Trigger\Entered;
use UpperPane\Core\Trigger\Machine;
use UpperPane\Core\Trigger\ReadyTraces;
use UpperPane\Core\Trigger\State;
use UpperPane\Core\Trigger\Trace;
use UpperPane\Core\Trigger\TriggerChecks;
use UpperPane\Core\Trigger\TriggerCures;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** A map of triggers on a display, above what would play there by now: what is found, what its states show, and what it comes to; nothing is done. */
final readonly class LookTriggers
{
    /** What plays is drawn for so long. */
    private const SPAN_MS = 3_600_000;

    /** So long a trace goes on when all has come to rest. */
    private const REST_MS = 5_000;

    public function __construct(private Programmes $programmes, private Pictures $pictures, private InForce $inForce)
    {
    }

    /**
     * @param array<string, mixed> $document
     * @return array<string, mixed>
     * @throws Refused
     */
    public function map(array $document, ?SurveyedDisplay $target): array
    {
        [$programme, $contents, $isKnown] = $this->programmes->trying($document, $target);
        $map = $contents->lasting();
        $checked = static fn (TriggerMap $map, Contents $contents): Findings => TriggerChecks::run(
            $map,
            $target?->display(),
            $contents,
            static fn (string $zone): ?bool => $isKnown ? $programme->base->zoneRect($zone) !== null : null,
        );
        $findings = $checked($map, $contents);
        $cures = TriggerCures::of($contents->map, $findings, static fn (TriggerMap $changed): Findings => $checked(($other = $contents->with($changed))->lasting(), $other));
        $told = $findings->toArray();
        $told['findings'] = array_map(
            static fn (Finding $one, int $place): array => $one->toArray() + (isset($cures[$place]) ? ['fix' => $cures[$place]] : []),
            $findings->all,
            array_keys($findings->all),
        );

        return $told + [
            'on' => $target === null ? null : [
                'id' => $target->id,
                'raster' => $target->display()->raster()->toArray(),
                'active_mm' => $target->display()->active()->toArray(),
                'mm_per_px' => 1 / $target->display()->pxPerMm(),
                'nearest_mm' => $target->display()->viewing->nearestMm,
                'sensors' => array_map(static fn (Sensor $one): array => $one->compiled(), $target->display()->sensors),
            ],
            'base' => $isKnown ? $this->pictures->ofProgramme($programme, self::SPAN_MS) : null,
            'canvas' => $programme->own()->toArray(),
            'zones' => $isKnown ? $this->zones($programme) : [],
            'states' => array_map(fn (State $state): array => $this->state($state, $contents, $programme), array_values($map->states)),
            'traces' => $this->traces($map, $target),
        ];
    }

    /** @return list<string> of what plays */
    private function zones(Programme $programme): array
    {
        $zones = [];
        foreach ($programme->base->whole as $layout) {
            $zones += array_fill_keys(array_map(strval(...), array_keys($layout->zones)), true);
        }

        return array_map(strval(...), array_keys($zones));
    }

    /**
     * @return array<string, mixed>
     * @throws Refused
     */
    private function state(State $state, Contents $contents, Programme $programme): array
    {
        $layout = $contents->of($state);
        $cap = $contents->smallestCapMm($state);

        return [
            'id' => $state->id,
            'linger_ms' => $state->lingerMs,
            'needed_ms' => $layout === null ? 0 : ReadingTime::neededMs(ReadingTime::wordsIn($layout)),
            'reads_to_mm' => $cap === null ? null : Legibility::distanceMm($cap, Legibility::LIMIT_ARCMIN),
            'rect' => ($state->zone === null ? null : $programme->base->zoneRect($state->zone)?->toArray()) ?? Rect::whole($programme->own())->toArray(),
            'picture' => $layout === null ? null : $this->pictures->of($layout, $programme->clock()->timezone, isOfNow: true),
        ];
    }

    /**
     * Ready traces, with the states that each of them comes to.
     *
     * @return list<array<string, mixed>>
     * @throws Refused
     */
    private function traces(TriggerMap $map, ?SurveyedDisplay $target): array
    {
        $display = $target?->display();

        return array_map(function (array $trace) use ($map, $target): array {
            $reached = [];
            $entered = $this->entered($map, $target, Node::root($trace['entries']), $trace['until_ms']);
            foreach ($entered as $one) {
                $reached[$one->state] = true;
            }
            $said = array_filter(array_column($trace['entries'], 'at_ms'), is_int(...));
            $last = max(0, $entered[count($entered) - 1]->atMs - $entered[0]->atMs, ...array_values($said));

            return ['until_ms' => min($trace['until_ms'], $last + self::REST_MS)] + $trace + ['reached' => array_map(strval(...), array_keys($reached))];
        }, ReadyTraces::of($map, $display));
    }

    /**
     * What it comes to when something happens, and how that looks.
     *
     * @param array<string, mixed> $document
     * @param Node $entries as of --signals, with `at_ms` from the beginning in the place of `at`
     * @return array<string, mixed>
     * @throws Refused
     */
    public function run(array $document, ?SurveyedDisplay $target, Node $entries, int $untilMs): array
    {
        [$programme, $contents] = $this->programmes->trying($document, $target);
        $map = $contents->lasting();
        $entered = $this->entered($map, $target, $entries, $untilMs);
        $from = $entered[0]->atMs;

        return [
            'from' => (string) Instant::ofMs($from),
            'states' => array_map(static fn (Entered $one): array => ['at_ms' => $one->atMs - $from, 'state' => $one->state, 'why' => $one->why], $entered),
            'picture' => $this->pictures->ofProgramme($programme->reacting(Reactions::of([[$contents, $entered]], $programme->base)), $untilMs, $from),
        ];
    }

    /**
     * @param Node $entries with `at_ms` from the beginning
     * @return non-empty-list<Entered> from this second on
     * @throws Refused
     */
    private function entered(TriggerMap $map, ?SurveyedDisplay $target, Node $entries, int $untilMs): array
    {
        $from = 1000 * intdiv($this->inForce->nowMs(), 1000);
        $said = [];
        foreach ($entries->items() as $one) {
            $said[] = ['at' => (string) Instant::ofMs($from + $one->field('at_ms')->int(0, 86_400_000, 'ms'))] + array_diff_key($one->fields(), ['at_ms' => true]);
        }
        $display = $target?->display();
        try {
            $trace = Trace::fromNode(Node::root($said), $map, $display, $from);
        } catch (Refused $e) {
            throw $e->in('', "/entries$e->path");
        }
        $entered = (new Machine($map, WallClock::in($display->timezone ?? 'UTC')))
            ->run($trace, $from, $from + $untilMs);

        return $entered === [] ? throw new \LogicException('A map begins at rest.') : $entered;
    }
}
