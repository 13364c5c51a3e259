<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Recurrence\Recurrence;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** One entry of the times of an overlay: from when to when, and how often (RFC 5545), on the clock of the display. */
final readonly class Occurring
{
    /**
     * @param list<LocalTime> $dates RDATE
     * @param list<LocalTime> $without EXDATE
     * @param list<int> $withoutDays whole days left out, by day number
     */
    private function __construct(
        private Moment $start,
        private Moment $end,
        public ?Rule $rule,
        private array $dates,
        private array $without,
        private array $withoutDays,
        private string $path,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'start' => Moment::field()->required(),
            'end' => Moment::field()->required(),
            'rrule' => Field::text(1, 16_384)->saying('RFC 5545'),
            'exdates' => Field::list(Field::text()),
            'rdates' => Field::list(Field::pattern(LocalTime::PATTERN)),
        ]);
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        [$start, $end] = [Moment::fromNode($node->field('start')), Moment::fromNode($node->field('end'))];
        if (!$end->isAfter($start)) {
            throw $node->field('end')->refused(Reason::ValueRange, sprintf('is %s, which is not after its start, %s; an end past midnight has the date of the next day.', $end, $start));
        }
        $without = $node->optional('exdates');
        [$times, $days] = LocalTime::timesAndDays(array_map(static fn (Node $one): string => $one->text(), $without?->items() ?? []), $without->path ?? '');

        return new self(
            $start,
            $end,
            ($rule = $node->optional('rrule')) ? Rule::parse($rule->text(1, PHP_INT_MAX), $rule->path) : null,
            array_map(LocalTime::fromNode(...), $node->optional('rdates')?->items() ?? []),
            $times,
            $days,
            $node->path,
        );
    }

    /** Whether it has a rule without an end. */
    public function isEndless(): bool
    {
        return $this->rule !== null && $this->rule->count === null && $this->rule->untilUtc === null && $this->rule->untilLocal === null;
    }

    /** From when it is in force at an instant or next behind it, Unix ms; PHP_INT_MAX where it never is. */
    public function nextMs(WallClock $clock, int $ms): int
    {
        $now = $this->spells($clock, $ms, $ms + 1);
        if ($now !== []) {
            return $ms;
        }
        $next = $this->recurrence($clock)->next((int) floor($ms / 1000));
        if ($next === null) {
            return PHP_INT_MAX;
        }
        $spells = $this->spells($clock, 1000 * $next - 1000, 1000 * $next + 1000);

        return ($spells[0] ?? null)->fromMs ?? 1000 * $next;
    }

    private function recurrence(WallClock $clock): Recurrence
    {
        return Recurrence::of($this->start->on($clock), $this->rule, $clock, $this->dates, $this->without, $this->withoutDays);
    }

    /**
     * Its occurrences that lie in [from, to) in part or whole, in the order of their starts.
     *
     * Between moments of the clock on the wall they end at their local end; between instants each is as long as the first.
     *
     * @throws DocumentRefused where there are too many to be looked at
     * @return list<Spell> whole, what lies beyond the span too
     */
    public function spells(WallClock $clock, int $fromMs, int $toMs): array
    {
        [$startMs, $endMs] = [$this->start->ms($clock), $this->end->ms($clock)];
        $start = $this->start->on($clock);
        $isOnTheWall = $this->start->local !== null || $this->end->local !== null;
        $length = $isOnTheWall ? $this->end->on($clock)->seconds - $start->seconds : (int) ceil(($endMs - $startMs) / 1000);
        // No change of a clock makes an occurrence longer by a day.
        $written = $this->recurrence($clock)->written((int) floor($fromMs / 1000) - $length - 86_400, (int) ceil(min($toMs, PHP_INT_MAX - 1000) / 1000), Budget::SEGMENTS + 1);
        Budget::ofOccurrences(count($written), $this->rule === null ? $this->path : "$this->path/rrule");
        $first = $clock->utcOrBefore($start->seconds);
        $spells = [];
        foreach ($written as $utc => $local) {
            $isFirst = $utc === $first;
            $from = $isFirst ? $startMs : 1000 * $utc;
            $to = match (true) {
                $isFirst => $endMs,
                $isOnTheWall => 1000 * $clock->utcOrBefore($local + $length),
                default => $from + $endMs - $startMs,
            };
            if ($to > $fromMs && $from < $toMs && $to > $from) {
                $spells[] = new Spell($from, $to, $from);
            }
        }

        return $spells;
    }
}
