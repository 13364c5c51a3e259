<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Sensor;
use UpperPane\Core\Trigger\Kind\Absence;
use UpperPane\Core\Trigger\Kind\Presence;

/** What people do before a display: traces to try a map with. */
final readonly class ReadyTraces
{
    /** How fast people walk. Common practice, no source. */
    private const MM_A_S = 1300.0;

    /** How far somebody who stands sways to and fro, and how long that takes. Common practice, no source. */
    private const SWAY_MM = 40.0;
    private const SWAY_MS = 1_600;

    /** A sensor speaks so often. */
    private const EVERY_MS = 100;

    private const STAYS_MS = 20_000;
    private const BEFORE_MS = 1_000;
    /** After all of it, so that what lingers ends. */
    private const AFTER_MS = 60_000;
    private const BETWEEN_MS = 4_000;

    /**
     * @return list<array{id: string, name: string, until_ms: int, entries: list<array<string, mixed>>}> entries with `at_ms` from the beginning; none of sensors that the map
     *         does not listen to
     */
    public static function of(TriggerMap $map, ?Display $display): array
    {
        $traces = [];
        foreach ($display->sensors ?? [] as $sensor) {
            $heard = array_filter($map->signals, static fn (Signal $one): bool => ($one->kind instanceof Presence || $one->kind instanceof Absence) && $one->kind->sensor === $sensor->id);
            if ($sensor->kind === Sensor::PRESENCE && $sensor->bandsMm !== [] && $heard !== []) {
                array_push($traces, ...self::before($sensor));
            }
        }
        $acts = self::acts($map, $display);
        if ($acts !== []) {
            $traces[] = self::trace('acts', 'press and touch each', $acts);
        }

        return $traces;
    }

    /** @return list<array{id: string, name: string, until_ms: int, entries: list<array<string, mixed>>}> */
    private static function before(Sensor $sensor): array
    {
        $far = $sensor->bandsMm[count($sensor->bandsMm) - 1] * 1.15;
        $near = $sensor->bandsMm[0] / 2;
        $edge = $sensor->bandsMm[intdiv(count($sensor->bandsMm) - 1, 2)];
        $past = static fn (float $s): float => sqrt((0.55 * $far) ** 2 + (self::MM_A_S * $s - 0.84 * $far) ** 2);
        $walk = static fn (float $from, float $to): int => (int) (1000 * abs($to - $from) / self::MM_A_S);
        $come = static fn (float $to): array => self::read($sensor, $walk($far, $to), static fn (int $ms): float => max($to, $far - self::MM_A_S * $ms / 1000));
        $leave = static fn (float $from): array => [
            ...self::read($sensor, $walk($from, $far), static fn (int $ms): float => $from + self::MM_A_S * $ms / 1000),
            [['sensor' => $sensor->id, 'mm' => null], self::EVERY_MS],
        ];
        $sway = static fn (float $at): array => self::read(
            $sensor,
            self::STAYS_MS,
            static fn (int $ms): float => $at + self::SWAY_MM * sin(2 * M_PI * $ms / self::SWAY_MS),
        );
        $id = $sensor->id;

        return [
            self::trace("past $id", 'walk past', [
                ...self::read($sensor, (int) (2000 * 0.84 * $far / self::MM_A_S), static fn (int $ms): float => $past($ms / 1000)),
                [['sensor' => $id, 'mm' => null], self::EVERY_MS],
            ]),
            self::trace("stay $id", 'come near and stay', [...$come($near), ...$sway($near), ...$leave($near)]),
            self::trace("edge $id", 'to and fro at an edge', [...$come($edge), ...$sway($edge), ...$leave($edge)]),
        ];
    }

    /**
     * @param \Closure(int): float $mm where somebody is after so many ms
     * @return list<array{array<string, mixed>, int}> entries, and after how many ms the next follows
     */
    private static function read(Sensor $sensor, int $ms, \Closure $mm): array
    {
        $said = [];
        for ($at = 0; $at < $ms; $at += self::EVERY_MS) {
            $said[] = [['sensor' => $sensor->id, 'mm' => round($mm($at))], self::EVERY_MS];
        }

        return $said;
    }

    /** @return list<array{array<string, mixed>, int}> each button, key and area that a map listens to, one after the other, and all that operators ask for */
    private static function acts(TriggerMap $map, ?Display $display): array
    {
        $acts = [];
        foreach ($map->signals as $signal) {
            $said = $signal->kind->raisedBy();
            // What the display has no sensor for comes by its name.
            $said = $said === [] || ($said !== null && ($display === null || $signal->kind->lacks($display) !== null)) ? ['signal' => $signal->id] : $said;
            if ($said !== null) {
                $acts[] = [$said, self::BETWEEN_MS];
            }
        }

        return $acts;
    }

    /**
     * @param list<array{array<string, mixed>, int}> $said
     * @return array{id: string, name: string, until_ms: int, entries: list<array<string, mixed>>}
     */
    private static function trace(string $id, string $name, array $said): array
    {
        [$at, $entries] = [self::BEFORE_MS, []];
        foreach ($said as [$one, $ms]) {
            $entries[] = ['at_ms' => $at] + $one;
            $at += $ms;
        }

        return ['id' => $id, 'name' => $name, 'until_ms' => $at + self::AFTER_MS, 'entries' => $entries];
    }
}
