<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Time\Validity;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;

/** A booking that is due whenever an item of the same validity would be: from and until, on some days, in some hours. */
final readonly class BookingWithin
{
    /**
     * @param Node $validity as of an item (Validity), with one window of hours at the most
     * @param LocalTime $now on the clock of the display: where nothing says from when, from then on
     * @param int $createdMs Unix ms
     * @return array<string, mixed> in the format of a booking, dated
     * @throws Refused where no booking can say it
     */
    public static function of(string $id, string $name, Played $plays, Node $validity, LocalTime $now, int $createdMs): array
    {
        $within = Validity::fromNode($validity);
        if (count($within->hours) > 1) {
            throw $validity->field('hours')->refused(Reason::ValueRange, sprintf('has %d windows; what takes the place of something is booked for one.', count($within->hours)));
        }
        $from = $within->from ?? $now;
        if ($within->until !== null && $within->until->seconds <= $from->seconds) {
            throw $validity->field('until')->refused(Reason::ValueRange, sprintf('is %s, which is over at %s.', $within->until, $from));
        }
        $head = ['id' => $id, 'name' => $name, 'plays' => $plays->toArray(), 'rank' => Rank::Dated->value];
        $foot = ['created' => (string) Instant::ofMs($createdMs)];
        if ($within->until !== null && $within->days === [] && $within->hours === []) {
            return $head + ['start' => (string) $from, 'end' => (string) $within->until] + $foot;
        }
        [$begin, $end] = $within->hours[0] ?? [0, Calendar::DAY_S];
        $isOn = static fn (int $day): bool => $within->days === [] || in_array(Calendar::weekday($day), $within->days, true);
        // A window past midnight may have begun the evening before.
        $day = $from->day() - 1;
        while (!$isOn($day)) {
            $day++;
        }
        $at = static fn (int $time): string => (string) LocalTime::ofSeconds($day * Calendar::DAY_S + $time);
        $days = array_map(static fn (int $one): string => Rule::DAYS[$one], $within->days);

        return $head + [
            'start' => $at($begin),
            'end' => $at($end > $begin ? $end : $end + Calendar::DAY_S),
            'rrule' => $days === [] ? 'FREQ=DAILY' : 'FREQ=WEEKLY;BYDAY=' . implode(',', $days),
            'from' => (string) $from,
        ] + ($within->until === null ? [] : ['until' => (string) $within->until]) + $foot;
    }
}
