<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Document\ActRefused;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Recurrence\Frequency;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** What a schedule becomes when one occurrence of a booking is moved, stretched or taken out: it alone, it and the later ones, or all. */
final readonly class BookingEdit
{
    /**
     * @param array<string, mixed> $document in the format `upper-pane/schedule@1`
     * @param LocalTime $occurrence the start that is written for it
     * @param 'one'|'later'|'all' $which
     */
    private function __construct(private array $document, private Booking $booking, private LocalTime $occurrence, private string $which, private WallClock $clock)
    {
    }

    /**
     * @param array<string, mixed> $document in the format `upper-pane/schedule@1`
     * @param 'one'|'later'|'all' $which
     * @throws DocumentRefused where there is no such booking or occurrence
     */
    public static function of(array $document, string $booking, LocalTime $occurrence, string $which): self
    {
        $schedule = Schedule::fromArray($document);
        $clock = WallClock::in($schedule->timezone);
        foreach ($schedule->bookings as $one) {
            if ($one->id !== $booking) {
                continue;
            }
            $written = $one->recurrence($clock)->written($occurrence->seconds - 2 * Calendar::DAY_S, $occurrence->seconds + 2 * Calendar::DAY_S);
            if (!in_array($occurrence->seconds, $written, true)) {
                throw ActRefused::because(Reason::OccurrenceUnknown, sprintf('"%s" does not begin at %s.', $one->name, $occurrence), '/occurrence');
            }
            $alone = $one->rule === null && $one->dates === [];

            return new self($document, $one, $occurrence, $alone || ($which === 'later' && $occurrence->seconds === $one->start->seconds) ? 'all' : $which, $clock);
        }
        throw DocumentRefused::because(Reason::RefUnknown, sprintf('There is no booking "%s".', $booking), '/booking');
    }

    /**
     * @param LocalTime $start where the occurrence begins from now on
     * @param string $id of the booking that is made for what is moved apart from the others
     * @param int $nowMs Unix ms; made now, it goes before the older ones of its rank
     * @return array<string, mixed> the document
     * @throws DocumentRefused
     */
    public function moved(LocalTime $start, LocalTime $end, string $id, int $nowMs): array
    {
        $by = $start->seconds - $this->occurrence->seconds;
        $length = $end->seconds - $start->seconds;
        $days = $start->day() - $this->occurrence->day();
        $fields = $this->fields();
        if ($this->which === 'all') {
            $begin = LocalTime::ofSeconds($this->booking->start->seconds + $by);

            return $this->with([self::shifted($fields, $by, $days, $this->booking->rule) + $fields, ['start' => (string) $begin, 'end' => (string) LocalTime::ofSeconds($begin->seconds + $length)]]);
        }
        $apart = ['id' => $id, 'start' => (string) $start, 'end' => (string) $end, 'created' => (string) Instant::ofMs($nowMs)];
        if ($this->which === 'one') {
            return $this->with([$this->without()], [$apart + array_diff_key($fields, ['rrule' => 1, 'exdates' => 1, 'rdates' => 1])]);
        }
        $later = self::shifted($this->after($fields), $by, $days, $this->booking->rule) + $this->after($fields);
        if ($this->booking->rule?->count !== null) {
            $before = count($this->booking->recurrence($this->clock)->between(PHP_INT_MIN >> 1, $this->clock->utcOrBefore($this->occurrence->seconds)));
            $rule = is_string($later['rrule'] ?? null) ? Rule::parse($later['rrule']) : $this->booking->rule;
            $later['rrule'] = (string) $rule->withCount($this->booking->rule->count - $before);
        }

        return $this->with([$this->until()], [$apart + $later]);
    }

    /** @return array<string, mixed> the document */
    public function removed(): array
    {
        return $this->with($this->which === 'all' ? [] : [$this->which === 'one' ? $this->without() : $this->until()]);
    }

    /** @return array<string, mixed> the booking without this one occurrence */
    private function without(): array
    {
        $fields = $this->fields();
        $dates = self::texts($fields, 'rdates');
        if (in_array((string) $this->occurrence, array_map(static fn (string $date): string => (string) LocalTime::parse($date), $dates), true)) {
            $fields['rdates'] = array_values(array_filter($dates, fn (string $date): bool => LocalTime::parse($date)->seconds !== $this->occurrence->seconds));
        }

        return ['exdates' => [...self::texts($fields, 'exdates'), (string) $this->occurrence]] + $fields;
    }

    /** @return array<string, mixed> the booking, ended before this occurrence */
    private function until(): array
    {
        $fields = $this->fields();

        return ($this->booking->rule === null ? [] : ['rrule' => (string) $this->booking->rule->withUntil(LocalTime::ofSeconds($this->occurrence->seconds - 1))])
            + ['rdates' => array_values(array_filter(self::texts($fields, 'rdates'), fn (string $date): bool => LocalTime::parse($date)->seconds < $this->occurrence->seconds))] + $fields;
    }

    /**
     * @param array<string, mixed> $fields
     * @return array<string, mixed> with the exceptions and dates from this occurrence on
     */
    private function after(array $fields): array
    {
        $from = $this->occurrence;
        $kept = static fn (string $date): bool => strlen($date) === 10 ? LocalTime::parse($date . 'T00:00:00')->day() >= $from->day() : LocalTime::parse($date)->seconds >= $from->seconds;

        return array_filter([
            'exdates' => array_values(array_filter(self::texts($fields, 'exdates'), $kept)),
            'rdates' => array_values(array_filter(self::texts($fields, 'rdates'), $kept)),
        ]) + array_diff_key($fields, ['exdates' => 1, 'rdates' => 1]);
    }

    /**
     * What else moves when all do: exceptions, dates, and the weekdays of a weekly rule.
     *
     * @param array<string, mixed> $fields
     * @return array<string, mixed>
     * @throws DocumentRefused where the rule says the day itself
     */
    private static function shifted(array $fields, int $by, int $days, ?Rule $rule): array
    {
        $shift = static fn (string $date): string => strlen($date) === 10
            ? substr((string) LocalTime::ofSeconds(LocalTime::parse($date . 'T00:00:00')->seconds + $days * Calendar::DAY_S), 0, 10)
            : (string) LocalTime::ofSeconds(LocalTime::parse($date)->seconds + $by);
        $shifted = [];
        foreach (['exdates', 'rdates'] as $name) {
            if (self::texts($fields, $name) !== []) {
                $shifted[$name] = array_map($shift, self::texts($fields, $name));
            }
        }
        if ($rule === null || $days === 0 || $rule->frequency === Frequency::Daily) {
            return $shifted;
        }
        $named = $rule->byDay !== [] || $rule->byMonthDay !== [] || $rule->byYearDay !== [] || $rule->byWeekNo !== [] || $rule->byMonth !== [];
        if ($rule->frequency !== Frequency::Weekly ? $named : $rule->byMonth !== []) {
            throw ActRefused::because(Reason::MoveRule, sprintf('Its rule, %s, says the day. Move this one alone, or change the rule.', $rule), '/start');
        }
        if ($rule->byDay !== []) {
            $shifted['rrule'] = (string) $rule->withDays(array_map(static fn (array $day): int => (($day[0] + $days) % 7 + 7) % 7, $rule->byDay));
        }

        return $shifted;
    }

    /** @return array<string, mixed> of the booking, as it stands in the document */
    private function fields(): array
    {
        foreach ($this->bookings() as $fields) {
            if ($fields['id'] === $this->booking->id) {
                return $fields;
            }
        }
        throw new \LogicException('The booking was found before.');
    }

    /**
     * @param list<array<string, mixed>> $instead what stands in the place of the booking; of several the later fields hold
     * @param list<array<string, mixed>> $more
     * @return array<string, mixed>
     */
    private function with(array $instead, array $more = []): array
    {
        $bookings = [];
        foreach ($this->bookings() as $fields) {
            if ($fields['id'] !== $this->booking->id) {
                $bookings[] = $fields;
            } elseif ($instead !== []) {
                $bookings[] = array_replace(...$instead);
            }
        }
        $document = ['bookings' => [...$bookings, ...$more]] + $this->document;
        Schedule::fromArray($document);

        return $document;
    }

    /** @return list<array<string, mixed>> */
    private function bookings(): array
    {
        $bookings = $this->document['bookings'] ?? [];
        /** @var list<array<string, mixed>> $list it was read as a schedule */
        $list = is_array($bookings) ? array_values($bookings) : [];

        return $list;
    }

    /**
     * @param array<string, mixed> $fields
     * @return list<string>
     */
    private static function texts(array $fields, string $name): array
    {
        $texts = $fields[$name] ?? [];

        return is_array($texts) ? array_values(array_filter($texts, is_string(...))) : [];
    }
}
