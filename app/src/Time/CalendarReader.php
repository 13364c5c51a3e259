<?php

declare(strict_types=1);

namespace UpperPane\App\Time;

use Sabre\VObject\Component\VCalendar;
use Sabre\VObject\Component\VEvent;
use Sabre\VObject\InvalidDataException;
use Sabre\VObject\Parameter;
use Sabre\VObject\ParseException;
use Sabre\VObject\Property;
use Sabre\VObject\Property\ICalendar\DateTime as DateTimeProperty;
use Sabre\VObject\Reader;
use Sabre\VObject\TimeZoneUtil;
use UpperPane\Core\Document\CalendarRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Time\Schedule\Rank;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\UtcOffsets;
use UpperPane\Core\Units\WallClock;

/** Events of an iCalendar file (RFC 5545) as bookings: parsed by sabre/vobject, read by the rules of the core. */
final class CalendarReader
{
    private const LARGEST = 8_388_608;

    /** @var list<string> what could not be taken as it stands, in words */
    private array $notes = [];

    /** @var array<string, WallClock> by their zones */
    private array $clocks = [];

    private function __construct(private readonly string $timezone, private readonly VCalendar $calendar)
    {
    }

    /**
     * @param string $timezone of the schedule: times of another zone are brought to its clock, floating ones are taken as they stand
     * @param array<string, string> $plays what an event plays that does not say it: `{"layout": id}` and the like
     * @return array{bookings: list<array<string, mixed>>, notes: list<string>}
     * @throws CalendarRefused where it is no calendar
     */
    public static function read(string $text, string $timezone, array $plays): array
    {
        if (strlen($text) > self::LARGEST) {
            throw CalendarRefused::because(Reason::CalendarTooLarge, 'The calendar has more than 8 MB; it is not read.', '/calendar');
        }
        if (!mb_check_encoding($text, 'UTF-8')) {
            throw CalendarRefused::because(Reason::CalendarSyntax, 'The calendar is not in UTF-8, as iCalendar files are.', '/calendar');
        }
        try {
            $calendar = Reader::read($text, Reader::OPTION_FORGIVING | Reader::OPTION_IGNORE_INVALID_LINES);
        } catch (ParseException $e) {
            throw CalendarRefused::because(Reason::CalendarSyntax, 'This is no iCalendar file: ' . $e->getMessage(), '/calendar');
        } catch (\Throwable $e) {
            // The parser trips over properties in encodings that calendars do not have.
            throw CalendarRefused::because(Reason::CalendarSyntax, 'This iCalendar file cannot be read; another program may write it anew: ' . $e->getMessage(), '/calendar');
        }
        if (!$calendar instanceof VCalendar) {
            throw CalendarRefused::because(Reason::CalendarSyntax, 'This is no iCalendar file; one begins with BEGIN:VCALENDAR.', '/calendar');
        }
        $events = array_values(array_filter($calendar->select('VEVENT'), static fn (mixed $one): bool => $one instanceof VEvent));
        if (count($events) > Schedule::MOST_BOOKINGS) {
            $message = sprintf('The calendar has %s events; a schedule has at most %s.', number_format(count($events)), number_format(Schedule::MOST_BOOKINGS));
            throw CalendarRefused::because(Reason::CalendarTooMany, $message, '/calendar');
        }
        $reader = new self($timezone, $calendar);
        [$bookings, $moved] = [[], []];
        foreach ($events as $number => $event) {
            try {
                $booking = $reader->booking($event, $plays, $number + 1);
                $which = self::time($event, 'RECURRENCE-ID');
                if ($which !== null) {
                    $moved[$booking['uid']][] = (string) $reader->local($which, '')[0];
                }
                $bookings[] = $booking;
            } catch (\Throwable $e) {
                // What the parser makes of an odd value may fail in ways of its own: one event never loses the others.
                $why = $e instanceof Refused || $e instanceof InvalidDataException ? $e->getMessage() : 'it cannot be read.';
                $reader->notes[] = sprintf('"%s" is left out: %s', self::summary($event, $number + 1), $why);
            }
        }

        return ['bookings' => self::withoutMoved($bookings, $moved), 'notes' => $reader->notes];
    }

