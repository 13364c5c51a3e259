<?php

declare(strict_types=1);

namespace UpperPane\Core\Recurrence;

use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Integers;

/**
 * The days on which a rule may fall, in the order of the calendar: those that its BY parts let through, in the rounds that its interval takes.
 *
 * Years that begin on the same weekday and have as many days have the same days, so each kind of year is worked out once.
 */
final class RuleDays
{
    private const FEW = 40;

    /** @var array<string, list<int>> days of the year from 0, by kind of year */
    private array $kinds = [];

    /** @var array<string, int> how many days, by kind of year and where it lies in the interval */
    private array $counts = [];

    private readonly int $firstYear;
    private readonly int $firstMonth;
    private readonly int $firstWeek;
    private readonly bool $everyDay;
    private readonly Rule $rule;

    /** @param int $first day number of DTSTART, which gives what the rule does not say */
    public function __construct(Rule $rule, private readonly int $first)
    {
        [$this->firstYear, $month, $day] = Calendar::date($first);
        $this->firstMonth = $this->firstYear * 12 + $month - 1;
        $this->firstWeek = self::week($first, $rule->weekStart);
        $this->rule = $rule->completed($month, $day, Calendar::weekday($first));
        $this->everyDay = $this->rule->byDay === [] && $this->rule->byMonth === [] && $this->rule->byMonthDay === [] && $this->rule->byYearDay === [] && $this->rule->byWeekNo === [];
    }

    /**
     * The rounds (days, weeks, months, years) that overlap [from, to), whole: BYSETPOS counts within them.
     *
     * @return \Generator<int, non-empty-list<int>> day numbers
     */
    public function rounds(int $from, int $to): \Generator
    {
        if ($from >= $to) {
            return;
        }
        $from = $this->beginOfRound($from);
        $round = [];
        $key = null;
        foreach ($this->days($from, PHP_INT_MAX) as $day) {
            $own = $this->roundOf($day);
            if ($own !== $key && $round !== []) {
                yield $round;
                $round = [];
            }
            if ($own !== $key && $day >= $to) {
                return;
            }
            $key = $own;
            $round[] = $day;
        }
        if ($round !== []) {
            yield $round;
        }
    }

    /**
     * The days in [from, to), one by one.
     *
     * @return \Generator<int, int>
     */
    public function days(int $from, int $to): \Generator
    {
        $rule = $this->rule;
        $interval = $rule->interval;
        // A rule that falls on nothing ends: no pattern of years is longer than 400, and none is taken up behind 9999.
        $end = min($to, Calendar::newYear(10_000));
        if ($this->everyDay && in_array($rule->frequency, [Frequency::Daily, Frequency::Hourly, Frequency::Minutely, Frequency::Secondly], true)) {
            $step = $rule->frequency === Frequency::Daily ? $interval : 1;
            for ($day = $from + Integers::mod($this->first - $from, $step); $day < $end; $day += $step) {
                yield $day;
            }

            return;
        }
        $empty = 0;
        for ($year = Calendar::year($from); ($newYear = Calendar::newYear($year)) < $end && $empty <= 400; $year++) {
            $empty++;
            if ($rule->frequency === Frequency::Yearly && Integers::mod($year - $this->firstYear, $interval) !== 0) {
                $empty = $interval > 1 ? 0 : $empty;
                $year += Integers::mod($this->firstYear - $year, $interval) - 1;
                continue;
            }
            // Of a few days no year is worked out.
            $some = $end - $from <= self::FEW && !isset($this->kinds[$this->kind($year)]) ? $this->workedOut($year, $from - $newYear, $end - $newYear) : $this->ofYear($year);
            foreach ($some as $ofYear) {
                $day = $newYear + $ofYear;
                if ($day >= $end) {
                    return;
                }
                if ($day >= $from && $this->inInterval($day, $year)) {
                    $empty = 0;
                    yield $day;
                }
            }
        }
    }

    /** How many days there are in [from, to): whole years are counted by their kind. */
    public function count(int $from, int $to): int
    {
        $count = 0;
        while ($from < $to) {
            $year = Calendar::year($from);
            [$begin, $end] = [Calendar::newYear($year), Calendar::newYear($year + 1)];
            $count += $from === $begin && $end <= $to ? $this->countYear($year, $begin, $end) : iterator_count($this->days($from, min($to, $end)));
            $from = $end;
        }

        return $count;
    }

    private function countYear(int $year, int $begin, int $end): int
    {
        $interval = $this->rule->interval;
        $place = match ($this->rule->frequency) {
            Frequency::Yearly => Integers::mod($year - $this->firstYear, $interval) === 0 ? 0 : 1,
            Frequency::Monthly => Integers::mod($year * 12 - $this->firstMonth, $interval),
            Frequency::Weekly => Integers::mod(self::week($begin, $this->rule->weekStart) - $this->firstWeek, $interval),
            Frequency::Daily => Integers::mod($begin - $this->first, $interval),
            default => 0,
        };

        return $this->counts[$this->kind($year) . "/$place"] ??= iterator_count($this->days($begin, $end));
    }

