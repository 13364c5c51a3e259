<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Display\Sensor;
use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\BudgetExceeded;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\WallClock;

/** A map as a player runs it by itself (docs/formats/run-sheet.md): what it cannot work out there is worked out for the span of the sheet. */
final readonly class Compiled
{
    /**
     * @param int $fromMs Unix ms
     * @return array<string, mixed>
     * @throws Refused where what states play has no length, or rows cannot be worked out
     */
    public static function of(Contents $contents, Carrying $carrying, WallClock $clock, int $fromMs, int $toMs): array
    {
        $map = $contents->lasting();
        $signals = [];
        foreach ($map->signals as $signal) {
            $signals[] = ['id' => $signal->id, 'kind' => array_search($signal->kind::class, Kinds::ALL, true), 'rank' => $signal->kind::rank()->value]
                + $signal->kind->compiled(static fn (): array => self::due($signal->kind, $clock, $fromMs, $toMs));
        }

        return [
            'id' => $map->id,
            'rest' => $map->rest,
            'canvas' => $contents->canvas->toArray(),
            'states' => array_map(static fn (State $state): array => ['id' => $state->id, 'linger_ms' => $state->lingerMs, 'then' => $state->then], array_values($map->states)),
            'signals' => $signals,
            'transitions' => array_map(static fn (Transition $one): array => [
                'from' => $one->from, 'on' => $one->on, 'to' => $one->to, 'cooldown_ms' => $one->cooldownMs, 'again' => $one->again, 'carries' => $one->carries,
            ], $map->transitions),
            'sensors' => array_map(static fn (Sensor $one): array => $one->compiled(), $contents->display()->sensors ?? []),
            'told' => self::told($contents, $map, $fromMs, $toMs),
        ] + $carrying->compiled($contents, $fromMs, $toMs);
    }

    /**
     * @return list<int> Unix ms
     * @throws BudgetExceeded
     */
    private static function due(Kind $kind, WallClock $clock, int $fromMs, int $toMs): array
    {
        $due = [];
        for ($memory = $kind->begun($fromMs, $clock); $memory->dueMs !== null && $memory->dueMs < $toMs; $memory = $kind->waited($memory, $memory->dueMs, $clock)) {
            $due[] = $memory->dueMs;
            Budget::ofSegments(count($due), '/signals');
        }

        return $due;
    }

    /**
     * The figures that sources tell, from when each is told.
     *
     * @return list<array{at_ms: int, signal: string, value: float}> rising
     * @throws Refused
     */
    private static function told(Contents $contents, TriggerMap $map, int $fromMs, int $toMs): array
    {
        $told = [];
        foreach ($map->signals as $signal) {
            $looked = $signal->kind instanceof Kind\Value ? [$signal->kind->field, $contents->rows($signal->id)] : null;
            if ($looked === null || $looked[1] === null) {
                continue;
            }
            [$field, $rows] = $looked;
            $before = null;
            for ($at = $fromMs; $at !== null && $at < max($toMs, $fromMs + 1); $at = $rows->changesAfter($at)) {
                $value = $rows->at($at)->rows[0][$field] ?? null;
                if ((is_int($value) || is_float($value)) && (float) $value !== $before) {
                    $before = (float) $value;
                    $told[] = ['at_ms' => $at, 'signal' => $signal->id, 'value' => $before];
                    Budget::ofSegments(count($told), '/signals');
                }
            }
        }
        usort($told, static fn (array $a, array $b): int => $a['at_ms'] <=> $b['at_ms']);

        return $told;
    }
}
