<?php

declare(strict_types=1);

namespace UpperPane\App\CommandLine;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Base;
use UpperPane\Core\Playback\Reactions;
use UpperPane\Core\Trigger\Contents;
use UpperPane\Core\Trigger\Entered;
use UpperPane\Core\Trigger\Machine;
use UpperPane\Core\Trigger\Scxml;
use UpperPane\Core\Trigger\ScxmlReader;
use UpperPane\Core\Trigger\Trace;
use UpperPane\Core\Trigger\TriggerChecks;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Core\Units\WallClock;

/** The verbs of `bin/upperpane` that ask about triggers. */
final readonly class TriggerVerbs
{
    /** What says what the states play. */
    private const CONTENTS = ['with', 'style', 'language', 'languages', ...DataVerbs::FLAGS];

    /** Of what plays, where no display says another; px. */
    private const CANVAS = [1920, 1080];

    /**
     * @param \Closure(string): string $bytes of a file
     * @param \Closure(Arguments): Library $library
     * @param \Closure(Arguments, ?Display): Surroundings $surroundings
     */
    public function __construct(private \Closure $bytes, private \Closure $library, private \Closure $surroundings)
    {
    }

    /**
     * @param list<string> $words
     * @return array{states: list<array{at: string, state: string, why: string}>}
     * @throws Refused
     */
    public function react(array $words): array
    {
        $arguments = Arguments::of($words, ['MAP'], ['signals', 'display', 'from', 'until', ...self::CONTENTS]);
        $display = $this->display($arguments);
        $map = TriggerMap::fromNode($this->read($arguments->value(0)));
        $map = $this->contents($map, $arguments, $display)->lasting();
        $from = $arguments->optional('from') === null ? null : $arguments->instant('from')->ms;
        $trace = Trace::fromNode($this->read($arguments->required('signals')), $map, $display, $from);
        $from ??= $trace->entries[0]->atMs ?? throw Arguments::wrong('Nothing happened, and --from does not say when it begins.');
        $until = $arguments->instant('until')->ms;
        if ($until <= $from) {
            throw Arguments::wrong('--until is not behind the beginning.');
        }

        return ['states' => array_map(
            static fn (Entered $one): array => $one->toArray(),
            (new Machine($map, WallClock::in($display->timezone ?? 'UTC')))->run($trace, $from, $until),
        )];
    }

    /**
     * @param list<string> $words
     * @return array{array<string, mixed>, int}
     * @throws Refused
     */
    public function found(array $words): array
    {
        $arguments = Arguments::of($words, ['MAP'], ['display', ...self::CONTENTS]);
        $display = $this->display($arguments);
        $map = TriggerMap::fromNode($this->read($arguments->value(0)));
        $contents = $this->contents($map, $arguments, $display);
        $contents->lasting(isRun: false);
        $layouts = [];
        foreach ($arguments->all('with') as $file) {
            $document = $this->read($file);
            $layouts = $document->field('format')->value === Layout::FORMAT ? [...$layouts, $document->field('id')->id()] : $layouts;
        }
        $findings = TriggerChecks::run($map, $display, $contents, static fn (string $zone): ?bool => $contents->hasZone($zone, ...$layouts));

        return [$findings->toArray() + ['table' => $map->table()], $findings->stopsHandover() ? 1 : 0];
    }

    /**
     * What is found in the maps of --triggers above a layout; signals that are given have to be some that can come.
     *
     * @return list<Finding>
     * @throws Refused
     */
    public function above(Arguments $arguments, Layout $layout, Surroundings $surroundings): array
    {
        $maps = $this->maps($arguments);
        $found = [];
        foreach ($maps as $map) {
            $contents = $this->contents($map, $arguments, $surroundings->display);
            $map = $contents->lasting(isRun: false);
            array_push($found, ...TriggerChecks::run($map, $surroundings->display, $contents, static fn (string $zone): bool => Contents::isZoneOf($layout, $zone))->all);
        }
        if ($arguments->optional('signals') !== null) {
            $this->traces($arguments, $maps, $surroundings->display);
        }

        return $found;
    }

    /**
     * What the maps of --triggers show up to --at, when what --signals says has happened.
     *
     * @param Base $base what plays
     * @throws Refused
     */
    public function reactions(Arguments $arguments, Surroundings $surroundings, Base $base): Reactions
    {
        $library = ($this->library)($arguments);
        $at = $arguments->instant('at')->ms;
        $runs = [];
        $maps = $this->maps($arguments);
        foreach ($this->traces($arguments, $maps, $surroundings->display) as $place => $trace) {
            $contents = new Contents($maps[$place], Composer::over($library, $surroundings), $base->own());
            $machine = new Machine($contents->lasting(), WallClock::in($surroundings->timezone));
            $runs[] = [$contents, $machine->run($trace, min($at, $trace->entries[0]->atMs ?? $at), $at + 1)];
        }

        return Reactions::of($runs, $base);
    }

    /**
     * In which states the maps of --triggers are from --from to --to, when what --signals says has happened.
     *
     * @return list<array{int, int, array<string, string>}> from and to (Unix ms), and the state of each map by its id; one after the other without holes
     * @throws Refused
     */
    public function states(Arguments $arguments, ?Display $display, string $timezone): array
    {
        [$from, $to] = TimeVerbs::span($arguments);
        $maps = $this->maps($arguments);
        [$states, $changes] = [[], []];
        foreach ($this->traces($arguments, $maps, $display) as $place => $trace) {
            $map = $this->contents($maps[$place], $arguments, $display)->lasting();
            foreach ((new Machine($map, WallClock::in($timezone)))->run($trace, min($from, $trace->entries[0]->atMs ?? $from), $to) as $entered) {
                $changes[max($from, $entered->atMs)][$map->id] = $entered->state;
            }
        }
        ksort($changes);
        $starts = array_keys($changes);
        $told = [];
        foreach ($starts as $place => $ms) {
            $states = array_replace($states, $changes[$ms]);
            $told[] = [$ms, $starts[$place + 1] ?? $to, $states];
        }

        return $told;
    }

    /**
     * @return non-empty-list<TriggerMap> in the order in which they lie over one another
     * @throws Refused
     */
    private function maps(Arguments $arguments): array
    {
        $maps = [];
        foreach ($arguments->all('triggers') as $file) {
            $map = TriggerMap::fromNode($this->read($file));
            if (isset($maps[$map->id])) {
                throw Arguments::wrong(sprintf('--triggers gives two maps of the id "%s".', $map->id));
            }
            $maps[$map->id] = $map;
        }

        return $maps === [] ? throw Arguments::wrong('--triggers is missing.') : array_values($maps);
    }

    /**
     * @param non-empty-list<TriggerMap> $maps
     * @return list<Trace> what --signals says has happened, as each of them hears it
     * @throws Refused
     */
    private function traces(Arguments $arguments, array $maps, ?Display $display): array
    {
        $node = $this->read($arguments->required('signals'));

        return array_map(static fn (TriggerMap $map): Trace => Trace::fromNode($node, $map, $display, null, count($maps) === 1 ? [] : $maps), $maps);
    }

    /**
     * SCXML, or the map that one says.
     *
     * @param list<string> $words
     * @return string|array<string, mixed>
     * @throws Refused
     */
    public function scxml(array $words): string|array
    {
        $isRead = preg_grep('/^--read(?:=|$)/D', $words) !== [];
        $arguments = Arguments::of($words, $isRead ? [] : ['MAP'], ['read', ...self::CONTENTS]);
        if ($isRead) {
            return ScxmlReader::read(($this->bytes)($arguments->required('read')));
        }
        $map = TriggerMap::fromNode($this->read($arguments->value(0)));

        return Scxml::of($this->contents($map, $arguments, null)->lasting());
    }

    private function contents(TriggerMap $map, Arguments $arguments, ?Display $display): Contents
    {
        $library = ($this->library)($arguments);

        return new Contents($map, Composer::over($library, ($this->surroundings)($arguments, $display)), $display?->raster() ?? Size::px(...self::CANVAS));
    }

    private function display(Arguments $arguments): ?Display
    {
        $file = $arguments->optional('display');

        return $file === null ? null : Display::fromNode($this->read($file));
    }

    /** @throws Refused */
    private function read(string $file): Node
    {
        return Node::fromJson(($this->bytes)($file));
    }
}