    private function inInterval(int $day, int $year): bool
    {
        $interval = $this->rule->interval;
        if ($interval === 1) {
            return true;
        }

        return match ($this->rule->frequency) {
            Frequency::Monthly => Integers::mod($year * 12 + Calendar::date($day)[1] - 1 - $this->firstMonth, $interval) === 0,
            Frequency::Weekly => Integers::mod(self::week($day, $this->rule->weekStart) - $this->firstWeek, $interval) === 0,
            Frequency::Daily => Integers::mod($day - $this->first, $interval) === 0,
            default => true,
        };
    }

    private function roundOf(int $day): int
    {
        return match ($this->rule->frequency) {
            Frequency::Yearly => Calendar::year($day),
            Frequency::Monthly => Calendar::date($day)[0] * 12 + Calendar::date($day)[1],
            Frequency::Weekly => self::week($day, $this->rule->weekStart),
            default => $day,
        };
    }

    private function beginOfRound(int $day): int
    {
        return match ($this->rule->frequency) {
            Frequency::Yearly => Calendar::newYear(Calendar::year($day)),
            Frequency::Monthly => $day - Calendar::date($day)[2] + 1,
            Frequency::Weekly => $day - Integers::mod(Calendar::weekday($day) - $this->rule->weekStart, 7),
            default => $day,
        };
    }

    private static function week(int $day, int $weekStart): int
    {
        $monday = $day + 3 - $weekStart;

        return intdiv($monday - Integers::mod($monday, 7), 7);
    }

    /** @return list<int> days of the year from 0 */
    private function ofYear(int $year): array
    {
        return $this->kinds[$this->kind($year)] ??= $this->workedOut($year);
    }

    private function kind(int $year): string
    {
        $kind = Calendar::daysInYear($year) . Calendar::weekday(Calendar::newYear($year));

        // The first days of January may lie in the last week of the year before, whose number depends on that year.
        return $this->rule->byWeekNo === [] ? $kind : $kind . Calendar::daysInYear($year - 1);
    }

    /** @return list<int> days of the year from 0, those in [from, to) */
    private function workedOut(int $year, int $from = 0, int $to = 366): array
    {
        $rule = $this->rule;
        $length = Calendar::daysInYear($year);
        $newYear = Calendar::newYear($year);
        $weekday = Calendar::weekday($newYear);
        $byMonth = array_flip($rule->byMonth);
        $byMonthDay = array_flip($rule->byMonthDay);
        $byYearDay = array_flip($rule->byYearDay);
        $every = $which = [];
        foreach ($rule->byDay as [$day, $nth]) {
            if ($nth === 0) {
                $every[$day] = true;
            } else {
                $which["$day/$nth"] = true;
            }
        }
        $nthOfMonth = $rule->frequency === Frequency::Monthly || $rule->byMonth !== [];
        $days = [];
        $ofYear = 0;
        for ($month = 1; $month <= 12; $month++) {
            $inMonth = Calendar::daysInMonth($year, $month);
            if ($ofYear + $inMonth <= $from || $ofYear >= $to || ($byMonth !== [] && !isset($byMonth[$month]))) {
                $ofYear += $inMonth;
                continue;
            }
            for ($date = 1; $date <= $inMonth; $date++, $ofYear++) {
                if ($ofYear < $from || $ofYear >= $to || ($byMonthDay !== [] && !isset($byMonthDay[$date]) && !isset($byMonthDay[$date - $inMonth - 1]))) {
                    continue;
                }
                if ($byYearDay !== [] && !isset($byYearDay[$ofYear + 1]) && !isset($byYearDay[$ofYear - $length])) {
                    continue;
                }
                if ($rule->byDay !== []) {
                    $day = ($weekday + $ofYear) % 7;
                    $place = $nthOfMonth ? $date - 1 : $ofYear;
                    $of = $nthOfMonth ? $inMonth : $length;
                    if (!isset($every[$day]) && ($which === [] || (!isset($which[$day . '/' . (intdiv($place, 7) + 1)]) && !isset($which[$day . '/' . -(intdiv($of - 1 - $place, 7) + 1)])))) {
                        continue;
                    }
                }
                if ($rule->byWeekNo !== [] && !$this->inWeeks($newYear + $ofYear, $year)) {
                    continue;
                }
                $days[] = $ofYear;
            }
        }

        return $days;
    }

    /** Whether the day lies in one of the weeks of BYWEEKNO: week 1 is the first with at least four days in its year (ISO 8601). */
    private function inWeeks(int $day, int $year): bool
    {
        foreach ([$year + 1, $year, $year - 1] as $weekYear) {
            $begin = $this->weekOne($weekYear);
            if ($day < $begin) {
                continue;
            }
            $weeks = intdiv($this->weekOne($weekYear + 1) - $begin, 7);
            $number = intdiv($day - $begin, 7) + 1;

            return in_array($number, $this->rule->byWeekNo, true) || in_array($number - $weeks - 1, $this->rule->byWeekNo, true);
        }

        return false;
    }

    private function weekOne(int $year): int
    {
        $newYear = Calendar::newYear($year);
        $since = Integers::mod(Calendar::weekday($newYear) - $this->rule->weekStart, 7);

        return $since <= 3 ? $newYear - $since : $newYear + 7 - $since;
    }
}
