<?php

declare(strict_types=1);

namespace UpperPane\App\CommandLine;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Recurrence\Recurrence;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Time\Schedule\Play;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Schedule\ScheduleChecks;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\UtcOffsets;
use UpperPane\Core\Units\WallClock;

/** The verbs of `bin/upperpane` that ask about time alone. */
final readonly class TimeVerbs
{
    /**
     * @param list<string> $words
     * @return array{instants: list<string>}
     * @throws DocumentRefused
     */
    public static function recur(array $words): array
    {
        $arguments = Arguments::of($words, ['RULE'], ['start', 'tz', 'from', 'to', 'exdate', 'rdate']);
        $timezone = $arguments->required('tz');
        if (!UtcOffsets::isKnown($timezone)) {
            throw Arguments::wrong(sprintf('--tz is "%s", which is no time zone; one such as Europe/Lisbon is right.', $timezone));
        }
        [$from, $to] = self::span($arguments);
        $start = LocalTime::parse($arguments->required('start'));
        [$without, $withoutDays] = LocalTime::timesAndDays($arguments->all('exdate'));
        $recurrence = Recurrence::of($start, Rule::parse($arguments->value(0)), WallClock::in($timezone), array_map(LocalTime::parse(...), $arguments->all('rdate')), $without, $withoutDays);
        // Instants here have whole seconds: the first at or after --from, the last before --to.
        $instants = $recurrence->between(self::secondsUp($from), self::secondsUp($to), Budget::SEGMENTS + 1);
        Budget::ofOccurrences(count($instants), '/to');

        return ['instants' => array_map(static fn (int $utc): string => (string) Instant::ofMs($utc * 1000), $instants)];
    }

    /**
     * @param ?Overlays $overlays that lie above it; null where nobody asks
     * @param ?list<array{int, int, array<string, string>}> $states of maps of triggers, from and to (Unix ms); null where nobody asks
     * @return array<string, mixed>
     * @throws DocumentRefused
     */
    public static function plays(Schedule $schedule, string $timezone, Arguments $arguments, ?Overlays $overlays = null, ?array $states = null): array
    {
        [$from, $to] = self::span($arguments);
        $zone = $arguments->optional('zone');
        $clock = WallClock::in($timezone);
        $known = $schedule->zonesNamed();
        if ($zone !== null && !in_array($zone, $known, true)) {
            throw Arguments::wrong(sprintf(
                '--zone is "%s", for which the schedule has neither bookings nor a standby; %s.',
                $zone,
                $known === [] ? 'it has none for any zone' : 'it has for ' . implode(', ', $known),
            ));
        }

        return [
            'timezone' => $timezone,
            'plays' => self::told(Plays::of($schedule, $clock, $from, $to, $zone)->pieces, array_filter(
                ['overlays' => $overlays?->idsBetween($clock, $from, $to), 'triggers' => $states],
                is_array(...),
            )),
        ] + ScheduleChecks::run($schedule, $clock, $from, $to)->toArray();
    }

    /**
     * One by one: of a long span there are many. Parted wherever another of what is told beside them holds.
     *
     * @param list<Play> $pieces rising
     * @param array<string, list<array{int, int, array<string>}>> $beside from and to (Unix ms), and what holds then, without holes, by name
     * @return iterable<array<string, mixed>>
     */
    private static function told(array $pieces, array $beside): iterable
    {
        $at = array_map(static fn (): int => 0, $beside);
        foreach ($pieces as $play) {
            for ($from = $play->fromMs; $from < $play->toMs; $from = $to) {
                [$to, $told] = [$play->toMs, []];
                foreach ($beside as $name => $spans) {
                    while ($spans[$at[$name]][1] <= $from) {
                        $at[$name]++;
                    }
                    [, $until, $told[$name]] = $spans[$at[$name]];
                    $to = min($to, $until);
                }
                yield $play->within($from, $to)->toArray() + $told;
            }
        }
    }

    /**
     * @return array{int, int} --from and --to, Unix ms
     * @throws DocumentRefused
     */
    public static function span(Arguments $arguments): array
    {
        $from = $arguments->instant('from')->ms;
        $to = $arguments->instant('to')->ms;

        return $to >= $from ? [$from, $to] : throw Arguments::wrong('--to lies before --from.');
    }

    private static function secondsUp(int $ms): int
    {
        return (int) ceil($ms / 1000);
    }
}
