<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Document\ActRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** What hands do to the bookings of a schedule, as it is said from outside: `{"do": name, ...}`; single occurrences are BookingEdit's. */
final readonly class BookingActs
{
    private const HOUR_S = 3600;

    /** @var array<string, list<string>> the fields of each act */
    private const FIELDS = [
        'make' => ['plays', 'zone', 'start', 'end', 'day'],
        'begin' => ['booking', 'start'],
        'whole' => ['booking'],
        'repeat' => ['booking', 'rrule'],
        'cure' => ['fix'],
    ];

    /**
     * @param int $nowMs Unix ms, at which a new booking is made
     * @return array{Schedule, string} and the booking that it is about
     * @throws Refused
     */
    public static function done(Schedule $schedule, Node $act, int $nowMs): array
    {
        $name = $act->act(self::FIELDS);
        if ($name === 'make') {
            $isTimed = $act->has('start') || $act->has('end');
            $made = array_diff_key($act->fields(), ['do' => 1, 'day' => 1]) + ($isTimed ? [] : self::proposed($schedule, $act->optional('day'), $nowMs));
            [$next, $ids] = $schedule->booked([$made + ['rank' => Rank::Dated->value, 'created' => (string) Instant::ofMs($nowMs)]]);

            return [$next, $ids[0]];
        }
        $id = $name === 'cure' ? '' : $act->field('booking')->id();
        if ($name === 'begin' || $name === 'whole') {
            $booking = self::named($schedule, $id);
            $start = $name === 'begin' ? LocalTime::fromNode($act->field('start')) : LocalTime::ofSeconds($booking->start->day() * Calendar::DAY_S);
            $last = intdiv($booking->end->seconds + Calendar::DAY_S - 1, Calendar::DAY_S);
            $end = $name === 'begin' ? $start->seconds + $booking->end->seconds - $booking->start->seconds : $last * Calendar::DAY_S;

            return [$schedule->cured(Fix::booking('Is at another time', $id, ['start' => (string) $start, 'end' => (string) LocalTime::ofSeconds($end)])), $id];
        }
        if ($name === 'repeat') {
            $rule = ($text = $act->given('rrule')) === null ? null : Rule::parse($text->text(1, 16_384), $text->path);
            $taken = array_filter($schedule->bookings, static fn (Booking $booking): bool => $booking->id === $id && $booking->rank === Rank::Takeover);
            // Unless somebody has said that it takes over.
            $rank = $taken === [] ? ['rank' => Rank::of($rule)->value] : [];

            return [$schedule->cured(Fix::booking('Comes otherwise', $id, ['rrule' => $rule === null ? null : (string) $rule] + $rank)), $id];
        }
        $cure = Fix::fromNode($act->field('fix'));

        return [$schedule->cured($cure), $cure->booking ?? ''];
    }

    /** @throws Refused */
    private static function named(Schedule $schedule, string $id): Booking
    {
        foreach ($schedule->bookings as $booking) {
            if ($booking->id === $id) {
                return $booking;
            }
        }
        throw ActRefused::because(Reason::RefUnknown, sprintf('"%s" is no booking of this schedule.', $id), '/booking');
    }

    /**
     * An hour that lies ahead: the next whole one, or of a later day that from nine o'clock.
     *
     * @return array{start: string, end: string}
     * @throws Refused
     */
    private static function proposed(Schedule $schedule, ?Node $day, int $nowMs): array
    {
        $now = LocalTime::ofSeconds(WallClock::in($schedule->timezone)->local(intdiv($nowMs, 1000)));
        $meant = $day === null ? $now : LocalTime::parse($day->text(1, 10) . 'T09:00:00', $day->path);
        $start = $meant->day() > $now->day() ? $meant->seconds : intdiv($now->seconds, self::HOUR_S) * self::HOUR_S + self::HOUR_S;

        return ['start' => (string) LocalTime::ofSeconds($start), 'end' => (string) LocalTime::ofSeconds($start + self::HOUR_S)];
    }
}
