<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** All bookings of a schedule in a span: when each is due, whether it then has its turn, and which other of its rank plays instead. */
final readonly class BookingsTold
{
    /**
     * @param non-empty-array<string, Plays> $plays what plays on the whole display (''), and in each zone that has bookings
     * @param int $fromMs Unix ms
     * @return list<array<string, mixed>>
     */
    public static function of(Schedule $schedule, array $plays, WallClock $clock, int $fromMs, int $toMs): array
    {
        $due = [];
        foreach ($schedule->bookings as $place => $booking) {
            $due[$place] = $booking->occurrences($clock, intdiv($fromMs, 1000), intdiv($toMs + 999, 1000));
        }
        $clashes = self::clashes($schedule, $due);
        $told = [];
        foreach ($schedule->bookings as $place => $booking) {
            $occurrences = [];
            foreach ($due[$place] as $number => [$from, $to, , $start]) {
                $other = $clashes[$place][$number] ?? null;
                $occurrences[] = [
                    'from' => (string) Instant::ofMs($from * 1000),
                    'to' => (string) Instant::ofMs($to * 1000),
                    'start' => (string) LocalTime::ofSeconds($start),
                    'end' => (string) LocalTime::ofSeconds($start + $booking->lengthS()),
                    // Of one that goes beyond the span it is not known.
                    'turn' => $from * 1000 < $fromMs || $to * 1000 > $toMs || $plays[$booking->zone ?? '']->hasTurn($booking->id, $from * 1000, $to * 1000),
                ] + ($other === null ? [] : ['clash' => $other->name]);
            }
            $told[] = [
                'id' => $booking->id,
                'name' => $booking->name,
                'zone' => $booking->zone,
                'rank' => $booking->rank->value,
                'plays' => $booking->plays->toArray(),
                'said' => ($booking->rule?->said() ?? 'once') . ($booking->when === null ? '' : ', only while its rows are chosen'),
                'occurrences' => $occurrences,
            ];
        }

        return $told;
    }

    /**
     * Which booking of the same rank and zone goes before an occurrence while both are due.
     *
     * @param array<int, list<array{int, int, int, int}>> $due by place of the booking
     * @return array<int, array<int, Booking>> by place of the booking and number of the occurrence
     */
    private static function clashes(Schedule $schedule, array $due): array
    {
        $ranked = [];
        foreach ([null, ...$schedule->zonesNamed()] as $zone) {
            $ranked += array_flip(array_map(static fn (Booking $booking): string => $booking->id, $schedule->ranked($zone)));
        }
        $all = [];
        foreach ($due as $place => $occurrences) {
            foreach ($occurrences as $number => [$from, $to]) {
                $all[] = [$from, $to, $place, $number];
            }
        }
        sort($all);
        [$open, $clashes] = [[], []];
        foreach ($all as $one) {
            $booking = $schedule->bookings[$one[2]];
            $key = $booking->rank->value . ' ' . $booking->zone;
            $open[$key] = array_filter($open[$key] ?? [], static fn (array $other): bool => $other[1] > $one[0]);
            foreach ($open[$key] as $other) {
                $than = $schedule->bookings[$other[2]];
                if ($than->id !== $booking->id) {
                    [$first, $hidden] = $ranked[$than->id] < $ranked[$booking->id] ? [$than, $one] : [$booking, $other];
                    $clashes[$hidden[2]][$hidden[3]] ??= $first;
                }
            }
            $open[$key][] = $one;
        }

        return $clashes;
    }
}
