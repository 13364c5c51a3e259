<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Recurrence\Recurrence;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\Integers;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\UtcOffsets;
use UpperPane\Core\Units\WallClock;

/** Events of an iCalendar file (RFC 5545): each occurrence that begins in the window, with the exceptions that the file names. */
final class CalendarTree implements TreeReader
{
    /** Changes of a clock that a file may name. */
    private const MOST_CHANGES = 5_000;

    private const FROM_S = -2_208_988_800;
    private const TO_S = 7_258_118_400;

    /** @var array<string, WallClock> by TZID */
    private array $clocks = [];

    private readonly WallClock $clock;

    /** @var list<array{int, int, array<string, mixed>}> begin (Unix s), place in the file, what is told */
    private array $found = [];

    private function __construct(private readonly ReadOptions $options)
    {
        $this->clock = WallClock::in($options->timezone);
    }

    public static function read(string $bytes, ReadOptions $options): mixed
    {
        $calendars = ContentLines::read($bytes);
        $reader = new self($options);
        foreach ($calendars as $calendar) {
            $reader->add($calendar);
        }
        usort($reader->found, static fn (array $one, array $other): int => [$one[0], $one[1]] <=> [$other[0], $other[1]]);

        return (object) [
            'name' => $calendars[0]->text('NAME') ?? $calendars[0]->text('X-WR-CALNAME'),
            'events' => array_map(static fn (array $one): \stdClass => (object) $one[2], $reader->found),
        ];
    }

    private function add(ContentLines $calendar): void
    {
        $this->clocks = [];
        foreach ($calendar->components['VTIMEZONE'] ?? [] as $zone) {
            $name = $zone->first('TZID')['value'] ?? '';
            if ($name !== '' && !UtcOffsets::isKnown($name)) {
                $this->clocks[$name] = $this->clockOf($zone, $name);
            }
        }
        $events = [];
        foreach ($calendar->components['VEVENT'] ?? [] as $place => $component) {
            try {
                $events[] = $this->event($component, $place);
            } catch (DataRefused $refused) {
                throw $refused;
            } catch (Refused $refused) {
                throw DataRefused::inLine(Reason::DataSyntax, 'the event that begins here cannot be read: ' . $refused->getMessage(), $component->line);
            }
        }
        // What stands in the place of an occurrence, by the uid and the instant of that (3.8.4.4); of two the later version.
        $exceptions = [];
        $future = [];
        foreach ($events as $event) {
            if ($event->replaces !== null) {
                $key = $event->replaces->utc;
                $other = $exceptions["_$event->uid"][$key] ?? null;
                if ($other === null || $event->sequence >= $other->sequence) {
                    $exceptions["_$event->uid"][$key] = $event;
                }
            }
        }
        foreach ($exceptions as $uid => $ofOne) {
            foreach ($ofOne as $key => $event) {
                $this->tell($event, $event->start->utc, $event->start->local, null);
                if ($event->isForFuture) {
                    $future[$uid][$key] = $event;
                }
            }
        }
        foreach ($events as $event) {
            if ($event->replaces === null) {
                try {
                    $this->occurrences($event, $exceptions["_$event->uid"] ?? [], $future["_$event->uid"] ?? []);
                } catch (DataRefused $refused) {
                    throw $refused;
                } catch (Refused $refused) {
                    throw DataRefused::inLine(Reason::DataSyntax, 'the event that begins here cannot be read: ' . $refused->getMessage(), $event->component->line);
                }
            }
        }
    }

    /** @throws Refused */
    private function event(ContentLines $component, int $place): CalendarEvent
    {
        $start = $component->first('DTSTART') ?? throw DataRefused::inLine(Reason::DataSyntax, 'the event that begins here has no DTSTART.', $component->line);
        $begin = $this->time($start);
        $end = $component->first('DTEND');
        [$length, $days, $seconds] = [null, $begin->isDate ? 1 : 0, 0];
        if ($end !== null) {
            $until = $this->time($end);
            [$length, $days] = [max(0, $until->utc - $begin->utc), max(0, intdiv($until->local - $begin->local, Calendar::DAY_S))];
        } elseif (($duration = $component->first('DURATION')) !== null) {
            [$days, $seconds] = self::duration($duration['value'], $duration['line']);
        }
        $which = $component->first('RECURRENCE-ID');

        return new CalendarEvent(
            $place,
            $component->text('UID') ?? '',
            $begin,
            $length,
            $days,
            $seconds,
            $which === null ? null : $this->time($which),
            strtoupper($which['parameters']['RANGE'] ?? '') === 'THISANDFUTURE',
            (int) ($component->first('SEQUENCE')['value'] ?? '0'),
            $component,
        );
    }

