<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Playback\Drawing\Drawer;
use UpperPane\Core\Time\AnsweringTurns;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\StandingTurns;
use UpperPane\Core\Time\Transition;
use UpperPane\Core\Time\Turns;
use UpperPane\Core\Trigger\Carrying;
use UpperPane\Core\Trigger\Compiled;
use UpperPane\Core\Trigger\Contents;
use UpperPane\Core\Trigger\Entered;
use UpperPane\Core\Trigger\Kind\Touch;
use UpperPane\Core\Trigger\Signal;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Core\Units\WallClock;

/**
 * What the states of maps show, from when each is entered until the next one is: directly above the zone in which it is shown, or above all that plays. Of two maps
 * that show in one place the later is drawn; behind it the other goes on.
 */
final readonly class Reactions
{
    /** Of what is shown over the whole. */
    private const WHOLE = '';

    /**
     * @param array<string, array<int, list<array{string, Composed}>>> $contents state and what it plays, by zone and map
     * @param array<string, array<int, Turns>> $turns that these take, by zone and map
     * @param list<array{Contents, Carrying}> $maps that a player runs by itself; none where it is known what happens
     */
    private function __construct(private array $contents, private array $turns, private array $maps = [])
    {
    }

    public static function none(): self
    {
        return new self([], []);
    }

    /**
     * @param list<array{Contents, list<Entered>}> $runs of each map what its states play, and those that are entered, one after the other
     * @param Base $base what plays, in whose zones it is shown
     * @throws Refused where what a state plays is not there, or cannot be worked out
     */
    public static function of(array $runs, Base $base): self
    {
        [$spans, $all] = [[], []];
        foreach ($runs as $number => [$contents, $entered]) {
            $known = [];
            foreach ($entered as $place => $one) {
                $to = $entered[$place + 1]->atMs ?? PHP_INT_MAX;
                $state = $contents->map->states[$one->state];
                $carried = $contents->carried($one);
                $composed = $to <= $one->atMs ? null : $contents->shown($state, $carried, $state->zone === null ? null : $base->zoneRect($state->zone)?->size());
                if ($composed === null) {
                    continue;
                }
                $zone = $state->zone ?? self::WHOLE;
                $key = $state->id . ($carried === null ? '' : ' ' . serialize($carried));
                if (!isset($known[$zone][$key])) {
                    $known[$zone][$key] = count($all[$zone][$number] ?? []);
                    $all[$zone][$number][] = [$state->id, $composed];
                }
                $spans[$zone][$number][] = [$one->atMs, $to, $one->atMs, $known[$zone][$key]];
            }
        }

        return new self($all, array_map(static fn (array $own): array => array_map(
            static fn (array $spans): Turns => new StandingTurns($spans),
            self::onTop($own),
        ), $spans));
    }

    /**
     * Of maps that a player runs by itself.
     *
     * @param list<Contents> $maps what the states of each play
     * @param Base $base what plays, in whose zones it is shown
     * @throws Refused where what a state plays is not there, has no length that is needed, or cannot be worked out
     */
    public static function live(array $maps, Base $base): self
    {
        [$all, $turns, $run] = [[], [], []];
        foreach ($maps as $number => $contents) {
            $contents->lasting();
            $run[] = [$contents, $carrying = Carrying::of($contents)];
            [$answers, $rest] = [[], []];
            foreach ($contents->map->states as $state) {
                $zone = $state->zone ?? self::WHOLE;
                $size = $state->zone === null ? null : $base->zoneRect($state->zone)?->size();
                foreach ([null, ...$carrying->into($state->id)] as $row) {
                    $composed = $contents->shown($state, $row === null ? null : $carrying->rows[$row], $size);
                    if ($composed === null) {
                        continue;
                    }
                    if ($row === null && $state->id === $contents->map->rest) {
                        $rest[$zone] = count($answers[$zone] ?? []);
                    }
                    $answers[$zone][] = ['state' => $state->id, 'row' => $row];
                    $all[$zone][$number][] = [$state->id, $composed];
                }
            }
            // Where somebody touches, it has to be known where all that plays lies.
            $isTouched = array_filter($contents->map->signals, static fn (Signal $one): bool => $one->kind instanceof Touch) !== [];
            if ($isTouched) {
                $all[self::WHOLE][$number] ??= [];
                $answers[self::WHOLE] ??= [];
            }
            foreach ($answers as $zone => $own) {
                $turns[$zone][$number] = new AnsweringTurns($contents->map->id, $own, $rest[$zone] ?? null, $isTouched);
            }
        }

        return new self($all, $turns, $run);
    }

    /**
     * The maps that a player runs by itself, compiled for a span; none where it is known what happens.
     *
     * @param int $fromMs Unix ms
     * @return list<array<string, mixed>>
     * @throws Refused
     */
    public function compiled(WallClock $clock, int $fromMs, int $toMs): array
    {
        return array_map(static fn (array $one): array => Compiled::of($one[0], $one[1], $clock, $fromMs, $toMs), $this->maps);
    }

    /**
     * Without what later ones lie above.
     *
     * @param array<int, list<array{int, int, int, int}>> $spans by map
     * @return array<int, list<array{int, int, int, int}>>
     */
    private static function onTop(array $spans): array
    {
        $above = [];
        foreach (array_reverse($spans, true) as $number => $own) {
            foreach ($above as [$from, $to]) {
                $own = array_merge(...array_map(
                    static fn (array $one): array => array_values(array_filter([
                        [$one[0], min($one[1], $from), $one[2], $one[3]],
                        [max($one[0], $to), $one[1], $one[2], $one[3]],
                    ], static fn (array $piece): bool => $piece[0] < $piece[1])),
                    $own,
                ), ...[[]]);
            }
            array_push($above, ...$spans[$number]);
            $spans[$number] = $own;
        }

        return $spans;
    }

    /** @return list<string> what is another than before, in sentences */
    public function changesFrom(?self $before): array
    {
        $named = static fn (?self $one): array => array_column(array_map(static fn (array $map): TriggerMap => $map[0]->map, $one->maps ?? []), null, 'id');
        [$was, $is] = [$named($before), $named($this)];
        $words = [];
        foreach ($is as $id => $map) {
            $old = $was[$id] ?? null;
            $words[] = match (true) {
                $old === null => sprintf('The triggers "%s" run above it.', $map->name),
                $old->toArray() !== $map->toArray() => sprintf('The triggers "%s" are others.', $map->name),
                default => '',
            };
        }

        $gone = array_map(static fn (TriggerMap $map): string => sprintf('The triggers "%s" no longer run.', $map->name), array_values(array_diff_key($was, $is)));

        return array_values(array_filter([...$words, ...$gone]));
    }

    /** @return list<Composed> all that they may show */
    public function contents(): array
    {
        return array_map(static fn (array $one): Composed => $one[1], array_merge(...array_merge(...array_values($this->contents)), ...[[]]));
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
        $plans = [];
        foreach ($this->contents[$zone] ?? [] as $number => $contents) {
            $scenes = [];
            foreach ($contents as $place => [$state, $composed]) {
                $scenes[] = Scene::later("$state $place", static fn (): array => $drawer->answering($composed, $state, $rect, $placing));
            }
            $turns = $this->turns[$zone][$number];
            $plans[] = $drawer->zone(
                $zone === self::WHOLE ? 'reaction' : $zone,
                Loop::of([]),
                new ListedScenes($scenes, array_fill(0, count($scenes), Transition::cut())),
                $rect,
                $placing,
                $zone === self::WHOLE && $turns instanceof AnsweringTurns ? $turns->within($placing->rect(Box::ofRect($rect))) : $turns,
                array_keys($scenes),
            );
        }

        return $plans;
    }
}
