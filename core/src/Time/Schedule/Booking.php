<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Recurrence\Recurrence;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Time\When;
use UpperPane\Core\Time\WhenInTime;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** One entry of a schedule: what plays from when to when, how often, and before which others. Local times; the display's zone says where. */
final readonly class Booking
{
    /**
     * @param ?string $zone id of the zone of the standing layout; null for the whole display
     * @param list<LocalTime> $dates RDATE
     * @param list<LocalTime> $without EXDATE
     * @param list<int> $withoutDays whole days left out, by day number
     * @param ?LocalTime $from nothing of it is shown before
     * @param ?LocalTime $until nothing of it is shown from then on
     * @param int $createdMs Unix ms; within a rank the later one goes before
     * @param string $path JSON Pointer to where it stands in its schedule
     * @param ?When $when only while so many rows of data are chosen
     * @param ?WhenInTime $inTime the same as these rows come and go; null where they are not known: then nothing keeps it from being due
     */
    private function __construct(
        public string $id,
        public string $name,
        public Played $plays,
        public ?string $zone,
        public Rank $rank,
        public LocalTime $start,
        public LocalTime $end,
        public ?Rule $rule,
        public array $dates,
        public array $without,
        public array $withoutDays,
        public ?LocalTime $from,
        public ?LocalTime $until,
        public int $createdMs,
        public string $path,
        public ?When $when = null,
        private ?WhenInTime $inTime = null,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;
        $local = Field::pattern(LocalTime::PATTERN);


        return $fields ??= Fields::of([
            'id' => Field::id()->required(),
            'name' => Field::name(),
            'plays' => Played::field()->required(),
            'zone' => Field::id()->saying('of the standing layout; without it the whole display'),
            'rank' => Field::oneOf(...array_column(Rank::cases(), 'value'))->required(),
            'start' => $local->required(),
            'end' => $local->required(),
            'rrule' => Field::text(1, 16_384)->saying('RFC 5545'),
            'exdates' => Field::list(Field::text()),
            'rdates' => Field::list($local),
            'from' => $local->saying('nothing of it is shown before'),
            'until' => $local->saying('nothing of it is shown from then on'),
            'created' => Field::text(1, 40)->saying('instant, UTC; within a rank the later one goes before'),
            'when' => When::field(),
        ])->named('Booking');
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        $id = $node->field('id')->id();
        [$start, $end] = [LocalTime::fromNode($node->field('start')), LocalTime::fromNode($node->field('end'))];
        if ($end->seconds <= $start->seconds) {
            throw $node->field('end')->refused(Reason::ValueRange, sprintf('is %s, which is not after its start, %s; an end past midnight has the date of the next day.', $end, $start));
        }
        $from = ($field = $node->optional('from')) ? LocalTime::fromNode($field) : null;
        $until = ($field = $node->optional('until')) ? LocalTime::fromNode($field) : null;
        if ($from !== null && $until !== null && $until->seconds <= $from->seconds) {
            throw $node->field('until')->refused(Reason::ValueRange, sprintf('is %s, which is not after from, %s.', $until, $from));
        }
        $without = $node->optional('exdates');
        [$times, $days] = LocalTime::timesAndDays(self::texts($without), $without->path ?? '');

        return new self(
            $id,
            $node->optional('name')?->name() ?? $id,
            Played::fromNode($node->field('plays')),
            $node->optional('zone')?->id(),
            Rank::from($node->field('rank')->oneOf(...array_column(Rank::cases(), 'value'))),
            $start,
            $end,
            ($rule = $node->optional('rrule')) ? Rule::parse($rule->text(1, PHP_INT_MAX), $rule->path) : null,
            array_map(LocalTime::fromNode(...), $node->optional('rdates')?->items() ?? []),
            $times,
            $days,
            $from,
            $until,
            ($created = $node->optional('created')) ? Instant::parse($created->text(), $created->path)->ms : PHP_INT_MIN,
            $node->path,
            ($when = $node->optional('when')) ? When::fromNode($when) : null,
        );
    }

    /** The same with nothing left out. */
    public static function withoutExceptions(self $booking): self
    {
        return new self(
            $booking->id,
            $booking->name,
            $booking->plays,
            $booking->zone,
            $booking->rank,
            $booking->start,
            $booking->end,
            $booking->rule,
            $booking->dates,
            [],
            [],
            $booking->from,
            $booking->until,
            $booking->createdMs,
            $booking->path,
            $booking->when,
            $booking->inTime,
        );
    }

    /** The same under another id. */
    public function named(string $id): self
    {
        return new self(
            $id,
            $this->name,
            $this->plays,
            $this->zone,
            $this->rank,
            $this->start,
            $this->end,
            $this->rule,
            $this->dates,
            $this->without,
            $this->withoutDays,
            $this->from,
            $this->until,
            $this->createdMs,
            $this->path,
            $this->when,
            $this->inTime,
        );
    }

    /** The same with what its condition looks at. */
    public function inTime(WhenInTime $inTime): self
    {
        return new self(
            $this->id,
            $this->name,
            $this->plays,
            $this->zone,
            $this->rank,
            $this->start,
            $this->end,
            $this->rule,
            $this->dates,
            $this->without,
            $this->withoutDays,
            $this->from,
            $this->until,
            $this->createdMs,
            $this->path,
            $this->when,
            $inTime,
        );
    }

    /** Whether its condition is on rows of a source that is not there. */
    public function looksAtNothing(): bool
    {
        return $this->inTime !== null && $this->inTime->inTime === null;
    }

    /** The same with what the condition of another looks at, which says the same. */
    public function seenAs(self $other): self
    {
        return $other->inTime === null ? $this : $this->inTime($other->inTime);
    }

    /** How long it is on the clock on the wall, s. */
    public function lengthS(): int
    {
        return $this->end->seconds - $this->start->seconds;
    }

    /**
     * Its occurrences that lie in [from, to) in part or whole, in the order of their starts; they end at their local end,
     * so that 22:00 to 06:00 is nine hours on the long night. One that no time is left for is not among them.
     *
     * @param int $from Unix s
     * @throws DocumentRefused where there are too many to be looked at
     * @return list<array{int, int, int, int}> from and to, Unix s; the start that its loops count from, which lies before from where its
     *     beginning is cut; and the start as it is written, s on the local clock
     */
    public function occurrences(WallClock $clock, int $from, int $to): array
    {
        $length = $this->lengthS();
        $begin = $this->from === null ? PHP_INT_MIN : $clock->utcOrBefore($this->from->seconds);
        $end = $this->until === null ? PHP_INT_MAX : $clock->utcOrBefore($this->until->seconds);
        // No change of a clock makes an occurrence longer by a day.
        $written = $this->recurrence($clock)->written(max($from, $begin) - $length - 86_400, min($to, $end), Budget::SEGMENTS + 1);
        Budget::ofOccurrences(count($written), $this->rule === null ? $this->path : "$this->path/rrule");
        $locals = [];
        foreach ($written as $local) {
            $locals[] = $local + $length;
        }
        $ends = $clock->utcsOrBefore($locals);
        $occurrences = [];
        $index = 0;
        foreach ($written as $utc => $local) {
            $stops = $ends[$index++];
            if ($stops > $end) {
                $stops = $end;
            }
            $starts = $utc < $begin ? $begin : $utc;
            if ($stops > $from && $stops > $starts) {
                $occurrences[] = [$starts, $stops, $utc, $local];
            }
        }

        return $occurrences;
    }

    /**
     * When it is due in [from, to), Unix ms: its occurrences, as far as its condition holds. What lies beyond the span may be told as well.
     *
     * @return list<array{int, int, int}> from, to, and the start of the occurrence, that its loops count from
     * @throws DocumentRefused where there are too many to be looked at
     */
    public function due(WallClock $clock, int $fromMs, int $toMs): array
    {
        $due = [];
        foreach ($this->occurrences($clock, (int) floor($fromMs / 1000), (int) ceil($toMs / 1000)) as [$starts, $stops, $anchor]) {
            if ($this->inTime === null) {
                $due[] = [1000 * $starts, 1000 * $stops, 1000 * $anchor];
                continue;
            }
            foreach ($this->inTime->spans(max($fromMs, 1000 * $starts), min($toMs, 1000 * $stops)) as [$from, $to]) {
                $due[] = [$from, $to, 1000 * $anchor];
            }
            Budget::ofOccurrences(count($due), "$this->path/when");
        }

        return $due;
    }

    public function recurrence(WallClock $clock): Recurrence
    {
        return Recurrence::of($this->start, $this->rule, $clock, $this->dates, $this->without, $this->withoutDays);
    }

    /**
     * @return list<string>
     * @throws DocumentRefused
     */
    private static function texts(?Node $node): array
    {
        return array_map(static fn (Node $one): string => $one->text(), $node?->items() ?? []);
    }
}
