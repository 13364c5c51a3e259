<?php

declare(strict_types=1);

namespace UpperPane\App\Time;

use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Layout\Feeding;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\FirstShown;
use UpperPane\Core\Time\Schedule\Booking;
use UpperPane\Core\Time\Schedule\BookingActs;
use UpperPane\Core\Time\Schedule\BookingEdit;
use UpperPane\Core\Time\Schedule\BookingsTold;
use UpperPane\Core\Time\Schedule\Play;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Schedule\ScheduleChecks;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalDays;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** What really plays by a schedule, also by one that is not saved yet. */
final readonly class PlaysController
{
    private const LONGEST_MS = 62 * 86_400_000;

    /** Clashes and bookings that never get their turn are looked for so far ahead. */
    private const LOOKED_MS = 56 * 86_400_000;

    public function __construct(private Designs $designs, private Schedules $schedules, private Feeding $feeding, private ClockInterface $clock)
    {
    }

    /** In [from, to), or on so many days from a date of the display on; without a date, from the one that it is there now. */
    #[Route('/api/plays', methods: ['POST'])]
    #[Needs(Right::Look)]
    public function plays(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('schedule', 'document', 'display', 'from', 'to', 'day', 'days');
        [$schedule, $clock, $display, $displays] = $this->asked($body);
        [$from, $to] = $body->has('days') ? $this->days($body, $clock) : self::span($body);

        $plays = self::everywhere($schedule, $clock, $from, $to);

        return new JsonResponse([
            'display' => $display?->id,
            'timezone' => $clock->timezone,
            'displays' => array_map(static fn (SurveyedDisplay $one): array => ['id' => $one->id, 'name' => $one->display()->name, 'timezone' => $one->display()->timezone], $displays),
            'days' => LocalDays::of($clock, $from, $to),
            'plays' => self::told($plays['']),
            'zones' => (object) array_map(self::told(...), array_diff_key($plays, ['' => 1])),
            'bookings' => BookingsTold::of($schedule, $plays, $clock, $from, $to),
            'zones_there' => $this->schedules->zones($schedule),
            'names' => (object) $this->schedules->names($schedule),
        ] + ScheduleChecks::run($schedule, $clock, $from, max($to, $from + self::LOOKED_MS))->toArray());
    }

    /** @return array{Schedule, WallClock, ?SurveyedDisplay, list<SurveyedDisplay>} the schedule as it is asked about, on the display that is meant, and those that it rules on */
    private function asked(Node $body): array
    {
        $id = $body->field('schedule')->id();
        $design = $this->designs->of(DesignKind::Schedule, $id);
        $given = $body->has('document') ? Body::document($body->field('document')) : $design->document;
        $own = Schedule::fromArray($given);
        $displays = $this->schedules->displays($design);
        $chosen = $body->optional('display')?->id();
        $display = array_values(array_filter($displays, static fn (SurveyedDisplay $one): bool => $chosen === null || $one->id === $chosen))[0] ?? null;

        $schedule = $display === null ? $own : $this->schedules->on($display, [$id => $given]) ?? $own;
        $timezone = $display === null ? $own->timezone : $display->display()->timezone;
        $feeds = $this->feeding->now((int) $this->clock->now()->format('Uv'));

        return [Composer::over(null, (new Surroundings($timezone))->fed($feeds))->schedule($schedule), WallClock::in($timezone), $display, $displays];
    }

    /** @return array{int, int} Unix ms */
    private static function span(Node $body): array
    {
        $from = Instant::parse($body->field('from')->text(), '/from')->ms;
        $to = Instant::parse($body->field('to')->text(), '/to')->ms;

        return $to > $from && $to - $from <= self::LONGEST_MS
            ? [$from, $to]
            : throw $body->field('to')->refused(Reason::ValueRange, 'lies before "from", or more than 62 days behind it.');
    }

    /** @return array{int, int} Unix ms of the local midnights; weeks begin on Monday */
    private function days(Node $body, WallClock $clock): array
    {
        $days = $body->field('days')->int(1, 62);
        $date = $body->optional('day');
        $first = $date === null
            ? LocalTime::ofSeconds($clock->local($this->clock->now()->getTimestamp()))->day()
            : LocalTime::parse($date->text() . 'T00:00:00', $date->path)->day();
        $first -= $days >= 7 ? Calendar::weekday($first) : 0;

        return [1000 * $clock->utcOrBefore($first * Calendar::DAY_S), 1000 * $clock->utcOrBefore(($first + $days) * Calendar::DAY_S)];
    }

    /** When one booking has its next turn, or why it never has; also by a schedule that is not saved yet. */
    #[Route('/api/plays/first', methods: ['POST'])]
    #[Needs(Right::Look)]
    public function first(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('schedule', 'document', 'display', 'booking');
        [$schedule, $clock] = $this->asked($body);
        $id = $body->field('booking')->text();
        $booking = array_values(array_filter($schedule->bookings, static fn (Booking $one): bool => $one->id === $id))[0] ?? throw Problem::notFound('This booking');

        return new JsonResponse(FirstShown::ofBooking($schedule, $clock, $booking, $this->clock->now()->getTimestamp() * 1000)->toArray());
    }

    /** A schedule in which one occurrence is moved, stretched or, without a start, taken out; nothing is saved. */
    #[Route('/api/plays/edit', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function edit(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'booking', 'occurrence', 'which', 'start', 'end');
        $which = match ($body->field('which')->oneOf('one', 'later', 'all')) {
            'one' => 'one',
            'later' => 'later',
            default => 'all',
        };
        $edit = BookingEdit::of(Body::document($body->field('document')), $body->field('booking')->text(), LocalTime::fromNode($body->field('occurrence')), $which);
        $document = $body->has('start')
            ? $edit->moved(LocalTime::fromNode($body->field('start')), LocalTime::fromNode($body->field('end')), strtolower((string) new Ulid()), $this->clock->now()->getTimestamp() * 1000)
            : $edit->removed();

        return new JsonResponse(['document' => $document]);
    }

    /** What a hand does to the bookings of a schedule, saved or not: the document comes back, and the booking that it is about. */
    #[Route('/api/plays/act', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function act(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'act');
        [$schedule, $booking] = BookingActs::done(Schedule::fromArray(Body::document($body->field('document'))), $body->field('act'), 1000 * $this->clock->now()->getTimestamp());

        return new JsonResponse(['document' => $schedule->toArray(), 'booking' => $booking]);
    }

    /** @return non-empty-array<string, Plays> what plays on the whole display (''), and in each zone that has bookings or a standby */
    private static function everywhere(Schedule $schedule, WallClock $clock, int $from, int $to): array
    {
        $plays = ['' => Plays::of($schedule, $clock, $from, $to)];
        foreach ($schedule->zonesNamed() as $zone) {
            $plays[$zone] = Plays::of($schedule, $clock, $from, $to, $zone);
        }

        return $plays;
    }

    /** @return list<array<string, mixed>> */
    private static function told(Plays $plays): array
    {
        return array_map(static fn (Play $play): array => $play->toArray(), $plays->pieces);
    }
}
