<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Type\ReadingTime;
use UpperPane\Core\Trigger\Kind\Presence;
use UpperPane\Core\Trigger\Kind\Touch;

/** What is wrong with a map before anybody stands before it. */
final readonly class TriggerChecks
{
    /** What a finger hits without looking, mm. Common practice, no source. */
    private const LEAST_TOUCH_MM = 20.0;

    /**
     * @param list<array{string, string}> $together signals that one reading raises at once
     * @param \Closure(string): ?bool $hasZone whether what may play below has a zone; null where that is not known
     */
    private function __construct(
        private TriggerMap $map,
        private Ways $ways,
        private array $together,
        private ?Display $display,
        private Contents $contents,
        private \Closure $hasZone,
    ) {
    }

    /** @return list<Explanation> of what is found here */
    public static function explained(): array
    {
        return [
            new Explanation('trigger.unreachable', 'stop', 'a state to which no way leads from rest', 'nobody ever sees it', 'arithmetic'),
            new Explanation('trigger.stuck', 'stop', 'a state from which no way leads to rest', 'the screen never comes to rest again', 'arithmetic'),
            new Explanation('trigger.ambiguous', 'warning', 'two ways out of a state on one signal, or two signals of one reading both answered there', 'one is never taken', 'arithmetic'),
            new Explanation('trigger.deaf', 'warning', 'a state that does not answer what the state before it does', 'who comes then is not answered', 'common practice'),
            new Explanation('trigger.unused', 'hint', 'a signal that leads nowhere', 'nothing happens when it comes', 'arithmetic'),
            new Explanation('trigger.flutter', 'warning', 'presence with neither hysteresis nor dwell', 'the screen flickers', 'common practice'),
            new Explanation('trigger.sensor', 'stop', 'a signal of a sensor or button that the display lacks', 'it never comes', 'arithmetic'),
            new Explanation('trigger.bands', 'warning', 'bands between covered ones that no presence covers, or bands that the sensor lacks', 'who stands there is not answered', 'arithmetic'),
            new Explanation('trigger.touch', 'stop, warning', 'an area outside the canvas; two over each other, or one under 20 mm wide or high', 'nobody hits it, or both answer', 'common practice'),
            new Explanation('trigger.zone', 'stop', 'a state in a zone that no layout has', 'it is shown nowhere', 'arithmetic'),
            new Explanation(
                'trigger.short',
                'warning',
                'a linger time under the time of reading what is shown (duration.short), or one that cuts a film',
                'it goes before it is read, or breaks off',
                'common practice',
            ),
            new Explanation(
                'trigger.far',
                'warning',
                'a state whose smallest type nobody within its bands can read: under 16 arc minutes at the near edge of the nearest',
                'who is answered cannot read the answer',
                'ISO 9241-303 (from memory)',
            ),
            new Explanation('trigger.nothing', 'stop', 'a state that plays nothing yet, at the handover alone', 'the screen answers with nothing', 'arithmetic'),
        ];
    }

    /**
     * @param ?Display $display on which it runs; null where its sensors and canvas are not known
     * @param \Closure(string): ?bool $hasZone whether what may play below has a zone; null where that is not known
     * @throws Refused where what a state plays cannot be worked out
     */
    public static function run(TriggerMap $map, ?Display $display, Contents $contents, \Closure $hasZone): Findings
    {
        $checks = new self($map, Ways::of($map), self::together($map), $display, $contents, $hasZone);

        return new Findings(iterator_to_array($checks->all(), false));
    }

    /** @return list<Finding> what keeps a map from being handed over that may stand in it while it is drawn */
    public static function unready(TriggerMap $map): array
    {
        $findings = [];
        foreach ($map->states as $state) {
            if ($state->plays === null && $state->id !== $map->rest) {
                $says = sprintf('"%s" plays nothing yet: the screen would answer with nothing. Say what it plays, or take it out.', $state->id);
                $findings[] = new Finding('trigger.nothing', Level::Stop, [$state->id], $says);
            }
        }

        return $findings;
    }

    /** @return list<array{string, string}> */
    private static function together(TriggerMap $map): array
    {
        [$together, $signals] = [[], array_values($map->signals)];
        foreach ($signals as $place => $one) {
            foreach (array_slice($signals, $place + 1) as $other) {
                if ($one->kind->comesWith($other->kind)) {
                    $together[] = [$one->id, $other->id];
                }
            }
        }

        return $together;
    }

    /** @return iterable<Finding> */
    private function all(): iterable
    {
        foreach ($this->map->states as $state) {
            yield from $this->ofState($state);
        }
        foreach ($this->map->signals as $signal) {
            yield from $this->ofSignal($signal);
        }
        yield from $this->touchingAreas();
        yield from $this->bands();
    }

    /** @return iterable<Finding> */
    private function ofState(State $state): iterable
    {
        if (!$this->ways->isReached($state->id)) {
            yield new Finding('trigger.unreachable', Level::Stop, [$state->id], sprintf('No way leads from rest, "%s", to "%s".', $this->map->rest, $state->id));
        }
        if (!$this->ways->comesToRest($state->id)) {
            yield new Finding('trigger.stuck', Level::Stop, [$state->id], sprintf('No way leads from "%s" to rest, "%s": the screen would stay there.', $state->id, $this->map->rest));
        }
        $deaf = $this->deaf($state->id);
        if ($deaf !== []) {
            yield new Finding('trigger.deaf', Level::Warning, [$state->id, ...array_keys($deaf)], sprintf('"%s" does not answer %s.', $state->id, implode(', ', array_map(
                static fn (string $signal, string $before): string => "\"$signal\", which \"$before\" does before it",
                array_keys($deaf),
                $deaf,
            ))));
        }
        $ambiguous = $this->ambiguous($state->id);
        if ($ambiguous !== []) {
            $quoted = implode(', ', array_map(static fn (string $signal): string => "\"$signal\"", $ambiguous));
            $says = sprintf('In "%s" %s %s more than one answer.', $state->id, $quoted, count($ambiguous) === 1 ? 'has' : 'have');
            yield new Finding('trigger.ambiguous', Level::Warning, [$state->id, ...$ambiguous], $says);
        }
        if ($state->zone !== null && ($this->hasZone)($state->zone) === false) {
            yield new Finding('trigger.zone', Level::Stop, [$state->id], sprintf('"%s" is shown in the zone "%s", and no layout that is given has one of that name.', $state->id, $state->zone));
        }
        yield from $this->tooShort($state);
        yield from $this->tooFar($state);
    }

    /** @return array<string, string> signals that a state does not answer, and the state before it that does */
    private function deaf(string $state): array
    {
        [$deaf, $lost] = [[], []];
        foreach ($this->ways->into($state) as [$before, $signal]) {
            $lost[$before] ??= array_diff_key($this->map->answered($before), $this->map->answered($state));
            foreach ($lost[$before] as $other => $is) {
                if ($other !== $signal) {
                    $deaf[$other] ??= $before;
                }
            }
        }
        $ordered = array_intersect_key($this->map->signals, $deaf);

        return array_combine(array_keys($ordered), array_map(static fn (Signal $one): string => $deaf[$one->id], array_values($ordered)));
    }

    /** @return list<string> signals that have more than one answer in a state, or come with another that has one */
    private function ambiguous(string $state): array
    {
        $answered = $this->map->answered($state);
        $ambiguous = [];
        foreach (array_keys($answered) as $signal) {
            if (count($this->map->takeable($state, $signal)) < count($this->map->ways($state, $signal))) {
                $ambiguous[$signal] = true;
            }
        }
        foreach ($this->together as [$one, $other]) {
            if (isset($answered[$one], $answered[$other])) {
                $ambiguous += [$one => true, $other => true];
            }
        }

        return array_values(array_filter(array_keys($this->map->signals), static fn (string $id): bool => isset($ambiguous[$id])));
    }

    /** @return iterable<Finding> */
    private function ofSignal(Signal $signal): iterable
    {
        $isUsed = false;
        foreach ($this->map->transitions as $transition) {
            $isUsed = $isUsed || $transition->on === $signal->id;
        }
        if (!$isUsed) {
            yield new Finding('trigger.unused', Level::Hint, [$signal->id], sprintf('"%s" leads nowhere.', $signal->id));
        }
        $kind = $signal->kind;
        if ($kind instanceof Presence && $kind->dwellMs === 0 && ($this->display?->sensor($kind->sensor)->hysteresisMm ?? 0.0) <= 0.0) {
            $says = sprintf('"%s" has no dwell, and its sensor "%s" no hysteresis: who steps to and fro at an edge makes it come again and again.', $signal->id, $kind->sensor);
            yield new Finding('trigger.flutter', Level::Warning, [$signal->id], $says);
        }
        $lacks = $this->display === null ? null : $kind->lacks($this->display);
        if ($this->display !== null && $lacks !== null) {
            yield new Finding('trigger.sensor', Level::Stop, [$signal->id], sprintf('For "%s": "%s" %s.', $signal->id, $this->display->name, $lacks));
        }
        if ($this->display !== null && $kind instanceof Touch) {
            yield from $this->area($this->display, $signal->id, $kind->rect);
        }
    }

    /** @return iterable<Finding> */
    private function area(Display $display, string $signal, Rect $rect): iterable
    {
        $canvas = Rect::whole($display->raster());
        $inside = $rect->intersection($canvas);
        if ($inside === null || $inside->toArray() !== $rect->toArray()) {
            $says = sprintf('"%s" lies %s the canvas of %d x %d px.', $signal, $inside === null ? 'outside' : 'partly outside', $canvas->width, $canvas->height);
            yield new Finding('trigger.touch', Level::Stop, [$signal], $says, [], $rect);

            return;
        }
        [$width, $height] = [$rect->width / $display->pxPerMm(), $rect->height / $display->pxPerMm()];
        if (min($width, $height) < self::LEAST_TOUCH_MM) {
            $says = sprintf('"%s" is %s x %s mm on "%s"; %d mm are the least that a finger hits.', $signal, round($width, 1), round($height, 1), $display->name, self::LEAST_TOUCH_MM);
            yield new Finding('trigger.touch', Level::Warning, [$signal], $says, ['width_mm' => round($width, 2), 'height_mm' => round($height, 2)], $rect);
        }
    }

    /** @return iterable<Finding> */
    private function touchingAreas(): iterable
    {
        $areas = array_values(array_filter($this->map->signals, static fn (Signal $one): bool => $one->kind instanceof Touch));
        foreach ($areas as $place => $one) {
            foreach (array_slice($areas, $place + 1) as $other) {
                $common = $one->kind instanceof Touch && $other->kind instanceof Touch ? $one->kind->rect->intersection($other->kind->rect) : null;
                if ($common !== null) {
                    $says = sprintf('"%s" and "%s" lie over each other in %d x %d px.', $one->id, $other->id, $common->width, $common->height);
                    yield new Finding('trigger.touch', Level::Warning, [$one->id, $other->id], $says, [], $common);
                }
            }
        }
    }

    /** @return iterable<Finding> */
    private function bands(): iterable
    {
        $covered = [];
        foreach ($this->presences() as $presence) {
            $covered[$presence->sensor] = [...$covered[$presence->sensor] ?? [], ...$presence->bands];
        }
        foreach ($covered as $sensor => $bands) {
            $gaps = array_values(array_diff(range(min($bands), max($bands)), $bands));
            $count = count($this->display?->sensor((string) $sensor)->bandsMm ?? []);
            $beyond = $count === 0 ? [] : array_values(array_unique(array_filter($bands, static fn (int $band): bool => $band > $count)));
            sort($beyond);
            if ($gaps !== [] || $beyond !== []) {
                $says = [...($gaps === [] ? [] : [sprintf('band %s lies between bands that are covered, and nothing covers it', implode(', ', $gaps))])];
                $says = [...$says, ...($beyond === [] ? [] : [sprintf('band %s is meant, and it has %d', implode(', ', $beyond), $count)])];
                yield new Finding('trigger.bands', Level::Warning, [(string) $sensor], sprintf('Of the sensor "%s" %s.', $sensor, implode('; ', $says)), ['gaps' => $gaps, 'beyond' => $beyond]);
            }
        }
    }

    /** @return array<string, Presence> by signal */
    private function presences(): array
    {
        return array_filter(array_map(static fn (Signal $one): Kind => $one->kind, $this->map->signals), static fn (Kind $kind): bool => $kind instanceof Presence);
    }

    /** @return iterable<Finding> */
    private function tooShort(State $state): iterable
    {
        $layout = $state->lingerMs === null ? null : $this->contents->of($state);
        if ($layout === null) {
            return;
        }
        $words = ReadingTime::wordsIn($layout);
        $needed = ReadingTime::neededMs($words);
        $film = self::cut($layout, $state->lingerMs);
        if ($state->lingerMs < $needed || $film !== null) {
            $says = [
                ...($state->lingerMs < $needed ? [sprintf('%d words are read in %d s', $words, intdiv($needed, 1000))] : []),
                ...($film === null ? [] : [sprintf('"%s" breaks off; it ends after %s s', $film[0], $film[1] / 1000)]),
            ];
            yield new Finding(
                'trigger.short',
                Level::Warning,
                [$state->id],
                sprintf('"%s" stands for %s s: %s.', $state->id, $state->lingerMs / 1000, implode('; ', $says)),
                ['linger_ms' => $state->lingerMs, 'needed_ms' => max($needed, $film[1] ?? 0)],
            );
        }
    }

    /** @return ?array{string, int} the name of a film that has begun then and not ended for the first time, and when it ends, ms */
    private static function cut(Composed $layout, int $afterMs): ?array
    {
        foreach ($layout->visible()->zones as $id => $zone) {
            $loop = $layout->loops[$id];
            $enabled = $zone->playlist->enabled();
            foreach ($loop->items as $slot => $index) {
                $media = $enabled[$index]->media ?? null;
                $ends = $loop->starts[$slot] + ($media->lengthMs ?? 0);
                if ($media?->lengthMs !== null && $loop->starts[$slot] < $afterMs && $ends > $afterMs) {
                    return [$media->name, $ends];
                }
            }
        }

        return null;
    }

    /** @return iterable<Finding> */
    private function tooFar(State $state): iterable
    {
        $signals = array_filter($this->presences(), fn (string $signal): bool => $this->ways->leadsInto($state->id, $signal), ARRAY_FILTER_USE_KEY);
        if ($this->display === null || $signals === []) {
            return;
        }
        $near = INF;
        foreach ($signals as $presence) {
            $sensor = $this->display->sensor($presence->sensor);
            $near = $sensor === null ? $near : min($near, $sensor->nearMm(min($presence->bands)));
        }
        $distance = max($near, $this->display->viewing->nearestMm);
        $cap = $this->contents->smallestCapMm($state);
        if ($cap === null || $near === INF) {
            return;
        }
        $arcmin = Legibility::arcmin($cap, $distance);
        if ($arcmin < Legibility::LIMIT_ARCMIN) {
            yield new Finding(
                'trigger.far',
                Level::Warning,
                [$state->id, ...array_keys($signals)],
                sprintf(
                    '"%s" answers whoever is %s m away or farther: capitals are %s mm, %s′ from there; %d′ are needed.',
                    $state->id,
                    round($distance / 1000, 2),
                    round($cap, 1),
                    round($arcmin, 1),
                    Legibility::LIMIT_ARCMIN,
                ),
                ['arcmin' => round($arcmin, 2), 'distance_mm' => $distance],
            );
        }
    }
}