    /**
     * An event with a RECURRENCE-ID stands in the place of one occurrence of the series of the same UID (3.8.4.4): the series goes without it.
     *
     * @param list<array{uid: string, rrule?: string, exdates?: list<string>, ...}> $bookings each with its uid
     * @param array<non-empty-list<string>> $moved by uid: the occurrences of others that its events stand for
     * @return list<array<string, mixed>> without uids
     */
    private static function withoutMoved(array $bookings, array $moved): array
    {
        foreach ($bookings as $index => ['uid' => $uid]) {
            if (isset($bookings[$index]['rrule'], $moved[$uid])) {
                $bookings[$index]['exdates'] = [...$bookings[$index]['exdates'] ?? [], ...$moved[$uid]];
                unset($moved[$uid]);
            }
        }

        /** @var list<array<string, mixed>> $without */
        $without = array_map(static fn (array $booking): array => array_diff_key($booking, ['uid' => 1]), $bookings);

        return $without;
    }

    /**
     * @param array<string, string> $plays
     * @return array{uid: string, rrule?: string, exdates?: list<string>, ...}
     */
    private function booking(VEvent $event, array $plays, int $number): array
    {
        $name = self::summary($event, $number);
        $start = self::time($event, 'DTSTART');
        if ($start === null) {
            throw CalendarRefused::because(Reason::CalendarEvent, 'it has no DTSTART.', '/calendar');
        }
        $from = $this->local($start, $name)[0];
        $end = self::time($event, 'DTEND');
        $duration = self::text($event, 'DURATION');
        $length = match (true) {
            $end !== null => $this->local($end, $name)[0]->seconds - $from->seconds,
            $duration !== null => self::duration($duration),
            // Without an end a day is a day, and a time is no time at all (3.6.1).
            !$start->hasTime() => 86_400,
            default => 0,
        };
        if ($length <= 0) {
            throw CalendarRefused::because(Reason::CalendarEvent, 'it ends when it begins, or before.', '/calendar');
        }
        $rule = ($text = self::text($event, 'RRULE')) === null ? null : Rule::parse($text);
        $own = explode(':', self::text($event, 'X-PLAYS') ?? '', 2);
        $category = strtolower(self::text($event, 'CATEGORIES') ?? '');
        return ['uid' => self::text($event, 'UID') ?? ''] + array_filter([
            'name' => mb_substr($name, 0, 200),
            'plays' => count($own) === 2 && in_array($own[0], ['layout', 'playlist', 'media'], true) ? [$own[0] => $own[1]] : $plays,
            'zone' => self::text($event, 'X-ZONE'),
            'rank' => (Rank::tryFrom($category) ?? Rank::of($rule))->value,
            'start' => (string) $from,
            'end' => (string) LocalTime::ofSeconds($from->seconds + $length),
            'rrule' => $rule === null ? null : (string) $rule,
            'exdates' => $this->dates($event, 'EXDATE', $name),
            'rdates' => $this->dates($event, 'RDATE', $name),
            'from' => self::text($event, 'X-SHOWN-FROM'),
            'until' => self::text($event, 'X-SHOWN-UNTIL'),
            'created' => self::created($event),
        ], static fn (mixed $value): bool => $value !== null && $value !== []);
    }

    /** @return list<string> */
    private function dates(VEvent $event, string $name, string $of): array
    {
        $dates = [];
        foreach ($event->select($name) as $property) {
            if ($property instanceof DateTimeProperty) {
                foreach ($this->local($property, $of) as $time) {
                    $dates[] = $property->hasTime() ? (string) $time : substr((string) $time, 0, 10);
                }
            }
        }

        return $dates;
    }

