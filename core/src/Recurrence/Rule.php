<?php

declare(strict_types=1);

namespace UpperPane\Core\Recurrence;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\LocalTime;

/** A recurrence rule as RFC 5545, 3.3.10 writes it: `FREQ=WEEKLY;BYDAY=MO,WE`. */
final readonly class Rule
{
    public const DAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

    private const LONGEST = 16_384;
    private const PARTS = [
        'FREQ', 'UNTIL', 'COUNT', 'INTERVAL', 'BYSECOND', 'BYMINUTE', 'BYHOUR', 'BYDAY', 'BYMONTHDAY', 'BYYEARDAY', 'BYWEEKNO', 'BYMONTH', 'BYSETPOS', 'WKST',
    ];

    /**
     * Lists are in rising order, without repetitions; an empty one says nothing.
     *
     * @param ?int $untilUtc Unix s of the last instant, where UNTIL ends in Z
     * @param ?int $untilLocal the same on the local clock, where it does not
     * @param list<int> $bySecond 0 to 59
     * @param list<int> $byMinute
     * @param list<int> $byHour
     * @param list<array{int, int}> $byDay weekday (0 Monday), and which one of the month or year; 0 for every
     * @param list<int> $byMonthDay 1 to 31, -31 to -1
     * @param list<int> $byYearDay 1 to 366, -366 to -1
     * @param list<int> $byWeekNo 1 to 53, -53 to -1
     * @param list<int> $byMonth 1 to 12
     * @param list<int> $bySetPos
     * @param int $weekStart weekday on which a week begins
     * @param string $path JSON Pointer to where it stands
     */
    private function __construct(
        public Frequency $frequency,
        public int $interval,
        public ?int $count,
        public ?int $untilUtc,
        public ?int $untilLocal,
        public array $bySecond,
        public array $byMinute,
        public array $byHour,
        public array $byDay,
        public array $byMonthDay,
        public array $byYearDay,
        public array $byWeekNo,
        public array $byMonth,
        public array $bySetPos,
        public int $weekStart,
        public string $text,
        public string $path,
    ) {
    }

    /**
     * @param string $path where it stands, for the refusal
     * @throws DocumentRefused unless it is a rule of RFC 5545
     */
    public static function parse(string $text, string $path = ''): self
    {
        $wrong = static fn (string $why): DocumentRefused => DocumentRefused::because(
            Reason::RruleWrong,
            trim(sprintf('%s "%s": %s', $path, mb_strimwidth($text, 0, 60, '...'), $why)),
            $path,
        );
        if (strlen($text) > self::LONGEST) {
            throw $wrong(sprintf('a rule of %s characters is not read; at most %s are.', number_format(strlen($text)), number_format(self::LONGEST)));
        }
        $parts = self::parts($text, $wrong);
        $frequency = Frequency::tryFrom($parts['FREQ'] ?? '')
            ?? throw $wrong(isset($parts['FREQ']) ? "FREQ={$parts['FREQ']} is none of YEARLY, MONTHLY, WEEKLY, DAILY, HOURLY, MINUTELY, SECONDLY." : 'FREQ is missing; FREQ=DAILY is a rule.');
        if (isset($parts['COUNT'], $parts['UNTIL'])) {
            throw $wrong('COUNT and UNTIL both end it; one of them is right.');
        }
        $numbers = static fn (string $part, int $least, int $most, bool $behind = false): array => isset($parts[$part])
            ? self::numbers($part, $parts[$part], $least, $most, $behind, $wrong)
            : [];
        [$untilUtc, $untilLocal] = isset($parts['UNTIL']) ? self::until($parts['UNTIL'], $wrong) : [null, null];
        $weekStart = array_search($parts['WKST'] ?? 'MO', self::DAYS, true);
        $rule = new self(
            $frequency,
            isset($parts['INTERVAL']) ? self::number('INTERVAL', $parts['INTERVAL'], $wrong) : 1,
            isset($parts['COUNT']) ? self::number('COUNT', $parts['COUNT'], $wrong) : null,
            $untilUtc,
            $untilLocal,
            // A system without leap seconds takes the 60th second for the 59th (RFC 5545, 3.3.10).
            array_values(array_unique(array_map(static fn (int $second): int => min(59, $second), $numbers('BYSECOND', 0, 60)))),
            $numbers('BYMINUTE', 0, 59),
            $numbers('BYHOUR', 0, 23),
            isset($parts['BYDAY']) ? self::days($parts['BYDAY'], $wrong) : [],
            $numbers('BYMONTHDAY', 1, 31, true),
            $numbers('BYYEARDAY', 1, 366, true),
            $numbers('BYWEEKNO', 1, 53, true),
            $numbers('BYMONTH', 1, 12),
            $numbers('BYSETPOS', 1, 366, true),
            $weekStart === false ? throw $wrong("WKST={$parts['WKST']} is no weekday; one of MO, TU, WE, TH, FR, SA, SU is right.") : $weekStart,
            implode(';', array_map(static fn (string $name, string $value): string => "$name=$value", array_keys($parts), $parts)),
            $path,
        );
        $rule->fitsTogether($wrong);

        return $rule;
    }

    /**
     * The rule with the days that it takes from its start: what it does not say "is derived from DTSTART" (RFC 5545, 3.3.10).
     *
     * @param int $month of the start, 1 to 12
     * @param int $day of the month
     */
    public function completed(int $month, int $day, int $weekday): self
    {
        [$byDay, $byMonthDay, $byMonth] = [$this->byDay, $this->byMonthDay, $this->byMonth];
        if ($byDay === [] && $byMonthDay === [] && $this->byYearDay === []) {
            match (true) {
                $this->frequency === Frequency::Weekly || $this->byWeekNo !== [] => $byDay = [[$weekday, 0]],
                $this->frequency === Frequency::Monthly || $this->frequency === Frequency::Yearly => $byMonthDay = [$day],
                default => null,
            };
            if ($this->frequency === Frequency::Yearly && $this->byWeekNo === [] && $byMonth === []) {
                $byMonth = [$month];
            }
        }

        return new self(
            $this->frequency,
            $this->interval,
            $this->count,
            $this->untilUtc,
            $this->untilLocal,
            $this->bySecond,
            $this->byMinute,
            $this->byHour,
            $byDay,
            $byMonthDay,
            $this->byYearDay,
            $this->byWeekNo,
            $byMonth,
            $this->bySetPos,
            $this->weekStart,
            $this->text,
            $this->path,
        );
    }

    /** In a few words: `every day`, `Mon, Tue`, `every 2 weeks`; the rule itself where no words are short. */
    public function said(): string
    {
        $unit = ['DAILY' => 'day', 'WEEKLY' => 'week', 'MONTHLY' => 'month', 'YEARLY' => 'year', 'HOURLY' => 'hour', 'MINUTELY' => 'minute', 'SECONDLY' => 'second'][$this->frequency->value];
        $every = $this->interval === 1 ? "every $unit" : "every $this->interval {$unit}s";
        $days = array_map(static fn (array $day): string => ucfirst(strtolower(['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'][$day[0]])), $this->byDay);
        $plain = $this->byMonth === [] && $this->byMonthDay === [] && $this->byYearDay === [] && $this->byWeekNo === []
            && $this->byHour === [] && $this->byMinute === [] && $this->bySecond === [] && $this->bySetPos === [];
        $said = match (true) {
            !$plain => $this->text,
            $this->byDay === [] => $every,
            $this->frequency === Frequency::Weekly && $this->interval === 1 => $days === ['Mon', 'Tue', 'Wed', 'Thu', 'Fri'] ? 'Mon to Fri' : implode(', ', $days),
            $this->frequency === Frequency::Weekly => "$every, " . implode(', ', $days),
            default => $this->text,
        };
        $until = $this->untilUtc ?? $this->untilLocal;

        return match (true) {
            $said === $this->text => $said,
            $this->count !== null => "$said, $this->count times",
            $until !== null => "$said until " . gmdate('Y-m-d', $until),
            default => $said,
        };
    }

    /** The same, ended after so many times, whatever ended it before. */
    public function withCount(int $count): self
    {
        return $this->with(['COUNT' => (string) max(1, $count), 'UNTIL' => null]);
    }

    /** The same, ended with a time on the clock on the wall, whatever ended it before. */
    public function withUntil(LocalTime $last): self
    {
        return $this->with(['COUNT' => null, 'UNTIL' => gmdate('Ymd\THis', $last->seconds)]);
    }

    /** The same, ended with an instant (Unix s), whatever ended it before. */
    public function withUntilUtc(int $last): self
    {
        return $this->with(['COUNT' => null, 'UNTIL' => gmdate('Ymd\THis\Z', $last)]);
    }

    /** @param non-empty-list<int> $weekdays 0 Monday; the same on these days */
    public function withDays(array $weekdays): self
    {
        return $this->with(['BYDAY' => implode(',', array_map(static fn (int $day): string => self::DAYS[$day], $weekdays))]);
    }

    /** @param array<string, ?string> $changes by part; null takes it away, what is new comes last */
    private function with(array $changes): self
    {
        $parts = [];
        foreach (explode(';', $this->text) as $part) {
            [$name, $value] = explode('=', $part, 2);
            $parts[$name] = $value;
        }
        $parts = array_filter(array_replace($parts, $changes), is_string(...));

        return self::parse(implode(';', array_map(static fn (string $name, string $value): string => "$name=$value", array_keys($parts), $parts)), $this->path);
    }

    public function __toString(): string
    {
        return $this->text;
    }

    /**
     * What RFC 5545, 3.3.10 forbids to stand together.
     *
     * @param \Closure(string): DocumentRefused $wrong
     * @throws DocumentRefused
     */
    private function fitsTogether(\Closure $wrong): void
    {
        $f = $this->frequency;
        $which = array_filter($this->byDay, static fn (array $day): bool => $day[1] !== 0) !== [];
        $reason = match (true) {
            $this->byWeekNo !== [] && $f !== Frequency::Yearly => 'BYWEEKNO stands in yearly rules only.',
            $this->byYearDay !== [] && in_array($f, [Frequency::Daily, Frequency::Weekly, Frequency::Monthly], true) => 'BYYEARDAY does not stand in daily, weekly and monthly rules.',
            $this->byMonthDay !== [] && $f === Frequency::Weekly => 'BYMONTHDAY does not stand in weekly rules.',
            $which && !in_array($f, [Frequency::Yearly, Frequency::Monthly], true) => 'BYDAY with a figure, such as 2MO, stands in monthly and yearly rules only.',
            $which && $this->byWeekNo !== [] => 'BYDAY with a figure does not stand beside BYWEEKNO.',
            $this->bySetPos !== [] && $this->byDay === [] && $this->byMonthDay === [] && $this->byYearDay === [] && $this->byWeekNo === [] && $this->byMonth === []
                && $this->byHour === [] && $this->byMinute === [] && $this->bySecond === [] => 'BYSETPOS chooses among what another BY part gives; there is none.',
            default => null,
        };
        if ($reason !== null) {
            throw $wrong($reason);
        }
    }

    /**
     * @param \Closure(string): DocumentRefused $wrong
     * @return array<string, string> by name
     * @throws DocumentRefused
     */
    private static function parts(string $text, \Closure $wrong): array
    {
        $parts = [];
        foreach (explode(';', preg_replace('/^RRULE:/i', '', trim($text)) ?? '') as $part) {
            if ($part === '') {
                continue;
            }
            [$name, $value] = [...explode('=', strtoupper($part), 2), ''];
            if (!in_array($name, self::PARTS, true)) {
                throw $wrong(sprintf('"%s" is no part of a rule; %s are.', mb_strimwidth($name, 0, 30, '...'), implode(', ', self::PARTS)));
            }
            if (isset($parts[$name])) {
                throw $wrong("$name stands twice.");
            }
            $parts[$name] = $value;
        }

        return $parts;
    }

    /**
     * @param \Closure(string): DocumentRefused $wrong
     * @throws DocumentRefused
     */
    private static function number(string $part, string $value, \Closure $wrong): int
    {
        return preg_match('/^\d{1,9}$/D', $value) === 1 && (int) $value > 0
            ? (int) $value
            : throw $wrong(sprintf('%s=%s; a whole number from 1 is right.', $part, mb_strimwidth($value, 0, 20, '...')));
    }

    /**
     * @param bool $behind whether figures may count from the end, as -1
     * @param \Closure(string): DocumentRefused $wrong
     * @return list<int>
     * @throws DocumentRefused
     */
    private static function numbers(string $part, string $value, int $least, int $most, bool $behind, \Closure $wrong): array
    {
        $numbers = [];
        foreach (explode(',', $value) as $one) {
            $number = preg_match('/^[+-]?\d{1,3}$/D', $one) === 1 ? (int) $one : null;
            if ($number === null || ($behind ? abs($number) : $number) < $least || abs($number) > $most) {
                throw $wrong(sprintf('%s has "%s"; %d to %d%s are right.', $part, mb_strimwidth($one, 0, 20, '...'), $least, $most, $behind ? ', or as negative figures from the end,' : ''));
            }
            $numbers[$number] = $number;
        }
        sort($numbers);

        return $numbers;
    }

    /**
     * @param \Closure(string): DocumentRefused $wrong
     * @return list<array{int, int}>
     * @throws DocumentRefused
     */
    private static function days(string $value, \Closure $wrong): array
    {
        $days = [];
        foreach (explode(',', $value) as $one) {
            if (preg_match('/^([+-]?\d{1,2})?(MO|TU|WE|TH|FR|SA|SU)$/D', $one, $m) !== 1 || ($m[1] !== '' && ((int) $m[1] === 0 || abs((int) $m[1]) > 53))) {
                throw $wrong(sprintf('BYDAY has "%s"; MO, TU, WE, TH, FR, SA, SU are right, in monthly and yearly rules also 2MO or -1FR.', mb_strimwidth($one, 0, 20, '...')));
            }
            $day = [(int) array_search($m[2], self::DAYS, true), (int) $m[1]];
            $days[$day[1] * 7 + $day[0]] = $day;
        }

        return array_values($days);
    }

    /**
     * @param \Closure(string): DocumentRefused $wrong
     * @return array{?int, ?int} Unix s, or s on the local clock
     * @throws DocumentRefused
     */
    private static function until(string $value, \Closure $wrong): array
    {
        if (
            preg_match('/^(\d{4})(\d\d)(\d\d)(?:T(\d\d)(\d\d)(\d\d)(Z?))?$/D', $value, $m) !== 1
            || !checkdate((int) $m[2], (int) $m[3], (int) $m[1]) || (int) ($m[4] ?? 0) > 23 || (int) ($m[5] ?? 0) > 59 || (int) ($m[6] ?? 0) > 60
        ) {
            throw $wrong(sprintf('UNTIL=%s; 20261231T235959Z is right.', mb_strimwidth($value, 0, 20, '...')));
        }
        $seconds = LocalTime::ofSeconds(Calendar::day((int) $m[1], (int) $m[2], (int) $m[3]) * Calendar::DAY_S + (int) ($m[4] ?? 0) * 3600 + (int) ($m[5] ?? 0) * 60 + (int) ($m[6] ?? 0))->seconds;

        return ($m[7] ?? '') === 'Z' ? [$seconds, null] : [null, $seconds];
    }
}
