<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Units\WallClock;

/** What really plays in a span, without hole or overlap: the booking that goes before all others due, else the standby. */
final readonly class Plays
{
    /** @param list<Play> $pieces */
    private function __construct(public array $pieces)
    {
    }

    /**
     * Of two occurrences of one booking that overlap the later goes on; loops of the standby count from 1970-01-01T00:00:00Z.
     *
     * @param ?string $zone id of a zone of the standing layout; null for the whole display
     * @param int $fromMs Unix ms
     * @throws DocumentRefused where the span holds too many occurrences
     */
    public static function of(Schedule $schedule, WallClock $clock, int $fromMs, int $toMs, ?string $zone = null): self
    {
        $ranked = $schedule->ranked($zone);
        [$starts, $ends, $anchors, $bookings] = [[], [], [], []];
        foreach ($ranked as $place => $booking) {
            foreach ($booking->due($clock, $fromMs, $toMs) as [$begins, $stops, $anchor]) {
                $starts[] = $begins;
                $ends[] = $stops;
                $anchors[] = $anchor;
                $bookings[] = $place;
            }
            Budget::ofOccurrences(count($starts), '/bookings');
        }
        asort($starts);

        return self::swept($ranked, $schedule->standbyOf($zone), $fromMs, $toMs, $starts, $ends, $anchors, $bookings);
    }

    /**
     * Whether a booking plays at all in [from, to), Unix ms; the span that is looked at has to hold that.
     */
    public function hasTurn(string $booking, int $fromMs, int $toMs): bool
    {
        foreach ($this->pieces as $piece) {
            if ($piece->booking?->id === $booking && $piece->fromMs < $toMs && $piece->toMs > $fromMs) {
                return true;
            }
        }

        return false;
    }

    /**
     * What plays at one instant alone: bookings are asked in the order of their ranks, and the first that is due is it. Many times as
     * fast as a span, for estates of thousands of displays; from and to are those of the occurrence, which something else may cut.
     *
     * @param int $atMs Unix ms
     */
    public static function at(Schedule $schedule, WallClock $clock, int $atMs, ?string $zone = null): Play
    {
        foreach ($schedule->ranked($zone) as $booking) {
            $due = array_values(array_filter($booking->due($clock, $atMs, $atMs + 1), static fn (array $one): bool => $one[0] <= $atMs && $atMs < $one[1]));
            if ($due !== []) {
                [$begins, $stops, $anchor] = $due[count($due) - 1];

                return new Play($begins, $stops, $booking->plays, $booking, $anchor);
            }
        }

        return new Play($atMs, $atMs + 1, $schedule->standbyOf($zone), null, 0);
    }

    /**
     * @param \SplPriorityQueue<int, int> $due
     * @return int the occurrence that goes before all others, or -1
     */
    private static function top(\SplPriorityQueue $due): int
    {
        $top = $due->isEmpty() ? -1 : $due->top();

        return is_int($top) ? $top : -1;
    }

    /**
     * @param list<Booking> $ranked
     * @param array<int, int> $starts Unix ms, in rising order
     * @param list<int> $ends Unix ms
     * @param list<int> $anchors Unix ms
     * @param list<int> $bookings places in $ranked
     */
    private static function swept(array $ranked, ?Played $standby, int $fromMs, int $toMs, array $starts, array $ends, array $anchors, array $bookings): self
    {
        $order = array_keys($starts);
        /** @var \SplPriorityQueue<int, int> $due */
        $due = new \SplPriorityQueue();
        $pieces = [];
        $at = $fromMs;
        $next = 0;
        $last = null;
        while ($at < $toMs) {
            while ($next < count($order) && $starts[$order[$next]] <= $at) {
                $one = $order[$next++];
                // Rank and age first, then the later start.
                $due->insert($one, ((count($ranked) - $bookings[$one]) << 46) + $anchors[$one]);
            }
            for ($one = self::top($due); $one >= 0 && $ends[$one] <= $at; $one = self::top($due)) {
                $due->extract();
            }
            $until = min($toMs, $next < count($order) ? $starts[$order[$next]] : $toMs);
            if ($one >= 0) {
                $until = min($until, $ends[$one]);
            }
            if ($one === $last) {
                $pieces[count($pieces) - 1][1] = $until;
            } else {
                $pieces[] = [$at, $until, $one];
            }
            $last = $one;
            $at = $until;
        }
        Budget::ofSegments(count($pieces), '/to');
        $plays = [];
        foreach ($pieces as [$begin, $end, $one]) {
            $booking = $one >= 0 ? $ranked[$bookings[$one]] : null;
            $plays[] = new Play($begin, $end, $booking === null ? $standby : $booking->plays, $booking, $one >= 0 ? $anchors[$one] : 0);
        }

        return new self($plays);
    }
}