    /**
     * @param array<int, CalendarEvent> $exceptions by the instant of the occurrence that each is instead of
     * @param array<int, CalendarEvent> $future those of them that count for all that follow
     * @throws Refused
     */
    private function occurrences(CalendarEvent $event, array $exceptions, array $future): void
    {
        ksort($future);
        $start = $event->start;
        $component = $event->component;
        $rules = array_map(static fn (array $rule): Rule => Rule::parse(trim($rule['value'])), $component->properties['RRULE'] ?? []);
        [$dates, $ends] = $this->dates($component, $start);
        [$without, $withoutDays] = $this->leftOut($component, $start);
        // Days go on a clock that leaves out no midnight.
        $clock = $start->isDate ? WallClock::in('UTC') : $start->clock;
        $shifts = array_map(static fn (CalendarEvent $one): int => abs($one->start->utc - ($one->replaces->utc ?? 0)), $future);
        $margin = 2 * Calendar::DAY_S + max([0, ...$shifts]);
        [$from, $to] = [intdiv($this->options->window[0], 1000) - $margin, intdiv($this->options->window[1], 1000) + $margin];
        $written = [];
        foreach ($rules === [] ? [null] : $rules as $rule) {
            $recurrence = Recurrence::of(LocalTime::ofSeconds($start->local), $rule, $clock, $dates, $without, $withoutDays);
            $written += $recurrence->written($from, $to, Trees::MOST_ROWS + 1);
            Trees::holdRows(count($written), 'occurrences of events');
        }
        foreach ($written as $utc => $local) {
            if ($start->isDate) {
                $utc = $this->clock->utcOrBefore($local);
            }
            if (isset($exceptions[$utc])) {
                continue;
            }
            $changed = null;
            foreach ($future as $since => $one) {
                $changed = $since <= $utc ? $one : $changed;
            }
            if ($changed === null) {
                $this->tell($event, $utc, $local, $ends[$utc] ?? null);
            } else {
                $moved = $local + $changed->start->local - ($changed->replaces->local ?? 0);
                $this->tell($changed, $start->isDate ? $this->clock->utcOrBefore($moved) : $start->clock->utcOrBefore($moved), $moved, null);
            }
        }
    }

    /** @param ?int $end Unix s, where this occurrence alone says it */
    private function tell(CalendarEvent $event, int $utc, int $local, ?int $end): void
    {
        if ($utc * 1000 < $this->options->window[0] || $utc * 1000 >= $this->options->window[1]) {
            return;
        }
        $component = $event->component;
        if ($event->start->isDate) {
            $last = gmdate('Y-m-d', $local + $event->days * Calendar::DAY_S);
        } else {
            // What is told as a length is so many days on the clock, and then so many seconds (3.3.6, 3.8.5.3).
            $nominal = $event->days === 0 ? $utc : $event->start->clock->utcOrBefore($local + $event->days * Calendar::DAY_S);
            $last = (string) Instant::ofMs(1000 * ($end ?? ($event->lengthS === null ? $nominal + $event->seconds : $utc + $event->lengthS)));
        }
        $this->found[] = [$utc, $event->place, [
            'uid' => $component->text('UID'),
            'summary' => $component->text('SUMMARY'),
            'description' => $component->text('DESCRIPTION'),
            'location' => $component->text('LOCATION'),
            'start' => $event->start->isDate ? gmdate('Y-m-d', $local) : (string) Instant::ofMs($utc * 1000),
            'end' => $last,
            'all_day' => $event->start->isDate,
            'cancelled' => strtoupper(trim($component->first('STATUS')['value'] ?? '')) === 'CANCELLED',
        ]];
        Trees::holdRows(count($this->found), 'occurrences of events');
    }

