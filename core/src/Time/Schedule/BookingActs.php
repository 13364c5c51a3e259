<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Time\Recurrence\Rule;
use UpperPane\Core\Units\Instant;

/** What hands do to the bookings of a schedule, as it is said from outside: `{"do": name, ...}`; single occurrences are BookingEdit's. */
final readonly class BookingActs
{
    /** @var array<string, list<string>> the fields of each act */
    private const FIELDS = [
        'make' => ['plays', 'zone', 'start', 'end'],
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
            $made = array_diff_key($act->fields(), ['do' => 1]) + ['rank' => Rank::Dated->value, 'created' => (string) Instant::ofMs($nowMs)];
            [$next, $ids] = $schedule->booked([$made]);

            return [$next, $ids[0]];
        }
        if ($name === 'repeat') {
            $id = $act->field('booking')->id();
            $rule = ($text = $act->given('rrule')) === null ? null : Rule::parse($text->text(1, 16_384), $text->path);
            $taken = array_filter($schedule->bookings, static fn (Booking $booking): bool => $booking->id === $id && $booking->rank === Rank::Takeover);
            // Unless somebody has said that it takes over.
            $rank = $taken === [] ? ['rank' => Rank::of($rule)->value] : [];

            return [$schedule->cured(Fix::booking('Comes otherwise', $id, ['rrule' => $rule === null ? null : (string) $rule] + $rank)), $id];
        }
        $cure = Fix::fromNode($act->field('fix'));

        return [$schedule->cured($cure), $cure->booking ?? ''];
    }
}
