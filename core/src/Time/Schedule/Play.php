<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Units\Instant;

/** What really plays in [from, to), Unix ms: a booking, or the standby where $booking is null, or nothing at all. */
final readonly class Play
{
    /**
     * @param int $anchorMs the start that loops count from: of its occurrence, or of the standby; Unix ms
     * @param bool $isEndless whether it plays for ever, by no schedule
     */
    public function __construct(public int $fromMs, public int $toMs, public ?Played $plays, public ?Booking $booking, public int $anchorMs, public bool $isEndless = false)
    {
    }

    /** One thing for ever. */
    public static function endless(Played $plays, int $anchorMs): self
    {
        return new self(PHP_INT_MIN, PHP_INT_MAX, $plays, null, $anchorMs, true);
    }

    /** The part of it that lies in [from, to). */
    public function within(int $fromMs, int $toMs): self
    {
        return new self(max($this->fromMs, $fromMs), min($this->toMs, $toMs), $this->plays, $this->booking, $this->anchorMs, $this->isEndless);
    }

    /** Why it is this that plays, in words. */
    public function why(): string
    {
        return match (true) {
            $this->isEndless => 'it plays without end',
            $this->booking !== null => sprintf('%s booking "%s"', $this->booking->rank->value, $this->booking->name),
            $this->plays !== null => 'standby: no booking is due',
            default => 'no booking is due, and there is no standby',
        };
    }

    /** @return array{from: string, to: string, plays: ?array<string, string>, booking: ?string, why: string} */
    public function toArray(): array
    {
        return [
            'from' => (string) Instant::ofMs($this->fromMs),
            'to' => (string) Instant::ofMs($this->toMs),
            'plays' => $this->plays?->toArray(),
            'booking' => $this->booking?->id,
            'why' => $this->why(),
        ];
    }
}