    /**
     * @return array{list<LocalTime>, array<int, int>} RDATE on the clock of the event, and ends of those that are periods, by their begin
     * @throws Refused
     */
    private function dates(ContentLines $component, CalendarTime $start): array
    {
        [$dates, $ends] = [[], []];
        foreach ($component->properties['RDATE'] ?? [] as $property) {
            foreach (explode(',', $property['value']) as $value) {
                $to = ($slash = strpos($value, '/')) === false ? null : substr($value, $slash + 1);
                $time = $this->time(['value' => explode('/', $value)[0]] + $property);
                $dates[] = LocalTime::ofSeconds($this->onClockOf($time, $start));
                if ($to !== null) {
                    $isLength = str_starts_with(ltrim($to, '+'), 'P');
                    [$days, $seconds] = $isLength ? self::duration($to, $property['line']) : [0, 0];
                    $ends[$time->utc] = $isLength ? $time->clock->utcOrBefore($time->local + $days * Calendar::DAY_S) + $seconds : $this->time(['value' => $to] + $property)->utc;
                }
            }
        }

        return [$dates, $ends];
    }

    /**
     * @return array{list<LocalTime>, list<int>} EXDATE on the clock of the event, and whole days
     * @throws Refused
     */
    private function leftOut(ContentLines $component, CalendarTime $start): array
    {
        [$times, $days] = [[], []];
        foreach ($component->properties['EXDATE'] ?? [] as $property) {
            foreach (explode(',', $property['value']) as $value) {
                if (trim($value) === '') {
                    continue;
                }
                $time = $this->time(['value' => trim($value)] + $property);
                if ($time->isDate) {
                    $days[] = LocalTime::ofSeconds($time->local)->day();
                } else {
                    $times[] = LocalTime::ofSeconds($this->onClockOf($time, $start));
                }
            }
        }

        return [$times, $days];
    }

    private function onClockOf(CalendarTime $time, CalendarTime $start): int
    {
        return match (true) {
            $start->isDate => $time->local - Integers::mod($time->local, Calendar::DAY_S),
            $time->isDate => $time->local,
            default => $start->clock->local($time->utc),
        };
    }

    /**
     * @param array{value: string, parameters: array<string, string>, line: int} $property
     * @throws DataRefused
     */
    private function time(array $property): CalendarTime
    {
        $written = trim($property['value']);
        $isRead = preg_match('/^(\d{4})(\d\d)(\d\d)(?:T([01]\d|2[0-3])([0-5]\d)([0-5]\d|60)(Z?))?$/D', $written, $m) === 1;
        if (!$isRead || !checkdate((int) $m[2], (int) $m[3], (int) $m[1])) {
            $message = sprintf('"%s" is no date and no time; 20260601 or 20260601T170500 is right.', mb_strimwidth($property['value'], 0, 40, '...'));
            throw DataRefused::inLine(Reason::DataSyntax, $message, $property['line']);
        }
        $midnight = Calendar::day((int) $m[1], (int) $m[2], (int) $m[3]) * Calendar::DAY_S;
        if (strlen($written) === 8) {
            return new CalendarTime($midnight, $this->clock, true);
        }
        $zone = $property['parameters']['TZID'] ?? '';
        $clock = match (true) {
            str_ends_with($written, 'Z') => $this->named('UTC', $property['line']),
            $zone !== '' => $this->named($zone, $property['line']),
            default => $this->clock,
        };

        return new CalendarTime($midnight + 3600 * (int) substr($written, 9, 2) + 60 * (int) substr($written, 11, 2) + min(59, (int) substr($written, 13, 2)), $clock, false);
    }

    /** @throws DataRefused */
    private function named(string $zone, int $line): WallClock
    {
        return $this->clocks[$zone] ??= UtcOffsets::isKnown($zone)
            ? WallClock::in($zone)
            : throw DataRefused::inLine(Reason::DataSyntax, sprintf('the time zone "%s" is neither known nor told by a VTIMEZONE of the file.', mb_strimwidth($zone, 0, 60, '...')), $line);
    }

