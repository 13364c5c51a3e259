<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Trigger;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Trigger\Entered;
use UpperPane\Core\Trigger\Machine;
use UpperPane\Core\Trigger\Trace;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

/** Maps of triggers, and what they come to. */
final class TriggerDocuments
{
    public const SENSORS = [
        ['id' => 's1', 'kind' => 'presence', 'bands_mm' => [500, 1000, 2000, 4000], 'hysteresis_mm' => 50],
        ['id' => 'b1', 'kind' => 'buttons', 'buttons' => ['1', '2'], 'names' => ['17' => '2']],
    ];

    /**
     * @param array<array<string, mixed>> $states beside `idle`, at rest
     * @param array<array<string, mixed>> $signals
     * @param array<array<string, mixed>> $transitions
     * @return array<string, mixed>
     */
    public static function map(array $states, array $signals, array $transitions): array
    {
        return ['format' => TriggerMap::FORMAT, 'id' => 'post', 'name' => 'Info post', 'rest' => 'idle']
            + ['states' => [['id' => 'idle'], ...array_values($states)], 'signals' => array_values($signals), 'transitions' => array_values($transitions)];
    }

    /**
     * @param array<string, mixed> $more
     * @return array<string, mixed>
     */
    public static function state(string $id, int $lingerMs = 1000, array $more = []): array
    {
        return $more + ['id' => $id, 'plays' => ['layout' => $id]] + (isset($more['linger']) ? [] : ['linger_ms' => $lingerMs]);
    }

    /**
     * @param array<string, mixed> $more
     * @return array<string, mixed>
     */
    public static function way(string $from, string $on, string $to, array $more = []): array
    {
        return ['from' => [$from], 'on' => $on, 'to' => $to] + $more;
    }

    /** @return array<string, int> */
    public static function rect(int $x, int $y, int $width, int $height): array
    {
        return ['x' => $x, 'y' => $y, 'width' => $width, 'height' => $height];
    }

    /** @return array<string, mixed> */
    public static function operator(string $id): array
    {
        return ['id' => $id, 'kind' => 'operator'];
    }

    /** @param array<string, mixed> $more of the display */
    public static function display(array $more = []): Display
    {
        return Display::fromArray($more + ['sensors' => self::SENSORS] + Make::display(1080, 1920));
    }

    /**
     * What a map comes to: `0 idle start` for a state that is entered at ms 0.
     *
     * @param array<string, mixed> $map
     * @param list<array<string, mixed>> $entries with `at` in ms after 2026-06-01T10:00:00Z
     * @return list<string>
     */
    public static function run(array $map, array $entries, int $untilMs, ?Display $display = null): array
    {
        $from = Instant::parse('2026-06-01T10:00:00Z')->ms;
        $map = TriggerMap::fromArray($map);
        $at = static fn (array $one): array => is_int($one['at']) ? ['at' => (string) Instant::ofMs($from + $one['at'])] + $one : $one;
        $trace = Trace::fromNode(Node::root(array_map($at, $entries)), $map, $display, $from);
        $entered = (new Machine($map, WallClock::in($display->timezone ?? 'UTC')))->run($trace, $from, $from + $untilMs);

        return array_map(static fn (Entered $one): string => ($one->atMs - $from) . " $one->state $one->why", $entered);
    }
}
