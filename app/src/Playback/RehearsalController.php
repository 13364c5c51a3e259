<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Handover\Compiler;
use UpperPane\App\Handover\Playable;
use UpperPane\App\Handover\Programmes;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Download;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Feeding;
use UpperPane\App\Layout\References;
use UpperPane\App\Time\Schedules;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Handover\EstateFindings;
use UpperPane\Core\Playback\Course;
use UpperPane\Core\Playback\CourseText;
use UpperPane\Core\Playback\Stretch;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalDays;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** What a display would show in any span, from what is saved by now: before it plays, and without handing anything over. */
final readonly class RehearsalController
{
    private const LONGEST_MS = 62 * 86_400_000;

    /** What is rehearsed is written out for so much more on either side, for a hand that leaves the span. */
    private const AROUND_MS = 86_400_000;

    /** So many changes are read on a screen; all of them are in the table. */
    private const MOST_TOLD = 2_000;

    public function __construct(
        private Displays $displays,
        private Programmes $programmes,
        private Compiler $compiler,
        private Schedules $schedules,
        private References $references,
        private Feeding $feeding,
        private ClockInterface $clock,
    ) {
    }

    /**
     * `from` and `to` as the clock of the display shows them; without them, the day that it is there.
     *
     * `source`: what stands there, unless another is named; with `scheduled` the schedule that rules there, also where something else stands.
     * `fetches`: of some sources of data what a kept fetch told, by their ids.
     */
    #[Route('/api/rehearsal', methods: ['POST'])]
    #[Needs(Right::Look)]
    public function rehearse(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('display', 'source', 'scheduled', 'from', 'to', 'items', 'course_only', 'fetches');
        $display = $this->displays->one($body->field('display')->id());
        $clock = WallClock::in($display->display()->timezone);
        [$from, $to] = $this->span($clock, $body->optional('from'), $body->optional('to'));
        $named = $body->optional('source');
        $source = $named === null ? $this->programmes->standing($display, $body->optional('scheduled')?->bool() ?? false) : $this->programmes->source($named);
        $rules = $this->schedules->ruling($display)[0] ?? null;
        $told = [
            'display' => $display->id,
            'rules' => $rules === null ? null : ['id' => $rules->id, 'name' => $rules->name],
            'timezone' => $clock->timezone,
            'from' => (string) Instant::ofMs($from),
            'to' => (string) Instant::ofMs($to),
            'days' => LocalDays::of($clock, $from, $to),
            'clock_changes' => array_map(static fn (int $change): array => [
                'at' => (string) Instant::ofMs($change * 1000),
                'shift_s' => $clock->local($change) - $clock->local($change - 1) - 1,
            ], $clock->changes(intdiv($from, 1000), intdiv($to, 1000))),
        ];
        if ($source === null) {
            return new JsonResponse($told + [
                'source' => null,
                'course' => [],
                'left' => 0,
                'sources' => [],
                'release' => null,
                'findings' => [EstateFindings::blank($display->id, $display->display()->name)->toArray()],
            ]);
        }
        $contents = $this->programmes->now($source, $display);
        $programme = $this->programmes->of($contents, $display->display(), $this->feeds($body->optional('fetches')));
        $course = Course::of($programme, $from, $to, $body->optional('items')?->bool() ?? false);
        $alone = $body->optional('course_only')?->bool() ?? false;

        return new JsonResponse($told + [
            'source' => $source->toArray(),
            'course' => array_map(static fn (Stretch $one): array => $one->toArray(), array_slice($course->stretches, 0, self::MOST_TOLD)),
            'left' => max(0, count($course->stretches) - self::MOST_TOLD),
            'findings' => [],
            'sources' => self::named($this->references->sourcesIn($contents->parts)),
            'release' => $alone ? null : $this->compiler->packed($contents, $programme, $display->display(), $from - self::AROUND_MS, $to + self::AROUND_MS)->whole(),
        ]);
    }

    /** @return ?Feeds null for as screens go on telling it */
    private function feeds(?Node $fetches): ?Feeds
    {
        $kept = array_map(static fn (Node $one): int => $one->int(1), $fetches?->members() ?? []);

        return $kept === [] ? null : $this->feeding->asOf($kept, (int) $this->clock->now()->format('Uv'));
    }

    /**
     * @param array<string> $names by id
     * @return list<array{id: string, name: string}>
     */
    private static function named(array $names): array
    {
        return array_map(static fn (int|string $id, string $name): array => ['id' => (string) $id, 'name' => $name], array_keys($names), $names);
    }

    /** All changes of a span on one or several displays, each in its own time. */
    #[Route('/api/rehearsal/changes.csv', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function changes(Request $request): Response
    {
        $asked = $request->query;
        $ids = array_filter(explode(',', $asked->getString('display')));
        $courses = [];
        foreach ($ids === [] ? throw Problem::notFound('This display') : $ids as $id) {
            $display = $this->displays->one($id);
            $clock = WallClock::in($display->display()->timezone);
            $given = Node::root(array_filter(['from' => $asked->getString('from'), 'to' => $asked->getString('to')]));
            [$from, $to] = $this->span($clock, $given->optional('from'), $given->optional('to'));
            $source = $this->source($display, $asked->getString('source'), $asked->getBoolean('scheduled'));
            if ($source !== null) {
                $programme = $this->programmes->of($this->programmes->now($source, $display), $display->display());
                $courses[] = [$display->display()->name, $clock, Course::of($programme, $from, $to, $asked->getBoolean('items', true))];
            }
        }

        return Download::of(CourseText::of($courses), 'text/csv; charset=utf-8', 'Changes.csv');
    }

    /** @param string $named `layout:ID`, or nothing for what stands there */
    private function source(SurveyedDisplay $display, string $named, bool $scheduled): ?Playable
    {
        [$kind, $id] = [...explode(':', $named, 2), ''];

        return $named === '' ? $this->programmes->standing($display, $scheduled) : $this->programmes->source(Node::root(['kind' => $kind, 'id' => $id]));
    }

    /**
     * @param ?Node $from as the clock of the display shows it, or an instant in UTC: displays of several zones are looked at together
     * @return array{int, int} Unix ms
     */
    private function span(WallClock $clock, ?Node $from, ?Node $to): array
    {
        $now = $this->clock->now()->getTimestamp();
        $begin = $from === null ? self::midnight($clock, $now, 0) : self::instant($clock, $from);
        $end = $to === null ? self::midnight($clock, intdiv($begin, 1000), 1) : self::instant($clock, $to);
        if ($end <= $begin) {
            throw ($to ?? $from)?->refused(Reason::ValueRange, sprintf('is %s, which is not after from.', $to?->text())) ?? new \LogicException('A day has a length.');
        }
        if ($end - $begin > self::LONGEST_MS) {
            throw ($to ?? $from)?->refused(Reason::ValueRange, 'lies more than 62 days behind from.') ?? new \LogicException('A day is shorter.');
        }

        return [$begin, $end];
    }

    /** @return int Unix ms of the local midnight so many days later */
    private static function midnight(WallClock $clock, int $utc, int $days): int
    {
        return 1000 * $clock->utcOrBefore((LocalTime::ofSeconds($clock->local($utc))->day() + $days) * Calendar::DAY_S);
    }

    private static function instant(WallClock $clock, Node $node): int
    {
        return str_ends_with($node->text(), 'Z') ? Instant::parse($node->text(), $node->path)->ms : 1000 * $clock->utcOrBefore(LocalTime::fromNode($node)->seconds);
    }
}