    /**
     * A clock as its observances tell it (3.6.5).
     *
     * @throws DataRefused
     */
    private function clockOf(ContentLines $zone, string $name): WallClock
    {
        $changes = [];
        $first = null;
        foreach ([...$zone->components['STANDARD'] ?? [], ...$zone->components['DAYLIGHT'] ?? []] as $observance) {
            $line = $observance->line;
            $offset = static function (string $property) use ($observance, $line): int {
                $written = trim($observance->first($property)['value'] ?? '');
                if (preg_match('/^([+-])(\d\d)(\d\d)(\d\d)?$/D', $written, $m) !== 1) {
                    throw DataRefused::inLine(Reason::DataSyntax, "the time zone has a $property that is no offset; +0100 is right.", $line);
                }

                return ($m[1] === '-' ? -1 : 1) * ((int) $m[2] * 3600 + (int) $m[3] * 60 + (int) ($m[4] ?? 0));
            };
            [$from, $to] = [$offset('TZOFFSETFROM'), $offset('TZOFFSETTO')];
            $clock = WallClock::ofOffsets($name, [[self::FROM_S, $from]]);
            $local = static function (array $property) use ($line): LocalTime {
                $value = is_string($property['value']) ? substr(trim($property['value']), 0, 15) : '';
                if (preg_match('/^\d{8}T\d{6}$/D', $value) !== 1) {
                    throw DataRefused::inLine(Reason::DataSyntax, 'the time zone has a time that is none; 20261025T020000 is right.', $line);
                }

                return LocalTime::parse((string) preg_replace('/^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)$/D', '$1-$2-$3T$4:$5:$6', $value));
            };
            try {
                $start = $local($observance->first('DTSTART') ?? ['value' => '']);
                $dates = [];
                foreach ($observance->properties['RDATE'] ?? [] as $property) {
                    foreach (explode(',', $property['value']) as $value) {
                        $dates[] = $local(['value' => $value]);
                    }
                }
                $rule = $observance->first('RRULE');
                $recurrence = Recurrence::of($start, $rule === null ? null : Rule::parse(trim($rule['value'])), $clock, $dates);
                foreach ($recurrence->between(self::FROM_S, self::TO_S, self::MOST_CHANGES) as $utc) {
                    $changes[$utc] = $to;
                }
            } catch (DataRefused $refused) {
                throw $refused;
            } catch (Refused $refused) {
                throw DataRefused::inLine(Reason::DataSyntax, 'the time zone has an observance that cannot be read: ' . $refused->getMessage(), $line);
            }
            if ($first === null || $start->seconds < $first[0]) {
                $first = [$start->seconds, $from];
            }
        }
        if ($first === null) {
            throw DataRefused::inLine(Reason::DataSyntax, sprintf('the time zone "%s" says neither STANDARD nor DAYLIGHT.', $name), $zone->line);
        }
        ksort($changes);
        $table = [[min(self::FROM_S, ...array_keys($changes)) - 1, $first[1]]];
        foreach ($changes as $utc => $offset) {
            $table[] = [$utc, $offset];
        }

        return WallClock::ofOffsets($name, $table);
    }

    /**
     * @return array{int, int} days, and seconds beside them
     * @throws DataRefused
     */
    private static function duration(string $written, int $line): array
    {
        if (preg_match('/^\+?P(?:(\d{1,4})W|(?:(\d{1,5})D)?(?:T(?:(\d{1,6})H)?(?:(\d{1,7})M)?(?:(\d{1,9})S)?)?)$/D', trim($written), $m) !== 1 || trim($written, '+PT ') === '') {
            throw DataRefused::inLine(Reason::DataSyntax, sprintf('"%s" is no length of an event; PT1H30M or P1D is right.', mb_strimwidth($written, 0, 40, '...')), $line);
        }
        $figure = static fn (int $place): int => (int) ($m[$place] ?? 0);

        return [7 * $figure(1) + $figure(2), 3600 * $figure(3) + 60 * $figure(4) + $figure(5)];
    }
}
