<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** When an item may play: from and until, on days of the week, in hours of the day, on the clock on the wall of its display. */
final readonly class Validity
{
    /**
     * @param ?LocalTime $from first moment
     * @param ?LocalTime $until first moment after it
     * @param list<int> $days weekdays, 0 Monday; none for all
     * @param list<array{int, int}> $hours from and to, s since midnight; a window past midnight belongs to the day on which it begins; none for all
     */
    private function __construct(public ?LocalTime $from, public ?LocalTime $until, public array $days, public array $hours)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;
        $local = Field::pattern(LocalTime::PATTERN)->saying('local time of the display');


        return $fields ??= Fields::of([
            'from' => $local,
            'until' => $local,
            'days' => Field::list(Field::oneOf(...Rule::DAYS), 7),
            'hours' => Field::list(self::windowField(), 24)->saying('a window past midnight belongs to the day on which it begins'),
        ])->named('Validity');
    }

    /** Hours of the day: from and to. */
    public static function windowField(): Field
    {
        return Field::list(Field::pattern('^([01]\\d|2[0-3]):[0-5]\\d$|^24:00$'), 2, 2);
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        $from = ($field = $node->optional('from')) ? LocalTime::fromNode($field) : null;
        $until = ($field = $node->optional('until')) ? LocalTime::fromNode($field) : null;
        if ($from !== null && $until !== null && $until->seconds <= $from->seconds) {
            throw $node->field('until')->refused(Reason::ValueRange, sprintf('is %s, which is not after from, %s.', $until, $from));
        }
        $days = [];
        foreach ($node->optional('days')?->items(7) ?? [] as $day) {
            $days[] = (int) array_search($day->oneOf(...Rule::DAYS), Rule::DAYS, true);
        }
        $hours = [];
        foreach ($node->optional('hours')?->items(24) ?? [] as $window) {
            $hours[] = self::window($window);
        }

        return new self($from, $until, array_values(array_unique($days)), $hours);
    }

    /** @param int $utc Unix s */
    public function isDue(WallClock $clock, int $utc): bool
    {
        if (($this->from !== null && $utc < $clock->utcOrBefore($this->from->seconds)) || ($this->until !== null && $utc >= $clock->utcOrBefore($this->until->seconds))) {
            return false;
        }
        $local = LocalTime::ofSeconds($clock->local($utc));
        $today = $this->isOn($local->day());
        if ($this->hours === []) {
            return $today;
        }
        $time = $local->ofDay();
        foreach ($this->hours as [$begin, $end]) {
            if ($begin < $end ? $today && $time >= $begin && $time < $end : ($today && $time >= $begin) || ($time < $end && $this->isOn($local->day() - 1))) {
                return true;
            }
        }

        return false;
    }

    /**
     * Whether it may play at any instant of [from, to).
     *
     * @param int $from Unix s
     */
    public function isDueWithin(WallClock $clock, int $from, int $to): bool
    {
        if (($this->from !== null && $to <= $clock->utcOrBefore($this->from->seconds)) || ($this->until !== null && $from >= $clock->utcOrBefore($this->until->seconds))) {
            return false;
        }
        if ($this->isDue($clock, $from)) {
            return true;
        }
        foreach ($this->edges($clock, $from, $to) as $edge) {
            if ($this->isDue($clock, $edge)) {
                return true;
            }
        }

        return false;
    }

    /**
     * Instants in [from, to) at which it may begin or end; not at all of them it does.
     *
     * @param int $from Unix s
     * @return list<int> Unix s
     */
    public function edges(WallClock $clock, int $from, int $to): array
    {
        $locals = array_map(static fn (LocalTime $time): int => $time->seconds, array_filter([$this->from, $this->until]));
        $edges = array_map($clock->utcOrBefore(...), $locals);
        if ($this->days !== [] || $this->hours !== []) {
            array_push($edges, ...$clock->changes($from, $to));
            $times = array_unique([...($this->days === [] ? [] : [0]), ...array_merge(...array_map(static fn (array $window): array => [$window[0], $window[1]], $this->hours))]);
            $last = LocalTime::ofSeconds($clock->local($to))->day();
            for ($day = LocalTime::ofSeconds($clock->local($from))->day() - 1; $day <= $last; $day++) {
                foreach ($times as $time) {
                    array_push($edges, ...$clock->readings($day * Calendar::DAY_S + $time));
                }
            }
        }

        return array_values(array_filter($edges, static fn (int $edge): bool => $edge >= $from && $edge < $to));
    }

    private function isOn(int $day): bool
    {
        return $this->days === [] || in_array(Calendar::weekday($day), $this->days, true);
    }

    /**
     * Hours of the day, `["17:00", "19:00"]`.
     *
     * @return array{int, int} from and to, s since midnight
     * @throws DocumentRefused
     */
    public static function window(Node $window): array
    {
        $pair = $window->items(2);
        if (count($pair) !== 2) {
            throw $window->refused(Reason::ValueRange, 'has one time; a window has two, from and to.');
        }
        [$begin, $end] = [self::time($pair[0]), self::time($pair[1])];

        return $begin === $end ? throw $window->refused(Reason::ValueRange, 'begins when it ends; 00:00 to 24:00 is a whole day.') : [$begin, $end];
    }

    /** @return int s since midnight */
    private static function time(Node $node): int
    {
        $text = $node->text(1, 8);
        if (preg_match('/^(\d\d):(\d\d)$/D', $text, $m) !== 1 || (int) $m[1] * 60 + (int) $m[2] > 1440 || (int) $m[2] > 59) {
            throw $node->refused(Reason::ValueRange, sprintf('is "%s"; a time from 00:00 to 24:00 such as 17:30 is right.', $text));
        }

        return (int) $m[1] * 3600 + (int) $m[2] * 60;
    }
}
