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
        [$fromMs, $toMs] = [1000 * $from, 1000 * $to];
        $events = [];
        $occurrences = 0;
        foreach ($ranked as $place => $booking) {
            Budget::ofOccurrences($occurrences, '/bookings');
            foreach ($booking->due($clock, $fromMs, $toMs) as [$begins, $stops]) {
                $occurrences++;
                $events[max($fromMs, $begins)][$place] = ($events[max($fromMs, $begins)][$place] ?? 0) + 1;
                $events[min($toMs, $stops)][$place] = ($events[min($toMs, $stops)][$place] ?? 0) - 1;
            }
        }
        ksort($events);
        $ids = array_map(static fn (Booking $booking): string => $booking->id, $ranked);
        [$dueMs, $playedMs, $hiddenMs] = [array_fill_keys($ids, 0), array_fill_keys($ids, 0), []];
        /** @var array<int, int> $due how many occurrences of each, by place */
        $due = [];
        $at = $fromMs;
        foreach ($events as $moment => $changes) {
            if ($due !== [] && $moment > $at) {
                $first = min(array_keys($due));
                $playedMs[$ids[$first]] += $moment - $at;
                foreach (array_keys($due) as $place) {
                    $dueMs[$ids[$place]] += $moment - $at;
                    if ($place !== $first) {
                        $before = $hiddenMs[$ids[$place]][$ids[$first]] ?? ['ms' => 0, 'first' => intdiv($at, 1000)];
                        $hiddenMs[$ids[$place]][$ids[$first]] = ['ms' => $before['ms'] + $moment - $at, 'first' => $before['first']];
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

        $seconds = static fn (int $ms): int => (int) ceil($ms / 1000);
        $hidden = [];
        foreach ($hiddenMs as $id => $others) {
            foreach ($others as $other => ['ms' => $ms, 'first' => $first]) {
                $hidden[$id][$other] = ['seconds' => $seconds($ms), 'first' => $first];
            }
        }

        return new self(array_map($seconds, $dueMs), array_map($seconds, $playedMs), $hidden);
    }
}
