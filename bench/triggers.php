<?php

declare(strict_types=1);

// Required by run.php: maps of triggers, proven and run.

namespace UpperPane\Bench;

use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Trigger\Contents;
use UpperPane\Core\Trigger\Machine;
use UpperPane\Core\Trigger\Trace;
use UpperPane\Core\Trigger\TriggerChecks;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Trigger\TriggerDocuments;

function benchTriggers(float $hash): void
{
    $states = array_map(static fn (int $n): array => TriggerDocuments::state("s$n", 5000), range(1, 49));
    $signals = array_map(static fn (int $n): array => ['id' => "n$n", 'kind' => 'presence', 'sensor' => 's1', 'bands' => [$n % 4 + 1], 'dwell_ms' => 10 * $n], range(0, 49));
    $ways = [];
    foreach ($states as $place => ['id' => $id]) {
        foreach ($signals as $n => ['id' => $signal]) {
            $ways[] = ['from' => [$place === 0 ? 'idle' : $states[$place - 1]['id'], $id], 'on' => $signal, 'to' => $states[($place + $n) % 49]['id']];
        }
    }
    $document = TriggerDocuments::map($states, $signals, $ways);
    $display = TriggerDocuments::display();
    $library = Library::empty();
    $around = (new Surroundings())->on($display);
    $proven = seconds(static function () use ($document, $display, $library, $around): void {
        $map = TriggerMap::fromArray($document);
        TriggerChecks::run($map, $display, new Contents($map, Composer::over($library, $around), Size::px(1080, 1920)), static fn (): null => null);
    }, 5);
    say('a map of 50 states and 50 signals read and proven', sprintf('%.0f ms, %s x baseline', 1000 * $proven, number_format($proven / $hash)), 'under 50 ms');

    $map = TriggerMap::fromArray($document);
    $from = Instant::parse('2026-06-01T10:00:00Z')->ms;
    $many = static function (string $what, TriggerMap $map, \Closure $entry, string $wanted) use ($display, $from, $hash): void {
        $entries = array_map(static fn (int $n): array => ['at' => (string) Instant::ofMs($from + 20 * $n)] + (array) $entry($n), range(0, 99_999));
        $trace = Trace::fromNode(Node::root($entries), $map, $display);
        $run = seconds(static fn (): mixed => (new Machine($map, WallClock::in('UTC')))->run($trace, $from, $from + 2_000_001), 1);
        say("100,000 $what", sprintf('%.2f s, %s x baseline', $run, number_format($run / $hash)), $wanted);
    };
    $read = static fn (int $n): array => ['sensor' => 's1', 'mm' => 100 + ($n * 7919) % 4500];
    $many('signals, by a map of 50 states and 50 signals', $map, static fn (int $n): array => ['signal' => 'n' . $n % 50], 'under 1 s');
    $few = TriggerMap::fromArray(TriggerDocuments::map(array_slice($states, 0, 5), array_slice($signals, 0, 5), []));
    $many('readings of a distance, by 5 signals', $few, $read, 'under 1 s');
    $many('readings that each change the band, by 50 signals of that sensor', $map, $read, '');
}
