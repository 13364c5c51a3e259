<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Time\Turns;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** `zone.gap`: a zone without standby in which nothing is due for some time of the coming week: it stays blank then. */
final readonly class ZoneGap implements Check
{
    public const AHEAD_MS = 7 * Calendar::DAY_MS;

    public static function explained(): array
    {
        return [
            new Explanation(
                'zone.gap',
                'warning',
                'a zone without standby in which nothing is due for some time of the 7 days from the instant that is looked at; the first and the longest stretch',
                'it stays blank then',
                'common practice',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        $clock = WallClock::in($subject->surroundings->timezone);
        $from = $subject->surroundings->atMs;
        $turns = null;
        foreach ($subject->layout->zones as $id => $zone) {
            if ($zone->standby !== null || $zone->list->enabled() === []) {
                continue;
            }
            $turns ??= $subject->layout->turns($clock, 0);
            $gaps = self::gaps($turns[$id], $from, $from + self::AHEAD_MS);
            if ($gaps === []) {
                continue;
            }
            $lengths = array_map(static fn (array $gap): int => $gap[1] - $gap[0], $gaps);
            yield new Finding(
                'zone.gap',
                Level::Warning,
                [(string) $id],
                sprintf(
                    'In "%s" nothing is due from %s to %s%s, and it has no standby: it stays blank.',
                    $id,
                    self::told($clock, $gaps[0][0]),
                    self::told($clock, $gaps[0][1]),
                    count($gaps) === 1 ? '' : sprintf(', nor at %d more times of the week from then', count($gaps) - 1),
                ),
                [
                    'from' => (string) Instant::ofMs($gaps[0][0]),
                    'to' => (string) Instant::ofMs($gaps[0][1]),
                    'longest_ms' => max($lengths),
                    'total_ms' => array_sum($lengths),
                ],
                $zone->rect(),
            );
        }
    }

    /** @return list<array{int, int}> stretches of [from, to) in which nothing plays, Unix ms */
    private static function gaps(Turns $turns, int $fromMs, int $toMs): array
    {
        $gaps = [];
        foreach ($turns->between($fromMs, $toMs) as $turn) {
            if ($turn->loop->items !== []) {
                continue;
            }
            $last = count($gaps) - 1;
            if ($last >= 0 && $gaps[$last][1] === $turn->fromMs) {
                $gaps[$last][1] = $turn->toMs;
            } else {
                $gaps[] = [$turn->fromMs, $turn->toMs];
            }
        }

        return $gaps;
    }

    private static function told(WallClock $clock, int $ms): string
    {
        return strtr(substr((string) LocalTime::ofSeconds($clock->local(intdiv($ms, 1000))), 0, 16), 'T', ' ');
    }
}
