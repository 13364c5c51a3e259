<?php

declare(strict_types=1);

namespace UpperPane\App\Time;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Download;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignForms;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Layout\Pictures;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Time\Schedule\CalendarText;
use UpperPane\Core\Time\Schedule\PlanText;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\UtcOffsets;
use UpperPane\Core\Units\WallClock;

/** Designs and schedules as files that other programs read, and calendars of others as bookings. */
final readonly class OpenFormatsController
{
    private const MOST_DAYS = 62;

    public function __construct(private Designs $designs, private Schedules $schedules, private DesignForms $forms, private Pictures $pictures)
    {
    }

    /** The bookings of a schedule as iCalendar, in its own time zone or that of a display that it rules on. */
    #[Route('/api/schedules/{id}/calendar.ics', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function calendar(string $id, Request $request): Response
    {
        $design = $this->designs->of(DesignKind::Schedule, $id);
        $schedule = Schedule::fromArray($design->document);
        $display = $this->display($design, $request);

        return Download::of(CalendarText::of($schedule, $display?->display()->timezone ?? $schedule->timezone), 'text/calendar; charset=utf-8', "$design->name.ics");
    }

    /** All changes on a display from a local date on, as CSV: what plays when, on the display and in its zones. */
    #[Route('/api/schedules/{id}/plan.csv', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function plan(string $id, Request $request): Response
    {
        $design = $this->designs->of(DesignKind::Schedule, $id);
        $display = $this->display($design, $request);
        $schedule = $display === null ? Schedule::fromArray($design->document) : $this->schedules->on($display) ?? Schedule::fromArray($design->document);
        $clock = WallClock::in($display?->display()->timezone ?? $schedule->timezone);
        $days = $request->query->getInt('days', 1);
        if ($days < 1 || $days > self::MOST_DAYS) {
            throw DocumentRefused::because(Reason::ValueRange, sprintf('A plan is of 1 to %d days.', self::MOST_DAYS), '/days');
        }
        $first = LocalTime::parse($request->query->getString('day') . 'T00:00:00', '/day')->day();
        [$from, $to] = [$clock->utcOrBefore($first * Calendar::DAY_S) * 1000, $clock->utcOrBefore(($first + $days) * Calendar::DAY_S) * 1000];
        $text = PlanText::of($schedule, $clock, $from, $to, $display?->display()->name ?? '', $this->schedules->names($schedule));

        return Download::of($text, 'text/csv; charset=utf-8', "$design->name.csv");
    }

    /** A layout or a playlist as SMIL 3.0, its media at the addresses of this server. */
    #[Route('/api/{plural}/{id}/design.smil', methods: ['GET'], requirements: ['plural' => 'layouts|playlists'])]
    #[Needs(Right::Look)]
    public function smil(string $plural, string $id, Request $request): Response
    {
        $design = $this->designs->of(DesignKind::ofPlural($plural), $id);
        $layout = $this->forms->of($design->kind)->drawn($design->document) ?? throw Problem::notFound('This design');
        $files = [];
        foreach ($this->pictures->assets($layout->media()) as $asset) {
            if ($asset->file !== null) {
                $files[$asset->id] = $request->getSchemeAndHttpHost() . '/' . $asset->file;
            }
        }

        return Download::of(SmilText::of($layout, static fn (Media $media): string => $files[$media->id ?? ''] ?? $media->name), 'application/smil+xml', "$design->name.smil");
    }

    /** Events of a calendar file as bookings, to be looked at before they are saved. */
    #[Route('/api/plays/calendar', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function bringIn(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'calendar', 'timezone', 'plays');
        $schedule = Schedule::fromArray(Body::document($body->field('document')));
        $read = CalendarReader::read(
            $body->field('calendar')->text(0, PHP_INT_MAX),
            UtcOffsets::name($body->field('timezone')),
            Played::fromNode($body->field('plays'))->toArray(),
        );

        return new JsonResponse(['document' => $schedule->booked($read['bookings'])[0]->toArray(), 'count' => count($read['bookings']), 'notes' => $read['notes']]);
    }

    private function display(Design $design, Request $request): ?SurveyedDisplay
    {
        $chosen = $request->query->getString('display');
        foreach ($this->schedules->displays($design) as $display) {
            if ($chosen === '' || $display->id === $chosen) {
                return $display;
            }
        }

        return $chosen === '' ? null : throw Problem::notFound('This display');
    }
}
