<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Finding\Cures;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Finding\Trial;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** What is wrong with a schedule in a span: what is lost, what never gets its turn, what two bookings claim, where nothing plays. */
final readonly class ScheduleChecks
{
    /** Cures that are tried; the findings behind them are offered one once others are cured. */
    private const MOST_TRIED = 8;

    /** @return list<Explanation> of what is found here */
    public static function explained(): array
    {
        return [
            new Explanation(
                'booking.skipped',
                'warning',
                'a start that falls into the hour which the clocks leave out; the cure begins it at the first time after',
                'it is lost that night',
                'RFC 5545, 3.3.10; the tz database',
            ),
            new Explanation(
                'booking.never',
                'warning',
                'a booking that others go before whenever it is due, or whose rule falls on no day',
                'it is never seen',
                'computation.md, 5',
            ),
            new Explanation(
                'booking.clash',
                'warning',
                'two bookings of one rank that are due together, how long, and which plays',
                'one of them is hidden, and nothing but its age says so',
                'computation.md, 5',
            ),
            new Explanation('data.unknown', 'stop', 'rows of a source that is not there', 'nothing is told', 'arithmetic'),
            new Explanation('schedule.gap', 'warning', 'time for which nothing is due, without a standby', 'the display stays dark', 'common practice'),
        ];
    }

    /** @param int $fromMs Unix ms */
    public static function run(Schedule $schedule, WallClock $clock, int $fromMs, int $toMs): Findings
    {
        $found = self::found($schedule, $clock, $fromMs, $toMs);
        $left = self::MOST_TRIED;
        $try = static function (Fix $cure) use ($found, $schedule, $clock, $fromMs, $toMs, &$left): array {
            return --$left < 0 ? [] : [new Trial($cure, $found, self::found($schedule->cured($cure), $clock, $fromMs, $toMs))];
        };

        return new Findings(Cures::tried($found, $try));
    }

    /** @return list<Finding> */
    private static function found(Schedule $schedule, WallClock $clock, int $fromMs, int $toMs): array
    {
        [$from, $to] = [(int) floor($fromMs / 1000), (int) ceil($toMs / 1000)];
        $findings = [];
        foreach ($schedule->bookings as $booking) {
            if ($booking->when !== null && $booking->looksAtNothing()) {
                $message = sprintf('"%s" plays only while rows of "%s" are chosen, and there is no such source.', $booking->name, $booking->when->rows->source);
                $findings[] = new Finding('data.unknown', Level::Stop, [$booking->id], $message, ['source' => $booking->when->rows->source]);
            }
            array_push($findings, ...self::skipped($booking, $clock, $from, $to));
        }
        foreach ([null, ...$schedule->zonesBooked()] as $zone) {
            $conflicts = BookingConflicts::of($schedule, $clock, $from, $to, $zone);
            array_push($findings, ...self::contested($schedule->ranked($zone), $conflicts, $clock, $from));
            if ($schedule->standbyOf($zone) === null && $zone === null) {
                array_push($findings, ...self::gaps($schedule, $clock, $fromMs, $toMs));
            }
        }

        return $findings;
    }

    /** @return list<Finding> */
    private static function skipped(Booking $booking, WallClock $clock, int $from, int $to): array
    {
        $findings = [];
        foreach ($booking->recurrence($clock)->skipped($from, $to) as $local) {
            // The first time that the clock shows again, with all the length it has.
            $instead = LocalTime::ofSeconds($clock->local($clock->utcOrBefore($local->seconds)));
            if (in_array((string) $instead, array_map(strval(...), $booking->dates), true)) {
                continue;
            }
            $findings[] = new Finding(
                'booking.skipped',
                Level::Warning,
                [$booking->id],
                sprintf(
                    '"%s" is lost on %s: the clocks of %s leave out %s that night.',
                    $booking->name,
                    substr((string) $local, 0, 10),
                    $clock->timezone,
                    self::time($local),
                ),
                ['local' => (string) $local],
                null,
                [Fix::booking(sprintf('Begin at %s that night', self::time($instead)), $booking->id, [
                    'rdates' => [...array_map(strval(...), $booking->dates), (string) $instead],
                ])],
            );
        }

        return $findings;
    }

    /**
     * @param list<Booking> $ranked
     * @return list<Finding>
     */
    private static function contested(array $ranked, BookingConflicts $conflicts, WallClock $clock, int $from): array
    {
        $byId = array_combine(array_map(static fn (Booking $booking): string => $booking->id, $ranked), $ranked);
        $findings = [];
        foreach ($byId as $id => $booking) {
            $hidden = $conflicts->hidden[$id] ?? [];
            if ($conflicts->dueS[$id] > 0 && $conflicts->playedS[$id] === 0) {
                $others = array_map(static fn (string $other): string => sprintf('"%s"', $byId[$other]->name), array_keys($hidden));
                $findings[] = new Finding(
                    'booking.never',
                    Level::Warning,
                    [$id, ...array_keys($hidden)],
                    sprintf('"%s" never gets its turn: %s %s before it whenever it is due.', $booking->name, implode(' and ', $others), count($others) === 1 ? 'goes' : 'go'),
                    ['due_s' => $conflicts->dueS[$id]],
                );
                continue;
            }
            if ($conflicts->dueS[$id] === 0 && $booking->recurrence($clock)->next($from - $booking->lengthS()) === null && !self::wasDue($booking, $clock, $from)) {
                $findings[] = new Finding(
                    'booking.never',
                    Level::Warning,
                    [$id],
                    $booking->rule === null
                        ? sprintf('"%s" never happens: all its dates are left out.', $booking->name)
                        : sprintf('"%s" never happens: its rule, %s, falls on no day.', $booking->name, $booking->rule),
                    ['due_s' => 0],
                );
            }
            foreach ($hidden as $other => $how) {
                if ($byId[$other]->rank === $booking->rank) {
                    $findings[] = new Finding(
                        'booking.clash',
                        Level::Warning,
                        [$id, $other],
                        sprintf(
                            '"%s" and "%s", both of rank %s, are due together for %s, first on %s; "%2$s" plays, for it was made later.',
                            $booking->name,
                            $byId[$other]->name,
                            $booking->rank->value,
                            self::span($how['seconds']),
                            str_replace('T', ' ', substr((string) LocalTime::ofSeconds($clock->local($how['first'])), 0, 16)),
                        ),
                        ['together_s' => $how['seconds'], 'first' => gmdate('Y-m-d\TH:i:s\Z', $how['first'])],
                    );
                }
            }
        }

        return $findings;
    }

    /** @return list<Finding> where nothing is due and no standby plays */
    private static function gaps(Schedule $schedule, WallClock $clock, int $fromMs, int $toMs): array
    {
        $seconds = 0;
        $first = null;
        foreach (Plays::of($schedule, $clock, $fromMs, $toMs)->pieces as $piece) {
            if ($piece->plays === null) {
                $seconds += intdiv($piece->toMs - $piece->fromMs, 1000);
                $first ??= $piece;
            }
        }

        return $first === null ? [] : [new Finding(
            'schedule.gap',
            Level::Warning,
            [],
            sprintf(
                'Nothing is due for %s, first from %s, and there is no standby: the display stays dark.',
                self::span($seconds),
                str_replace('T', ' ', substr((string) LocalTime::ofSeconds($clock->local(intdiv($first->fromMs, 1000))), 0, 16)),
            ),
            ['dark_s' => $seconds, 'first' => gmdate('Y-m-d\TH:i:s\Z', intdiv($first->fromMs, 1000))],
        )];
    }

    private static function wasDue(Booking $booking, WallClock $clock, int $from): bool
    {
        return $booking->recurrence($clock)->between($clock->utcOrBefore($booking->start->seconds) - 1, $from, 1) !== [];
    }

    private static function time(LocalTime $local): string
    {
        return substr((string) $local, 11, $local->seconds % 60 === 0 ? 5 : 8);
    }

    /** Hours and minutes in words: `2 h 30 min`. */
    private static function span(int $seconds): string
    {
        [$days, $hours, $minutes, $rest] = [intdiv($seconds, 86_400), intdiv($seconds, 3600) % 24, intdiv($seconds, 60) % 60, $seconds % 60];
        $parts = array_filter([$days > 0 ? sprintf('%d d', $days) : '', $hours > 0 ? "$hours h" : '', $minutes > 0 ? "$minutes min" : '', $rest > 0 ? "$rest s" : '']);

        return $parts === [] ? '0 s' : implode(' ', array_slice($parts, 0, 2));
    }
}
