<?php

declare(strict_types=1);

namespace UpperPane\Core\Panel;

use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Rank;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** The bookings of a schedule, with what keys of panels put there: one of rank takeover for each zone, and one for the whole display. All others stay as they are. */
final readonly class PanelBookings
{
    /** Of the whole display; that of a zone has its id behind it. */
    private const ID = 'panel';
    /** What was handed over before, where that was no schedule: it goes on around what is put on its zones. */
    private const UNDER = 'below-panel';
    /** Until it is ended: ten years. */
    private const ENDLESS_S = 3_650 * Calendar::DAY_S;

    /** @param list<array<string, mixed>> $bookings in the format of a schedule */
    private function __construct(public array $bookings)
    {
    }

    /**
     * @param array<string, mixed> $schedule its document; empty where there is none yet
     * @throws Refused
     */
    public static function in(array $schedule): self
    {
        $bookings = Node::root($schedule)->optional('bookings')?->items() ?? [];

        return new self(array_map(static fn (Node $one): array => $one->fields(), $bookings));
    }

    /**
     * Put there from now on, in the place of what a panel has put there before.
     *
     * @param ?string $zone null for the whole display
     * @param WallClock $clock of the display
     * @param ?int $forMin null until it is ended; else that much later, also where the clocks are changed meanwhile
     * @param int $createdMs Unix ms
     */
    public function with(string $name, Played $plays, ?string $zone, WallClock $clock, ?int $forMin, int $createdMs): self
    {
        $now = self::at($clock, $createdMs);
        $end = $forMin === null ? LocalTime::ofSeconds($now->seconds + self::ENDLESS_S) : self::at($clock, $createdMs + 60_000 * $forMin);
        $booking = ['id' => self::id($zone), 'name' => $name, 'plays' => $plays->toArray()] + ($zone === null ? [] : ['zone' => $zone])
            + self::span($now, $end) + ['created' => (string) Instant::ofMs($createdMs)];

        return new self([...$this->others(self::id($zone)), $booking]);
    }

    /** Without what was put on a zone; null where nothing was. */
    public function without(?string $zone): ?self
    {
        $others = $this->others(self::id($zone));

        return count($others) === count($this->bookings) ? null : new self($others);
    }

    /**
     * Above what was handed over, where that is no schedule.
     *
     * @param ?array{Played, string} $played what that is, and its name; null where it is a schedule, or stands below already
     */
    public function under(?array $played, LocalTime $now): self
    {
        if ($played === null) {
            return $this;
        }
        $booking = ['id' => self::UNDER, 'name' => $played[1], 'plays' => $played[0]->toArray()] + self::span($now, LocalTime::ofSeconds($now->seconds + self::ENDLESS_S))
            + ['created' => (string) Instant::ofMs(0)];

        return new self([...$this->others(self::UNDER), $booking]);
    }

    /** @return ?array{Played, string} what stands below, and its name: that is handed over again when nothing of a panel is left */
    public function before(): ?array
    {
        foreach ($this->bookings as $booking) {
            if ($booking['id'] === self::UNDER) {
                return [Played::fromNode(Node::root($booking['plays'])), is_string($booking['name'] ?? null) ? $booking['name'] : self::UNDER];
            }
        }

        return null;
    }

    /** Without what is over by now, and without what stands below nothing any more. */
    public function tidied(LocalTime $now): self
    {
        $left = array_values(array_filter($this->bookings, static fn (array $one): bool => !self::isOfPanel($one) || self::time($one, 'end')->seconds > $now->seconds));
        $isNeeded = array_filter($left, self::isOfPanel(...)) !== [];

        return new self($isNeeded ? $left : array_values(array_filter($left, static fn (array $one): bool => $one['id'] !== self::UNDER)));
    }

    public function isEmpty(): bool
    {
        return array_filter($this->bookings, self::isOfPanel(...)) === [];
    }

    /** @return list<array{zone: ?string, name: string, plays: array<string, string>, since: string, until: ?string}> what stands at an instant; until null: until it is ended */
    public function stand(LocalTime $now, WallClock $clock): array
    {
        $stand = [];
        foreach ($this->bookings as $booking) {
            if (!self::isOfPanel($booking)) {
                continue;
            }
            [$start, $end] = [self::time($booking, 'start'), self::time($booking, 'end')];
            if ($start->seconds <= $now->seconds && $now->seconds < $end->seconds) {
                $instant = static fn (LocalTime $time): string => (string) Instant::ofMs(1000 * $clock->utcOrBefore($time->seconds));
                $stand[] = [
                    'zone' => is_string($booking['zone'] ?? null) ? $booking['zone'] : null,
                    'name' => is_string($booking['name'] ?? null) ? $booking['name'] : self::ID,
                    'plays' => Played::fromNode(Node::root($booking['plays']))->toArray(),
                    'since' => $instant($start),
                    'until' => $end->seconds - $start->seconds >= self::ENDLESS_S ? null : $instant($end),
                ];
            }
        }

        return $stand;
    }

    /** @return array{rank: string, start: string, end: string} */
    private static function span(LocalTime $start, LocalTime $end): array
    {
        return ['rank' => Rank::Takeover->value, 'start' => (string) $start, 'end' => (string) $end];
    }

    private static function at(WallClock $clock, int $ms): LocalTime
    {
        return LocalTime::ofSeconds($clock->local(intdiv($ms, 1000)));
    }

    private static function id(?string $zone): string
    {
        return self::ID . ($zone === null ? '' : "-$zone");
    }

    /** @param array<string, mixed> $booking */
    private static function isOfPanel(array $booking): bool
    {
        return $booking['id'] === self::id(is_string($booking['zone'] ?? null) ? $booking['zone'] : null);
    }

    /** @param array<string, mixed> $booking */
    private static function time(array $booking, string $edge): LocalTime
    {
        return LocalTime::fromNode(Node::root($booking)->field($edge));
    }

    /** @return list<array<string, mixed>> */
    private function others(string $id): array
    {
        return array_values(array_filter($this->bookings, static fn (array $one): bool => $one['id'] !== $id));
    }
}
