<?php

declare(strict_types=1);

namespace UpperPane\App\Time;

use Sabre\VObject\Component\VCalendar;
use Sabre\VObject\Component\VEvent;
use Sabre\VObject\DateTimeParser;
use Sabre\VObject\Parameter;
use Sabre\VObject\ParseException;
use Sabre\VObject\Property;
use Sabre\VObject\Property\ICalendar\DateTime as DateTimeProperty;
use Sabre\VObject\Reader;
use Sabre\VObject\TimeZoneUtil;
use UpperPane\Core\Document\CalendarRefused;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Time\Recurrence\Rule;
use UpperPane\Core\Time\Schedule\Rank;
use UpperPane\Core\Time\Schedule\Schedule;
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
     * @throws DocumentRefused where it is no calendar
     */
    public static function read(string $text, string $timezone, array $plays): array
    {
        if (strlen($text) > self::LARGEST) {
            throw CalendarRefused::because(Reason::CalendarTooLarge, 'The calendar has more than 8 MB; it is not read.', '/calendar');
        }
        try {
            $calendar = Reader::read($text, Reader::OPTION_FORGIVING | Reader::OPTION_IGNORE_INVALID_LINES);
        } catch (ParseException $e) {
            throw CalendarRefused::because(Reason::CalendarSyntax, 'This is no iCalendar file: ' . $e->getMessage(), '/calendar');
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
        $bookings = [];
        foreach ($events as $number => $event) {
            try {
                $booking = $reader->booking($event, $plays, $number + 1);
                // An occurrence that was moved stands beside its series: the series goes without it.
                $bookings[] = $booking;
                $reader->moved($event, $bookings);
            } catch (Refused | \InvalidArgumentException $e) {
                $reader->notes[] = sprintf('"%s" is left out: %s', self::summary($event, $number + 1), $e->getMessage());
            }
        }

        return ['bookings' => array_map(static fn (array $booking): array => array_diff_key($booking, ['uid' => 1]), $bookings), 'notes' => $reader->notes];
    }

    /**
     * @param array<string, string> $plays
     * @return array<string, mixed>
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
        $created = self::time($event, 'CREATED')?->getDateTime()->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z');

        return array_filter([
            'uid' => self::text($event, 'UID') ?? '',
            'name' => mb_substr($name, 0, 200),
            'plays' => count($own) === 2 && in_array($own[0], ['layout', 'playlist', 'media'], true) ? [$own[0] => $own[1]] : $plays,
            'zone' => self::text($event, 'X-ZONE'),
            'rank' => (Rank::tryFrom($category) ?? self::rank($rule))->value,
            'start' => (string) $from,
            'end' => (string) LocalTime::ofSeconds($from->seconds + $length),
            'rrule' => $rule === null ? null : (string) $rule,
            'exdates' => $this->dates($event, 'EXDATE', $name),
            'rdates' => $this->dates($event, 'RDATE', $name),
            'from' => self::text($event, 'X-SHOWN-FROM'),
            'until' => self::text($event, 'X-SHOWN-UNTIL'),
            'created' => $created,
        ], static fn (mixed $value): bool => $value !== null && $value !== []);
    }

    /**
     * An event with a RECURRENCE-ID stands in the place of one occurrence of the event of the same UID (3.8.4.4).
     *
     * @param list<array<string, mixed>> $bookings
     */
    private function moved(VEvent $event, array &$bookings): void
    {
        $which = self::time($event, 'RECURRENCE-ID');
        if ($which === null) {
            return;
        }
        $last = count($bookings) - 1;
        foreach ($bookings as $index => $booking) {
            if ($index !== $last && $booking['uid'] === $bookings[$last]['uid'] && isset($booking['rrule'])) {
                $without = is_array($booking['exdates'] ?? null) ? $booking['exdates'] : [];
                $bookings[$index]['exdates'] = [...$without, (string) $this->local($which, '')[0]];
            }
        }
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

    private static function duration(string $text): int
    {
        $from = new \DateTimeImmutable('2001-01-01 UTC');
        $length = DateTimeParser::parseDuration($text);

        return $length instanceof \DateInterval ? $from->add($length)->getTimestamp() - $from->getTimestamp() : 0;
    }

    private static function rank(?Rule $rule): Rank
    {
        return match (true) {
            $rule === null => Rank::Dated,
            (string) $rule === 'FREQ=DAILY' => Rank::Everyday,
            default => Rank::Weekly,
        };
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