    /** @return non-empty-list<LocalTime> on the clock of the schedule */
    private function local(DateTimeProperty $property, string $of): array
    {
        $zone = null;
        $tzid = $property->parameters()['TZID'] ?? null;
        $named = $tzid instanceof Parameter ? $tzid->getValue() : null;
        if (is_string($named) && $named !== '' && $property->hasTime()) {
            $known = UtcOffsets::isKnown($named) ? $named : TimeZoneUtil::getTimeZone($named, $this->calendar)->getName();
            if ($known !== $named) {
                $this->note(sprintf('The time zone "%s" is not known by that name; it is taken for %s.', $named, $known));
            }
            $zone = UtcOffsets::isKnown($known) ? $this->clock($known) : null;
        }
        $times = [];
        foreach ($property->getParts() as $part) {
            if (!is_string($part) || preg_match('/^(\d{4})(\d\d)(\d\d)(?:T(\d\d)(\d\d)(\d\d)(Z?))?$/D', $part, $m) !== 1) {
                throw CalendarRefused::because(Reason::CalendarEvent, sprintf('"%s" is no date or time.', is_string($part) ? mb_strimwidth($part, 0, 30, '...') : ''), '/calendar');
            }
            $time = LocalTime::parse(sprintf('%s-%s-%sT%s:%s:%s', $m[1], $m[2], $m[3], $m[4] ?? '00', $m[5] ?? '00', $m[6] ?? '00'));
            $from = ($m[7] ?? '') === 'Z' ? $this->clock('UTC') : $zone;
            if ($from !== null && $from->timezone !== $this->timezone) {
                $time = LocalTime::ofSeconds($this->clock($this->timezone)->local($from->utcOrBefore($time->seconds)));
                if ($of !== '' && $from->timezone !== 'UTC') {
                    $this->note(sprintf('"%s" is in the time of %s: it begins at the same instant, and comes again by the clock of %s.', $of, $from->timezone, $this->timezone));
                }
            }
            $times[] = $time;
        }

        return $times === [] ? throw CalendarRefused::because(Reason::CalendarEvent, 'a date is empty.', '/calendar') : $times;
    }

    private function note(string $note): void
    {
        if (!in_array($note, $this->notes, true)) {
            $this->notes[] = $note;
        }
    }

    /** Seconds of a duration (RFC 5545, 3.3.6); 0 of what is none. */
    private static function duration(string $text): int
    {
        if (preg_match('/^\+?P(?:(\d{1,5})W|(?:(\d{1,5})D)?(?:T(?:(\d{1,6})H)?(?:(\d{1,8})M)?(?:(\d{1,9})S)?)?)$/D', $text, $m) !== 1) {
            return 0;
        }
        $seconds = 0;
        foreach ([604_800, 86_400, 3_600, 60, 1] as $index => $unit) {
            $seconds += (int) ($m[$index + 1] ?? 0) * $unit;
        }

        return $seconds;
    }

    /** When it was made, in UTC (3.8.7.1); null where that cannot be read. */
    private static function created(VEvent $event): ?string
    {
        $made = preg_replace('/^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z$/D', '$1-$2-$3T$4:$5:$6Z', self::text($event, 'CREATED') ?? '');
        try {
            return (string) Instant::parse((string) $made);
        } catch (Refused) {
            return null;
        }
    }

    private static function summary(VEvent $event, int $number): string
    {
        $summary = trim(self::text($event, 'SUMMARY') ?? '');

        return $summary === '' ? "Event $number" : $summary;
    }

    private static function text(VEvent $event, string $name): ?string
    {
        $property = $event->select($name)[0] ?? null;

        return $property instanceof Property ? (string) $property->getValue() : null;
    }

    private static function time(VEvent $event, string $name): ?DateTimeProperty
    {
        $property = $event->select($name)[0] ?? null;

        return $property instanceof DateTimeProperty ? $property : null;
    }

    private function clock(string $timezone): WallClock
    {
        $this->clocks[$timezone] ??= WallClock::in($timezone);

        return $this->clocks[$timezone];
    }
}
