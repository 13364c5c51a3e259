<?php

declare(strict_types=1);

namespace UpperPane\App\CommandLine;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Recurrence\Recurrence;
use UpperPane\Core\Recurrence\Rule;
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
     * @return array<string, mixed>
     * @throws DocumentRefused
     */
    public static function plays(Schedule $schedule, string $timezone, Arguments $arguments, ?Overlays $overlays = null): array
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
            'plays' => $overlays === null
                ? self::told(Plays::of($schedule, $clock, $from, $to, $zone))
                : self::under($overlays->idsBetween($clock, $from, $to), Plays::of($schedule, $clock, $from, $to, $zone)),
        ] + ScheduleChecks::run($schedule, $clock, $from, $to)->toArray();
    }

    /** @return iterable<array<string, mixed>> one by one: of a long span there are many */
    private static function told(Plays $plays): iterable
    {
        foreach ($plays->pieces as $play) {
            yield $play->toArray();
        }
    }

    /**
     * Parted where other overlays lie above.
     *
     * @param list<array{int, int, list<string>}> $overlays
     * @return iterable<array<string, mixed>>
     */
    private static function under(array $overlays, Plays $plays): iterable
    {
        $at = 0;
        foreach ($plays->pieces as $play) {
            while ($overlays[$at][1] <= $play->fromMs) {
                $at++;
            }
            for ($n = $at; isset($overlays[$n]) && $overlays[$n][0] < $play->toMs; $n++) {
                [$from, $to, $ids] = $overlays[$n];
                yield $play->within(max($from, $play->fromMs), min($to, $play->toMs))->toArray() + ['overlays' => $ids];
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
