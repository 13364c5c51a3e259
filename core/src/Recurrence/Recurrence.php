<?php

declare(strict_types=1);

namespace UpperPane\Core\Recurrence;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Integers;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/**
 * When something begins: DTSTART, RRULE, RDATE and EXDATE of RFC 5545, run on the clock on the wall as written.
 *
 * What falls into an hour that does not exist is dropped and not counted (3.3.10); a DTSTART or RDATE there is read with the
 * offset before it, while its rule keeps the written time (3.3.5); of a time that exists twice the first is meant.
 * Nothing goes through the years since the start: a span is answered from the span.
 */
final readonly class Recurrence
{
    /** More than any zone has been ahead of or behind UTC, and than any clock has been put on. */
    private const MARGIN_S = 2 * Calendar::DAY_S;

    /** How many are worked out at a time: few enough to stop soon, enough to be fast. */
    private const AT_ONCE = 400;

    /**
     * @param list<LocalTime> $dates RDATE
     * @param array<int, true> $without EXDATE, s on the local clock
     * @param array<int, true> $withoutDays whole days left out, by day number
     */
    private function __construct(
        private LocalTime $start,
        private ?Rule $rule,
        private WallClock $clock,
        private array $dates,
        private array $without,
        private array $withoutDays,
    ) {
    }

    /**
     * @param ?Rule $rule null for what happens at its start and its dates only
     * @param list<LocalTime> $dates RDATE
     * @param list<LocalTime> $without EXDATE
     * @param list<int> $withoutDays whole days left out, as day numbers (Calendar)
     */
    public static function of(LocalTime $start, ?Rule $rule, WallClock $clock, array $dates = [], array $without = [], array $withoutDays = []): self
    {
        return new self(
            $start,
            $rule,
            $clock,
            $dates,
            array_fill_keys(array_map(static fn (LocalTime $time): int => $time->seconds, $without), true),
            array_fill_keys($withoutDays, true),
        );
    }

    /**
     * The instants in [from, to), rising.
     *
     * @param int $from Unix s
     * @param int $most after this many the list ends
     * @return list<int> Unix s
     */
    public function between(int $from, int $to, int $most = PHP_INT_MAX): array
    {
        return array_slice(array_keys($this->written($from, $to, $most)), 0, $most);
    }

    /**
     * The same, each with the time that is written for it, which differs from what the clock shows where that time does not exist.
     *
     * @return array<int, int> s on the local clock by Unix s, rising
     */
    public function written(int $from, int $to, int $most = PHP_INT_MAX): array
    {
        $written = $this->ofRule($from, $to, $most);
        $single = $this->rule === null ? [$this->start, ...$this->dates] : $this->dates;
        $dated = false;
        foreach ($single as $date) {
            $utc = $this->clock->utcOrBefore($date->seconds);
            if ($utc >= $from && $utc < $to && !$this->isLeftOut($date->seconds)) {
                $written[$utc] = $date->seconds;
                $dated = true;
            }
        }
        if ($dated) {
            ksort($written);
        }

        return $written;
    }

    /** The first instant at or after $from (Unix s), or null where there is none in 450 years: the calendar repeats itself after 400. */
    public function next(int $from): ?int
    {
        // Twice as far each time: most rules answer in the first step.
        for ($span = Calendar::DAY_S, $end = $from + 450 * 366 * Calendar::DAY_S; $from < $end; $from += $span, $span *= 2) {
            $found = $this->between($from, min($end, $from + $span), 1);
            if ($found !== []) {
                return $found[0];
            }
        }

        return null;
    }

    /**
     * What the rule gives in [from, to) and the clock leaves out.
     *
     * @param int $from Unix s
     * @return list<LocalTime> as written
     */
    public function skipped(int $from, int $to): array
    {
        if ($this->rule === null) {
            return [];
        }
        $skipped = [];
        foreach ($this->clock->gaps(max($this->start->seconds + 1, $this->clock->local($from)), $this->clock->local($to)) as [$begin, $end]) {
            $last = $this->clock->utcOrBefore($begin);
            if ($this->rule->untilUtc !== null ? $last > $this->rule->untilUtc : $begin > ($this->rule->untilLocal ?? PHP_INT_MAX)) {
                break;
            }
            if ($this->rule->count !== null && $this->before($begin, new RuleDays($this->rule, $this->start->day()), new RuleTimes($this->rule, $this->start->seconds)) >= $this->rule->count) {
                break;
            }
            foreach ($this->locals($begin, $end, new RuleDays($this->rule, $this->start->day()), new RuleTimes($this->rule, $this->start->seconds)) as $local) {
                if (!$this->isLeftOut($local)) {
                    $skipped[] = LocalTime::ofSeconds($local);
                }
            }
        }

        return $skipped;
    }

    /** @return array<int, int> s on the local clock by Unix s */
    private function ofRule(int $from, int $to, int $most): array
    {
        $rule = $this->rule;
        if ($rule === null || $from >= $to || ($rule->untilUtc !== null && $rule->untilUtc < $from)) {
            return [];
        }
        $days = new RuleDays($rule, $this->start->day());
        $times = new RuleTimes($rule, $this->start->seconds);
        $begin = max($this->start->seconds, $from - self::MARGIN_S);
        $end = min($to + self::MARGIN_S, ($rule->untilLocal ?? PHP_INT_MAX - 1) + 1);
        $counted = $rule->count === null ? 0 : $this->before($begin, $days, $times);
        $last = min($to, ($rule->untilUtc ?? PHP_INT_MAX - 1) + 1);
        $plain = $rule->count === null && $this->without === [] && $this->withoutDays === [];
        $instants = [];
        foreach ($this->chunks($begin, $end, $days, $times) as $locals) {
            $utcs = $this->clock->utcs($locals);
            if (count($utcs) !== count($locals)) {
                // Around a change some are left out: which, is found one by one.
                $kept = [];
                foreach ($locals as $local) {
                    $utc = $local === $this->start->seconds ? $this->clock->utcOrBefore($local) : $this->clock->utc($local);
                    if ($utc !== null) {
                        $kept[$utc] = $local;
                    }
                }
            } else {
                $kept = array_combine($utcs, $locals);
                if ($plain && $utcs !== [] && $utcs[0] >= $from && $utcs[count($utcs) - 1] < $last && count($instants) + count($utcs) <= $most) {
                    $instants += $kept;
                    continue;
                }
            }
            foreach ($kept as $utc => $local) {
                if ($rule->count !== null && $counted++ >= $rule->count) {
                    return $instants;
                }
                if ($utc >= $last) {
                    return $instants;
                }
                if ($utc < $from || (($this->without !== [] || $this->withoutDays !== []) && $this->isLeftOut($local))) {
                    continue;
                }
                $instants[$utc] = $local;
                if (count($instants) >= $most) {
                    return $instants;
                }
            }
        }

        return $instants;
    }

    /** How many instants the rule gives before a time on the local clock: days by whole years, and without what the clock left out. */
    private function before(int $local, RuleDays $days, RuleTimes $times): int
    {
        $start = $this->start->seconds;
        if ($this->rule === null || $local <= $start) {
            return 0;
        }
        $startDay = $this->start->day();
        $lastDay = intdiv($local - Integers::mod($local, Calendar::DAY_S), Calendar::DAY_S);
        if ($this->rule->bySetPos !== [] && !$times->isChosen()) {
            $count = 0;
            foreach ($this->chunks($start, $local, $days, $times) as $locals) {
                $count += count($locals);
            }
        } else {
            $count = count($this->locals($start, min($local, ($startDay + 1) * Calendar::DAY_S), $days, $times));
            if ($lastDay > $startDay) {
                $count += count($this->locals($lastDay * Calendar::DAY_S, $local, $days, $times));
                $count += $times->isDaily() ? $days->count($startDay + 1, $lastDay) * count($times->on($startDay)) : $this->wholeDays($startDay + 1, $lastDay, $days, $times);
            }
        }
        foreach ($this->clock->gaps($start, $local) as [$begin, $end]) {
            foreach ($this->locals($begin, $end, $days, $times) as $dropped) {
                $count -= $dropped === $start ? 0 : 1;
            }
        }

        return $count;
    }

    /** How many there are on the days in [from, to), where no two days need have as many. */
    private function wholeDays(int $from, int $to, RuleDays $days, RuleTimes $times): int
    {
        $count = 0;
        foreach ($days->days($from, $to) as $day) {
            $count += count($times->on($day));
        }

        return $count;
    }

    /**
     * What the rule gives in [from, to) on the local clock, from its start on; neither COUNT nor UNTIL nor what does not exist is looked at.
     *
     * @return list<int> rising
     */
    private function locals(int $from, int $to, RuleDays $days, RuleTimes $times): array
    {
        return array_merge(...iterator_to_array($this->chunks($from, $to, $days, $times), false));
    }

    /**
     * The same, some at a time.
     *
     * @return \Generator<int, list<int>>
     */
    private function chunks(int $from, int $to, RuleDays $days, RuleTimes $times): \Generator
    {
        $from = max($from, $this->start->seconds);
        if ($this->rule === null || $from >= $to) {
            return;
        }
        $fromDay = LocalTime::ofSeconds($from)->day();
        $toDay = LocalTime::ofSeconds($to - 1)->day() + 1;
        if ($this->rule->bySetPos !== [] && !$times->isChosen()) {
            foreach ($days->rounds($fromDay, $toDay) as $round) {
                Budget::ofRound(count($round) * count($times->on($round[0])), $this->rule->path);
                $all = [];
                foreach ($round as $day) {
                    foreach ($times->on($day) as $second) {
                        $all[] = $day * Calendar::DAY_S + $second;
                    }
                }
                yield array_values(array_filter(RuleTimes::chosen($all, $this->rule->bySetPos), static fn (int $local): bool => $local >= $from && $local < $to));
            }

            return;
        }
        $locals = [];
        foreach ($days->days($fromDay, $toDay) as $day) {
            $base = $day * Calendar::DAY_S;
            $inside = $base >= $from && $base + Calendar::DAY_S <= $to;
            foreach ($times->on($day) as $second) {
                if ($inside || ($base + $second >= $from && $base + $second < $to)) {
                    $locals[] = $base + $second;
                }
            }
            if (count($locals) >= self::AT_ONCE) {
                yield $locals;
                $locals = [];
            }
        }
        if ($locals !== []) {
            yield $locals;
        }
    }

    private function isLeftOut(int $local): bool
    {
        return isset($this->without[$local]) || isset($this->withoutDays[LocalTime::ofSeconds($local)->day()]);
    }
}
