<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use Random\Randomizer;

/** Calendars as random hands write them: rules, exceptions, lengths, days, zones of the tz database and of the file alone. */
final class Calendars
{
    private const OWN_ZONE = [
        'BEGIN:VTIMEZONE', 'TZID:Own/Quay', 'BEGIN:STANDARD', 'DTSTART:19961027T020000', 'RRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU', 'TZOFFSETFROM:+0200', 'TZOFFSETTO:+0100', 'END:STANDARD',
        'BEGIN:DAYLIGHT', 'DTSTART:19810329T020000', 'RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU', 'TZOFFSETFROM:+0100', 'TZOFFSETTO:+0200', 'END:DAYLIGHT', 'END:VTIMEZONE',
    ];

    private const RULES = [
        'FREQ=DAILY', 'FREQ=DAILY;INTERVAL=3', 'FREQ=WEEKLY;BYDAY=MO,TH', 'FREQ=WEEKLY;INTERVAL=2',
        'FREQ=MONTHLY;BYDAY=-1SU', 'FREQ=MONTHLY;BYMONTHDAY=31', 'FREQ=DAILY;COUNT=400', 'FREQ=YEARLY;BYMONTH=10;BYDAY=4SU',
    ];

    public static function random(Randomizer $random): string
    {
        $lines = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Quay//EN', ...self::OWN_ZONE];
        for ($n = 0, $count = $random->getInt(3, 8); $n < $count; $n++) {
            $day = gmmktime(0, 0, 0, 10, $random->getInt(1, 40) - ($random->getInt(0, 2) === 0 ? 300 : 0), 2026);
            $isDay = $random->getInt(0, 4) === 0;
            $zones = ['', ';TZID=Own/Quay', ';TZID=Europe/Lisbon', ';TZID=America/New_York', 'Z'];
            $zone = $zones[$random->getInt(0, 4)];
            $minutes = $isDay ? 0 : 15 * $random->getInt(0, 95);
            $written = static fn (int $shift): string => $isDay
                ? ';VALUE=DATE:' . gmdate('Ymd', $day + 86_400 * intdiv($shift, 1440))
                : ($zone === 'Z' ? '' : $zone) . ':' . gmdate('Ymd\THis', $day + 60 * ($minutes + $shift)) . ($zone === 'Z' ? 'Z' : '');
            $rule = $random->getInt(0, 2) === 0 ? null : self::RULES[$random->getInt(0, count(self::RULES) - 1)];
            $end = match ($random->getInt(0, 3)) {
                0 => $isDay ? 'DURATION:P2D' : 'DURATION:P1DT45M',
                1 => $isDay ? 'DURATION:P1W' : 'DURATION:PT90M',
                2 => 'DTEND' . $written($isDay ? 4320 : 1500),
                default => null,
            };
            $event = static fn (string $start, ?string $own, string $name): array => array_values(array_filter(
                ['BEGIN:VEVENT', "UID:e$n", 'DTSTAMP:20260101T000000Z', "DTSTART$start", $own, "SUMMARY:$name", 'END:VEVENT'],
                static fn (?string $line): bool => $line !== null,
            ));
            $master = $event($written(0), $end, "Event $n");
            if ($rule !== null) {
                array_splice($master, -1, 0, ["RRULE:$rule"]);
                if ($random->getInt(0, 1) === 0) {
                    array_splice($master, -1, 0, ['EXDATE' . $written(1440 * $random->getInt(1, 20))]);
                }
            }
            array_push($lines, ...$master);
            if ($rule === 'FREQ=DAILY' && $random->getInt(0, 1) === 0) {
                $at = 1440 * $random->getInt(2, 30);
                $moved = $event($written($at + ($isDay ? 1440 : 75)), null, "Event $n moved");
                array_splice($moved, -1, 0, ['RECURRENCE-ID' . $written($at), ['STATUS:CANCELLED', 'STATUS:CONFIRMED'][$random->getInt(0, 1)]]);
                array_push($lines, ...$moved);
            }
        }

        return implode("\r\n", [...$lines, 'END:VCALENDAR', '']);
    }
}
