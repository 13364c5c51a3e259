<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Trigger\Kind\Presence;

/** What would mend what is found in a map: each is tried before it is told. */
final readonly class TriggerCures
{
    /** For so long a state stands that would stand for ever. Common practice, no source. */
    private const STANDS_MS = 30_000;

    /** Whoever only steps over an edge is gone by then. Common practice, no source. */
    private const DWELL_MS = 300;

    /** So many are tried. */
    private const MOST = 40;

    /**
     * @param \Closure(TriggerMap): Findings $checked throws Refused
     */
    private function __construct(private TriggerMap $map, private Findings $findings, private \Closure $checked)
    {
    }

    /**
     * @param Findings $findings of the map
     * @param \Closure(TriggerMap): Findings $checked what is found in another; throws Refused
     * @return array<int, array{label: string, set: array<string, mixed>}> fields of the document, by the place of the finding that they mend
     */
    public static function of(TriggerMap $map, Findings $findings, \Closure $checked): array
    {
        $cures = new self($map, $findings, $checked);
        [$told, $tried] = [[], 0];
        foreach ($findings->all as $place => $finding) {
            $cure = $tried < self::MOST ? $cures->cure($finding) : null;
            if ($cure !== null) {
                $tried++;
                if ($cures->helps($finding, $cure[1])) {
                    $told[$place] = ['label' => $cure[0], 'set' => $cure[1]];
                }
            }
        }

        return $told;
    }

    /**
     * Whether a finding is gone with it, and no other stop comes.
     *
     * @param array<string, mixed> $set
     */
    private function helps(Finding $finding, array $set): bool
    {
        try {
            $after = ($this->checked)(TriggerMap::fromArray($set + $this->map->toArray()));
        } catch (Refused) {
            return false;
        }
        $same = array_filter($after->all, static fn (Finding $one): bool => $one->code === $finding->code && $one->elements === $finding->elements);

        return $same === [] && $after->toArray()['stops'] <= $this->findings->toArray()['stops'];
    }

    /** @return array{string, array<string, mixed>}|null what it says, and the fields that it sets */
    private function cure(Finding $finding): ?array
    {
        $first = $finding->elements[0] ?? '';

        return match ($finding->code) {
            'trigger.deaf' => ['Answer it there too', ['transitions' => $this->answering($first, array_slice($finding->elements, 1))]],
            'trigger.stuck' => $this->freed($this->map->states[$first]),
            'trigger.short' => is_int($finding->measure['needed_ms'] ?? null)
                ? [sprintf('Let it stand for %s s', $finding->measure['needed_ms'] / 1000), $this->states($first, ['linger_ms' => $finding->measure['needed_ms']])] : null,
            'trigger.flutter' => [sprintf('Wait for %s s', self::DWELL_MS / 1000), $this->signals($first, ['dwell_ms' => self::DWELL_MS])],
            'trigger.unused' => ['Take it out', ['signals' => $this->listed('signals', static fn (array $one): ?array => $one['id'] === $first ? null : $one)]],
            'trigger.bands' => $this->covered($first, $finding->measure['gaps'] ?? []),
            default => null,
        };
    }

    /**
     * The ways, with those by which the states before it answer leading from a state too.
     *
     * @param list<string> $signals
     * @return list<mixed>
     */
    private function answering(string $state, array $signals): array
    {
        $done = [];

        return $this->listed('transitions', static function (array $way) use ($state, $signals, &$done): array {
            if (in_array($way['on'], $signals, true) && !isset($done[$way['on']]) && is_array($way['from'])) {
                $done[$way['on']] = true;
                $way['from'] = [...$way['from'], $state];
            }

            return $way;
        });
    }

    /** @return array{string, array<string, mixed>} */
    private function freed(State $state): array
    {
        return $state->isEndless()
            ? [sprintf('Let it end after %d s', self::STANDS_MS / 1000), $this->states($state->id, ['linger' => null, 'linger_ms' => self::STANDS_MS, 'then' => null])]
            : ['Let rest follow', $this->states($state->id, ['then' => null])];
    }

    /** @return array{string, array<string, mixed>}|null with the bands of the first signal that stands there added */
    private function covered(string $sensor, mixed $gaps): ?array
    {
        $gaps = array_values(array_filter(is_array($gaps) ? $gaps : [], is_int(...)));
        if ($gaps === []) {
            return null;
        }
        foreach ($this->map->signals as $signal) {
            if ($signal->kind instanceof Presence && $signal->kind->sensor === $sensor && array_intersect([min($gaps) - 1, max($gaps) + 1], $signal->kind->bands) !== []) {
                $bands = [...$signal->kind->bands, ...$gaps];
                sort($bands);

                return [sprintf('Let "%s" cover it', $signal->id), $this->signals($signal->id, ['bands' => $bands])];
            }
        }

        return null;
    }

    /**
     * @param array<string, mixed> $fields null takes one away
     * @return array<string, mixed>
     */
    private function states(string $id, array $fields): array
    {
        return ['states' => $this->listed('states', static fn (array $one): array => $one['id'] === $id ? self::with($one, $fields) : $one)];
    }

    /**
     * @param array<string, mixed> $fields null takes one away
     * @return array<string, mixed>
     */
    private function signals(string $id, array $fields): array
    {
        return ['signals' => $this->listed('signals', static fn (array $one): array => $one['id'] === $id ? self::with($one, $fields) : $one)];
    }

    /**
     * @param array<mixed> $one
     * @param array<string, mixed> $fields
     * @return array<mixed>
     */
    private static function with(array $one, array $fields): array
    {
        return array_filter($fields + $one, static fn (mixed $value): bool => $value !== null);
    }

    /**
     * @param \Closure(array<mixed>): ?array<mixed> $change null takes it out
     * @return list<mixed>
     */
    private function listed(string $list, \Closure $change): array
    {
        $all = $this->map->toArray()[$list] ?? null;

        return array_values(array_filter(array_map(static fn (mixed $one): ?array => is_array($one) ? $change($one) : null, is_array($all) ? $all : [])));
    }
}
