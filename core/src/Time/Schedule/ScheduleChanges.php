<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

/** What changes in what is booked, from one schedule to the next. */
final readonly class ScheduleChanges
{
    /** @return list<string> in words; empty where nothing changes */
    public static function between(?Schedule $old, Schedule $new): array
    {
        if ($old === null) {
            return [sprintf('The schedule "%s" takes over, with %d %s.', $new->name, count($new->bookings), count($new->bookings) === 1 ? 'booking' : 'bookings')];
        }
        $words = [];
        if ($old->standby != $new->standby) {
            $words[] = sprintf('Standby: %s, was %s.', self::played($new->standby), self::played($old->standby));
        }
        foreach (array_keys($new->zones + $old->zones) as $zone) {
            [$is, $was] = [$new->zones[$zone] ?? null, $old->zones[$zone] ?? null];
            if ($is != $was) {
                $words[] = sprintf('Standby of zone "%s": %s, was %s.', $zone, self::played($is), self::played($was));
            }
        }
        $before = array_column($old->bookings, null, 'id');
        $after = array_column($new->bookings, null, 'id');
        foreach ($after as $id => $booking) {
            if (!isset($before[$id])) {
                $words[] = sprintf('Added: booking "%s".', $booking->name);
            } elseif ($before[$id] != $booking) {
                $words[] = sprintf('Changed: booking "%s".', $booking->name);
            }
        }
        foreach (array_diff_key($before, $after) as $booking) {
            $words[] = sprintf('Removed: booking "%s".', $booking->name);
        }

        return $words;
    }

    private static function played(?Played $played): string
    {
        return $played === null ? 'none' : "the $played->kind";
    }
}
