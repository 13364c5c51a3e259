<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** When a place is open, on the clock on its wall: windows of the day, each on some days of the week. */
final readonly class OpeningHours
{
    private const MOST = 28;

    /** Nothing that closes at all does so later than this after it is asked for; windows are of the week. */
    private const WEEK_DAYS = 8;

    /**
     * @param list<array{days: list<int>, from: int, to: int}> $windows weekdays, 0 Monday (none for all), and s since midnight; one past midnight belongs to the day
     *        on which it begins
     */
    private function __construct(private array $windows)
    {
    }

    public static function field(): Field
    {
        return Field::list(Field::object(self::fields()), self::MOST)->saying('when a place is open; a window past midnight belongs to the day on which it begins');
    }

    private static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'days' => Field::list(Field::oneOf(...Rule::DAYS), 7)->saying('left out: every day'),
            'hours' => Validity::windowField()->required(),
        ])->named('Open');
    }

    /**
     * @param Node $node list of `{"days": ["SA", "SU"], "hours": ["09:00", "18:00"]}`
     * @throws DocumentRefused
     */
    public static function fromNode(Node $node): self
    {
        $windows = [];
        foreach ($node->items(self::MOST) as $window) {
            $window->object(...self::fields()->names());
            $days = array_map(static fn (Node $day): int => (int) array_search($day->oneOf(...Rule::DAYS), Rule::DAYS, true), $window->optional('days')?->items(7) ?? []);
            [$from, $to] = Validity::window($window->field('hours'));
            $windows[] = ['days' => array_values(array_unique($days)), 'from' => $from, 'to' => $to];
        }

        return new self($windows);
    }

    /** @return list<array{days?: list<string>, hours: array{string, string}}> as it is written */
    public function toArray(): array
    {
        $time = static fn (int $ofDay): string => sprintf('%02d:%02d', intdiv($ofDay, 3600), intdiv($ofDay % 3600, 60));

        return array_map(static fn (array $window): array => ($window['days'] === [] ? [] : ['days' => array_map(static fn (int $day): string => Rule::DAYS[$day], $window['days'])])
            + ['hours' => [$time($window['from']), $time($window['to'])]], $this->windows);
    }

    /**
     * When it closes next: at the end of the windows in which it is open, or of those that come next.
     *
     * @param int $ms Unix ms
     * @return ?int the first instant after it at which nobody is in, Unix ms; null where it never opens, or never closes
     */
    public function closesAfter(WallClock $clock, int $ms): ?int
    {
        $today = LocalTime::ofSeconds($clock->local(intdiv($ms, 1000)))->day();
        $spans = [];
        for ($day = $today - 1; $day <= $today + 2 * self::WEEK_DAYS; $day++) {
            foreach ($this->windows as ['days' => $days, 'from' => $from, 'to' => $to]) {
                if ($days === [] || in_array(Calendar::weekday($day), $days, true)) {
                    $spans[] = [$clock->utcOrBefore($day * Calendar::DAY_S + $from), $clock->utcOrBefore(($day + ($to > $from ? 0 : 1)) * Calendar::DAY_S + $to)];
                }
            }
        }
        sort($spans);
        $closes = null;
        foreach ($spans as [$from, $to]) {
            if (1000 * $to <= $ms) {
                continue;
            }
            if ($closes !== null && $from > $closes) {
                break;
            }
            $closes = max($closes ?? $to, $to);
        }

        return $closes === null || $closes > intdiv($ms, 1000) + self::WEEK_DAYS * Calendar::DAY_S ? null : 1000 * $closes;
    }
}
