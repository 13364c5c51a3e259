<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Document\ActRefused;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\UniqueIds;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Time\When;
use UpperPane\Core\Time\WhenInTime;
use UpperPane\Core\Units\UtcOffsets;

/** When what plays on a display or place, and on the zones of its standing layout. */
final readonly class Schedule
{
    public const FORMAT = 'upper-pane/schedule@1';

    public const MOST_BOOKINGS = 5_000;

    /**
     * @param string $timezone where no display says another
     * @param ?Played $standby what plays where nothing is due
     * @param array<string, ?Played> $zones standby of each zone of the standing layout, by its id
     * @param list<Booking> $bookings
     * @param array<string, mixed> $given as it was read
     */
    private function __construct(
        public string $id,
        public string $name,
        public string $timezone,
        public ?Played $standby,
        public array $zones,
        public array $bookings,
        private array $given,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'format' => Field::constant(self::FORMAT)->required(),
            'id' => Field::id()->required(),
            'name' => Field::name()->required(),
            'timezone' => Field::text(1, 80)->required(),
            'standby' => Played::field()->saying('what plays where nothing is due'),
            'zones' => Field::map(Field::object(Fields::of(['standby' => Played::field()])))->saying('by id, of the standing layout'),
            'bookings' => Field::list(Field::object(Booking::fields()), self::MOST_BOOKINGS)->required(),
        ]);
    }

    /** @return array<string, mixed> the document as it was read */
    public function toArray(): array
    {
        return self::fields()->written($this->given);
    }

    /**
     * @param array<mixed> $document in the format `upper-pane/schedule@1`
     * @throws Refused
     */
    public static function fromArray(array $document): self
    {
        $node = Node::root($document);
        $node->format(self::FORMAT);
        $node->object(...self::fields()->names());
        /** @var array<string, mixed> $given an object has names */
        $given = is_array($node->value) ? $node->value : [];
        $zones = [];
        foreach ($node->optional('zones')?->members() ?? [] as $id => $zone) {
            $zones[$id] = ($standby = $zone->object('standby')->optional('standby')) ? Played::fromNode($standby) : null;
        }
        $ids = new UniqueIds();
        $bookings = [];
        foreach ($node->field('bookings')->items(self::MOST_BOOKINGS) as $booking) {
            $bookings[] = Booking::fromNode($booking);
            $ids->take($booking->field('id'));
        }

        return new self(
            $node->field('id')->id(),
            $node->field('name')->name(),
            UtcOffsets::name($node->field('timezone')),
            ($standby = $node->optional('standby')) ? Played::fromNode($standby) : null,
            $zones,
            $bookings,
            $given,
        );
    }

    /** With what plays where nothing is due and the schedule says nothing itself. */
    public function standingBy(Played $standby): self
    {
        return $this->standby !== null ? $this : new self($this->id, $this->name, $this->timezone, $standby, $this->zones, $this->bookings, $this->given);
    }

    /**
     * With what a cure says done to one of its own bookings.
     *
     * @throws Refused where it cannot be done here
     */
    public function cured(Fix $cure): self
    {
        $given = is_array($this->given['bookings'] ?? null) ? $this->given['bookings'] : [];
        foreach ($given as $place => $written) {
            if (!is_array($written) || $cure->booking === null || ($written['id'] ?? null) !== $cure->booking) {
                continue;
            }
            $given[$place] = array_filter(array_replace($written, $cure->set), static fn (mixed $value): bool => $value !== null);
            $changed = Booking::fromNode(Node::root($given[$place]));
            $bookings = array_map(static fn (Booking $booking): Booking => $booking->id === $changed->id ? $changed->seenAs($booking) : $booking, $this->bookings);

            return new self($this->id, $this->name, $this->timezone, $this->standby, $this->zones, $bookings, array_replace($this->given, ['bookings' => $given]));
        }
        throw ActRefused::because(Reason::RefUnknown, sprintf('"%s" is no booking of this schedule.', $cure->booking ?? ''), '/booking');
    }

    /**
     * With what the conditions of its bookings look at.
     *
     * @param \Closure(When, string): WhenInTime $inTime of a condition, and the JSON Pointer to it
     * @throws Refused what that refuses
     */
    public function inTime(\Closure $inTime): self
    {
        $bookings = array_map(static fn (Booking $one): Booking => $one->when === null ? $one : $one->inTime($inTime($one->when, "$one->path/when")), $this->bookings);

        return new self($this->id, $this->name, $this->timezone, $this->standby, $this->zones, $bookings, $this->given);
    }

    /** Whether what it plays depends on rows of data. */
    public function looksAtData(): bool
    {
        return array_filter($this->bookings, static fn (Booking $one): bool => $one->when !== null) !== [];
    }

    /** An id that no booking has: b1, b2 ... behind the count of those that it has. */
    private function freeId(): string
    {
        $taken = array_fill_keys(array_map(static fn (Booking $booking): string => $booking->id, $this->bookings), true);
        for ($n = count($this->bookings) + 1; isset($taken["b$n"]); $n++) {
        }

        return "b$n";
    }

    /**
     * With bookings behind those that it has, under ids of their own; without a name they are called by their number.
     *
     * @param list<array<string, mixed>> $bookings without ids
     * @return array{self, list<string>} and the ids that they have got
     * @throws DocumentRefused
     */
    public function booked(array $bookings): array
    {
        [$next, $ids] = [$this, []];
        foreach ($bookings as $booking) {
            $ids[] = $id = $next->freeId();
            $own = is_array($next->given['bookings'] ?? null) ? $next->given['bookings'] : [];
            $written = ['id' => $id, ...$booking] + ['name' => 'Booking ' . substr($id, 1)];
            $all = [...$next->bookings, Booking::fromNode(Node::root($written))];
            $next = new self($this->id, $this->name, $this->timezone, $this->standby, $this->zones, $all, array_replace($next->given, ['bookings' => [...array_values($own), $written]]));
        }

        return [self::fromArray($next->toArray()), $ids];
    }

    /**
     * What rules on a display: its own schedule and those of the places it hangs in, the nearest first. Their bookings stand together,
     * by rank and age; of standbys the nearest wins. Written, it is its own document still.
     *
     * @param self ...$others bookings of these are known as `schedule/booking`
     */
    public function together(self ...$others): self
    {
        [$standby, $zones, $bookings] = [$this->standby, array_filter($this->zones), $this->bookings];
        foreach ($others as $other) {
            $standby ??= $other->standby;
            $zones += array_filter($other->zones);
            foreach ($other->bookings as $booking) {
                $bookings[] = $booking->named("$other->id/$booking->id");
            }
        }

        return new self($this->id, $this->name, $this->timezone, $standby, $zones, $bookings, $this->given);
    }

    /**
     * The bookings of the whole display, or of one zone; the one that goes before all others first.
     *
     * @return list<Booking>
     */
    public function ranked(?string $zone = null): array
    {
        $ranked = [];
        foreach ($this->bookings as $index => $booking) {
            if ($booking->zone === $zone) {
                $ranked[] = [[-$booking->rank->weight(), -$booking->createdMs, -$index], $booking];
            }
        }
        usort($ranked, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return array_column($ranked, 1);
    }

    /** @return list<Played> what may come to play on the whole display, or in one zone: what is booked, the one that goes before all others first, and the standby */
    public function playedIn(?string $zone): array
    {
        $standby = $this->standbyOf($zone);

        return [...array_map(static fn (Booking $booking): Played => $booking->plays, $this->ranked($zone)), ...($standby === null ? [] : [$standby])];
    }

    /** @return list<string> zones for which it says anything: a standby or bookings */
    public function zonesNamed(): array
    {
        return array_map(strval(...), array_values(array_unique([...array_keys($this->zones), ...$this->zonesBooked()])));
    }

    /** @return list<string> zones that have bookings, in the order in which they are first named */
    public function zonesBooked(): array
    {
        return array_values(array_unique(array_filter(array_map(static fn (Booking $booking): ?string => $booking->zone, $this->bookings), is_string(...))));
    }

    public function standbyOf(?string $zone): ?Played
    {
        return $zone === null ? $this->standby : $this->zones[$zone] ?? null;
    }
}
