<?php

declare(strict_types=1);

namespace UpperPane\App\CommandLine;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Findings;
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
        $findings = TriggerChecks::run($map, $display, $contents, ($this->surroundings)($arguments, $display), static fn (string $zone): ?bool => $contents->hasZone($zone, ...$layouts));

        return [$findings->toArray() + ['table' => $map->table()], $findings->stopsHandover() ? 1 : 0];
    }

    /**
     * What is found in the map of --triggers above a layout; signals that are given have to be some that can come.
     *
     * @throws Refused
     */
    public function above(Arguments $arguments, Layout $layout, Surroundings $surroundings): Findings
    {
        $map = TriggerMap::fromNode($this->read($arguments->required('triggers')));
        $contents = $this->contents($map, $arguments, $surroundings->display);
        $map = $contents->lasting(isRun: false);
        $signals = $arguments->optional('signals');
        if ($signals !== null) {
            Trace::fromNode($this->read($signals), $map, $surroundings->display);
        }

        return TriggerChecks::run($map, $surroundings->display, $contents, $surroundings, static fn (string $zone): bool => Contents::isZoneOf($layout, $zone));
    }

    /**
     * What the map of --triggers shows up to --at, when what --signals says has happened.
     *
     * @param Base $base what plays
     * @throws Refused
     */
    public function reactions(Arguments $arguments, Surroundings $surroundings, Base $base): Reactions
    {
        $map = TriggerMap::fromNode($this->read($arguments->required('triggers')));
        $library = ($this->library)($arguments);
        $contents = new Contents($map, $library, Composer::over($library, $surroundings), $base->own());
        $map = $contents->lasting();
        $trace = Trace::fromNode($this->read($arguments->required('signals')), $map, $surroundings->display);
        $at = $arguments->instant('at')->ms;
        $from = min($at, $trace->entries[0]->atMs ?? $at);

        return Reactions::of($map, (new Machine($map, WallClock::in($surroundings->timezone)))->run($trace, $from, $at + 1), $contents, $base);
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

        return new Contents($map, $library, Composer::over($library, ($this->surroundings)($arguments, $display)), $display?->raster() ?? Size::px(...self::CANVAS));
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
