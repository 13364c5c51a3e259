<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Time\Schedule\Booking;
use UpperPane\Core\Time\Schedule\BookingConflicts;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** When a layout, a playlist or a media is next seen where it plays; or why it never is. */
final readonly class FirstShown
{
    /** So far ahead it is looked for; a yearly booking is found. */
    public const AHEAD_MS = 366 * 86_400_000;

    /** Most is seen within two weeks; only what is not is looked for over the year. */
    public const SPANS_MS = [14 * 86_400_000, self::AHEAD_MS];

    /**
     * @param ?int $atMs Unix ms; null for never
     * @param ?string $never `off`, `hidden`, `expired`, `hours`, `outranked`, `unreached` or `unbooked`
     */
    public function __construct(public ?int $atMs, public ?string $never, public string $why)
    {
    }

    /** @return array{at: ?string, never: ?string, why: string} */
    public function toArray(): array
    {
        return ['at' => $this->atMs === null ? null : (string) Instant::ofMs($this->atMs), 'never' => $this->never, 'why' => $this->why];
    }

    /** What plays as a whole is seen at once. */
    public static function now(int $nowMs): self
    {
        return new self($nowMs, null, 'it plays');
    }

    /**
     * On a display: on whichever track it comes first.
     *
     * @param int $nowMs Unix ms
     * @return ?self null where nothing that it plays has it
     */
    public static function of(Programme $programme, SearchTarget $target, int $nowMs): ?self
    {
        $best = null;
        foreach ($programme->tracks() as $track) {
            $best = self::better($best, $track->firstShown($target, $nowMs));
        }

        return $best;
    }

    /**
     * A booking alone: when it has its next turn, by the schedule in which it stands.
     *
     * @param int $nowMs Unix ms
     */
    public static function ofBooking(Schedule $schedule, WallClock $clock, Booking $booking, int $nowMs): self
    {
        foreach (self::SPANS_MS as $ahead) {
            foreach (Plays::of($schedule, $clock, $nowMs, $nowMs + $ahead, $booking->zone)->pieces as $play) {
                if ($play->booking?->id === $booking->id) {
                    return new self($play->fromMs, null, $play->why());
                }
            }
        }

        return self::turnless($schedule, $clock, $booking, $nowMs) ?? new self(null, 'expired', sprintf('booking "%s" has no occurrence within a year', $booking->name));
    }

    /** Why a booking has no turn in all the time that is looked at; null where it has one. */
    public static function turnless(Schedule $schedule, WallClock $clock, Booking $booking, int $nowMs): ?self
    {
        $to = intdiv($nowMs + self::AHEAD_MS, 1000);
        $conflicts = BookingConflicts::of($schedule, $clock, intdiv($nowMs, 1000), $to, $booking->zone);
        if ($conflicts->playedS[$booking->id] > 0) {
            return null;
        }
        if ($conflicts->dueS[$booking->id] > 0) {
            $names = array_column($schedule->bookings, 'name', 'id');
            $others = array_map(static fn (string $id): string => sprintf('"%s"', $names[$id]), array_keys($conflicts->hidden[$booking->id] ?? []));

            return new self(
                null,
                'outranked',
                sprintf('booking "%s" never gets its turn: %s %s before it', $booking->name, implode(' and ', $others), count($others) === 1 ? 'goes' : 'go'),
            );
        }
        $last = $booking->until ?? ($booking->rule === null ? $booking->end : null);

        return new self(null, 'expired', $last === null || $clock->utcOrBefore($last->seconds) > $to
            ? sprintf('booking "%s" has no occurrence within a year', $booking->name)
            : sprintf('booking "%s" is over since %s', $booking->name, self::said($last)));
    }

    /** The earlier of two; of two reasons the first. */
    public static function better(?self $one, ?self $other): ?self
    {
        return match (true) {
            $one === null => $other,
            $other === null => $one,
            $one->atMs === null => $other->atMs === null ? $one : $other,
            default => $other->atMs !== null && $other->atMs < $one->atMs ? $other : $one,
        };
    }

    /** A time as it is told. */
    public static function said(LocalTime $time): string
    {
        return strtr(substr((string) $time, 0, 16), 'T', ' ');
    }
}
