<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Units\WallClock;

/** How the bookings of a span stand in each other's way: how long each is due, how long it plays, and which play instead of it. */
final readonly class BookingConflicts
{
    /**
     * @param array<string, int> $dueS by booking id: how long it would play if it were alone, s
     * @param array<string, int> $playedS by booking id: how long it plays, s
     * @param array<string, array<string, array{seconds: int, first: int}>> $hidden by booking id, by the id of the one that plays instead: how long, and from when first (Unix s)
     */
    private function __construct(public array $dueS, public array $playedS, public array $hidden)
    {
    }

    /**
     * @param ?string $zone id of a zone of the standing layout; null for the whole display
     * @param int $from Unix s
     */
    public static function of(Schedule $schedule, WallClock $clock, int $from, int $to, ?string $zone = null): self
    {
        $ranked = $schedule->ranked($zone);
        $events = [];
        $occurrences = 0;
        foreach ($ranked as $place => $booking) {
            Budget::ofOccurrences($occurrences, '/bookings');
            foreach ($booking->occurrences($clock, $from, $to) as [$begins, $stops]) {
                $occurrences++;
                $events[max($from, $begins)][$place] = ($events[max($from, $begins)][$place] ?? 0) + 1;
                $events[min($to, $stops)][$place] = ($events[min($to, $stops)][$place] ?? 0) - 1;
            }
        }
        ksort($events);
        $ids = array_map(static fn (Booking $booking): string => $booking->id, $ranked);
        [$dueS, $playedS, $hidden] = [array_fill_keys($ids, 0), array_fill_keys($ids, 0), []];
        /** @var array<int, int> $due how many occurrences of each, by place */
        $due = [];
        $at = $from;
        foreach ($events as $moment => $changes) {
            if ($due !== [] && $moment > $at) {
                $first = min(array_keys($due));
                $playedS[$ids[$first]] += $moment - $at;
                foreach (array_keys($due) as $place) {
                    $dueS[$ids[$place]] += $moment - $at;
                    if ($place !== $first) {
                        $before = $hidden[$ids[$place]][$ids[$first]] ?? ['seconds' => 0, 'first' => $at];
                        $hidden[$ids[$place]][$ids[$first]] = ['seconds' => $before['seconds'] + $moment - $at, 'first' => $before['first']];
                    }
                }
            }
            $at = $moment;
            foreach ($changes as $place => $change) {
                $due[$place] = ($due[$place] ?? 0) + $change;
                if ($due[$place] === 0) {
                    unset($due[$place]);
                }
            }
        }

        return new self($dueS, $playedS, $hidden);
    }
}
