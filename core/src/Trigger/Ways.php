<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

/** Where the ways of a map lead: by signals, and by states that end. */
final readonly class Ways
{
    /**
     * @param array<string, true> $reached states to which a way leads from rest
     * @param array<string, true> $resting states from which a way leads to rest
     * @param array<string, list<array{string, string}>> $into of each state: another state from which a signal leads there, and that signal
     */
    private function __construct(private array $reached, private array $resting, private array $into)
    {
    }

    public static function of(TriggerMap $map): self
    {
        [$onwards, $back, $into] = [[], [], []];
        $step = static function (string $from, string $to) use (&$onwards, &$back): void {
            $onwards[$from][$to] = true;
            $back[$to][$from] = true;
        };
        foreach ($map->states as $state) {
            if ($state->then !== null && !$state->isEndless()) {
                $step($state->id, $state->then);
            }
            foreach ($map->signals as $signal) {
                foreach ($map->takeable($state->id, $signal->id) as $place) {
                    $to = $map->transitions[$place]->to;
                    $step($state->id, $to);
                    if ($to !== $state->id) {
                        $into[$to]["$state->id $signal->id"] = [$state->id, $signal->id];
                    }
                }
            }
        }

        return new self(self::from($map->rest, $onwards), self::from($map->rest, $back), array_map(array_values(...), $into));
    }

    /**
     * @param array<string, array<string, true>> $steps
     * @return array<string, true>
     */
    private static function from(string $state, array $steps): array
    {
        $found = [$state => true];
        for ($open = [$state]; $open !== [];) {
            $next = array_pop($open);
            foreach (array_keys($steps[$next] ?? []) as $other) {
                if (!isset($found[$other])) {
                    $found[$other] = true;
                    $open[] = (string) $other;
                }
            }
        }

        return $found;
    }

    public function isReached(string $state): bool
    {
        return isset($this->reached[$state]);
    }

    public function comesToRest(string $state): bool
    {
        return isset($this->resting[$state]);
    }

    /** @return list<array{string, string}> another state from which a signal leads there, and that signal */
    public function into(string $state): array
    {
        return $this->into[$state] ?? [];
    }

    public function leadsInto(string $state, string $signal): bool
    {
        return array_filter($this->into($state), static fn (array $one): bool => $one[1] === $signal) !== [];
    }
}
