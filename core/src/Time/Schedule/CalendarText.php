<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/**
 * The bookings of a schedule as an iCalendar object (RFC 5545), with its time zone written out, so that any calendar reads the same instants.
 *
 * What a booking says beyond an event stands in CATEGORIES (its rank) and in properties of our own: X-PLAYS, X-ZONE, X-SHOWN-FROM, X-SHOWN-UNTIL.
 */
final readonly class CalendarText
{
    /** Octets of a line, without its end (3.1). */
    private const LINE = 75;

    /** Changes of the clock are written out for so many years behind the first booking. */
    private const YEARS = 20;

    /** @param string $timezone that the bookings are meant in */
    public static function of(Schedule $schedule, string $timezone): string
    {
        $clock = WallClock::in($timezone);
        $lines = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Upper Pane//Schedule//EN', 'CALSCALE:GREGORIAN', 'X-WR-CALNAME:' . self::text($schedule->name)];
        if ($timezone !== 'UTC') {
            array_push($lines, ...self::zone($schedule, $clock));
        }
        foreach ($schedule->bookings as $booking) {
            array_push($lines, ...self::event($booking, $schedule, $clock));
        }

        return implode("\r\n", array_map(self::folded(...), [...$lines, 'END:VCALENDAR'])) . "\r\n";
    }

    /** @return list<string> */
    private static function event(Booking $booking, Schedule $schedule, WallClock $clock): array
    {
        $made = gmdate('Ymd\THis\Z', $booking->createdMs === PHP_INT_MIN ? 0 : intdiv($booking->createdMs, 1000));
        $written = static fn (LocalTime $time): string => self::local($time, $clock);
        $times = static fn (string $name, LocalTime ...$times): string => $name . self::zoned($clock) . ':' . implode(',', array_map($written, $times));
        $lines = [
            'BEGIN:VEVENT',
            'UID:' . self::text("$booking->id@$schedule->id"),
            "DTSTAMP:$made",
            'SUMMARY:' . self::text($booking->name),
            $times('DTSTART', $booking->start),
            $times('DTEND', $booking->end),
            'CATEGORIES:' . $booking->rank->value,
            'X-PLAYS:' . self::text($booking->plays->key()),
        ];
        if ($booking->createdMs !== PHP_INT_MIN) {
            $lines[] = "CREATED:$made";
        }
        if ($booking->rule !== null) {
            // Beside a time with a zone UNTIL is an instant (3.3.10).
            $until = $booking->rule->untilLocal;
            $lines[] = 'RRULE:' . ($until === null ? $booking->rule : $booking->rule->withUntilUtc($clock->utcOrBefore($until)));
        }
        if ($booking->dates !== []) {
            $lines[] = $times('RDATE', ...$booking->dates);
        }
        $without = [...$booking->without, ...self::onDays($booking, $clock)];
        if ($without !== []) {
            $lines[] = $times('EXDATE', ...$without);
        }
        foreach (['X-ZONE' => $booking->zone, 'X-SHOWN-FROM' => $booking->from, 'X-SHOWN-UNTIL' => $booking->until] as $name => $value) {
            if ($value !== null) {
                $lines[] = "$name:" . self::text((string) $value);
            }
        }

        return [...$lines, 'END:VEVENT'];
    }

    /** @return list<LocalTime> the starts that whole days leave out: an EXDATE of a time says times */
    private static function onDays(Booking $booking, WallClock $clock): array
    {
        $all = Booking::withoutExceptions($booking)->recurrence($clock);
        $times = [];
        foreach ($booking->withoutDays as $day) {
            $from = $clock->utcOrBefore($day * Calendar::DAY_S) - Calendar::DAY_S;
            foreach ($all->written($from, $from + 3 * Calendar::DAY_S) as $local) {
                if (LocalTime::ofSeconds($local)->day() === $day) {
                    $times[] = LocalTime::ofSeconds($local);
                }
            }
        }

        return $times;
    }

    /**
     * Every change of the clock as an observance of its own, from the year before the first booking on (3.6.5).
     *
     * @return list<string>
     */
    private static function zone(Schedule $schedule, WallClock $clock): array
    {
        $first = $schedule->bookings === [] ? 0 : min(array_map(static fn (Booking $booking): int => $booking->start->seconds, $schedule->bookings));
        $year = Calendar::year(intdiv($first, Calendar::DAY_S));
        $begin = Calendar::newYear($year - 1) * Calendar::DAY_S;
        $lines = ['BEGIN:VTIMEZONE', "TZID:$clock->timezone"];
        foreach ([$begin, ...$clock->changes($begin + 1, Calendar::newYear($year + self::YEARS) * Calendar::DAY_S)] as $change) {
            [$before, $after] = [$clock->local($change - 1) - $change + 1, $clock->local($change) - $change];
            $kind = $after > $before ? 'DAYLIGHT' : 'STANDARD';
            array_push(
                $lines,
                "BEGIN:$kind",
                'DTSTART:' . gmdate('Ymd\THis', $change + $before),
                'TZOFFSETFROM:' . self::offset($before),
                'TZOFFSETTO:' . self::offset($after),
                "END:$kind",
            );
        }

        return [...$lines, 'END:VTIMEZONE'];
    }

    private static function zoned(WallClock $clock): string
    {
        return $clock->timezone === 'UTC' ? '' : ";TZID=$clock->timezone";
    }

    private static function local(LocalTime $time, WallClock $clock): string
    {
        return gmdate('Ymd\THis', $time->seconds) . ($clock->timezone === 'UTC' ? 'Z' : '');
    }

    private static function offset(int $seconds): string
    {
        return sprintf('%s%02d%02d', $seconds < 0 ? '-' : '+', intdiv(abs($seconds), 3600), intdiv(abs($seconds), 60) % 60);
    }

    /** TEXT of 3.3.11. */
    private static function text(string $text): string
    {
        return strtr($text, ['\\' => '\\\\', ';' => '\\;', ',' => '\\,', "\r\n" => '\\n', "\n" => '\\n', "\r" => '\\n']);
    }

    /** A long line goes on in the next, behind a space; no letter is cut in two (3.1). */
    private static function folded(string $line): string
    {
        $folded = '';
        for ($room = self::LINE; strlen($line) > $room; $room = self::LINE - 1) {
            $piece = mb_strcut($line, 0, $room, 'UTF-8');
            $folded .= "$piece\r\n ";
            $line = substr($line, strlen($piece));
        }

        return $folded . $line;
    }
}
