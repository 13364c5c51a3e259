<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Course;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Playback\Stretch;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

/** All changes of a span, in words. */
final class CourseTest extends TestCase
{
    private const HOUR = ['rank' => 'everyday', 'rrule' => 'FREQ=DAILY'];

    public function testALeaderOfThreeFilmsAndItsFollowerChangeTogether(): void
    {
        $layout = Make::composed(Make::layout([
            Make::zone('main', 0, 0, 960, 1080, [Make::film('a', 15_000), Make::film('b', 20_000), Make::film('c', 10_000)]),
            Make::zone('side', 960, 0, 960, 1080, [Make::picture('x'), Make::picture('y'), Make::picture('z')], follows: 'main'),
        ]));
        $course = Course::of(Programme::endless($layout, 'UTC'), 0, 45_000);
        self::assertSame([
            '0 45000 - Layout test: it plays without end',
            '0 15000 main a.mp4: its own list', '0 15000 side x.png: changes with "main"',
            '15000 35000 main b.mp4: its own list', '15000 35000 side y.png: changes with "main"',
            '35000 45000 main c.mp4: its own list', '35000 45000 side z.png: changes with "main"',
        ], self::told($course));
    }

    /** Rows of data that a board tells come and go, and an item that plays row by row says which row. */
    public function testRowsAreToldAsTheyComeAndGo(): void
    {
        $feeds = Make::fed([['to' => 'Tolm', 'at' => '1970-01-01T00:00:10Z'], ['to' => 'Vennick', 'at' => '1970-01-01T01:00:00Z']]);
        $rows = ['source' => 's', 'where' => [['field' => 'at', 'is' => 'upcoming', 'to_min' => 600]]];
        $board = ['rows' => $rows] + Make::board('{to}', 100, 100, page_ms: 4000);
        $item = ['id' => 'e', 'each' => ['source' => 's'], 'duration_ms' => 5000, 'layout' => Make::layout([Make::told('x', '{to}')], id: 'offer')];
        $surroundings = (new Surroundings())->fed($feeds);
        $layout = Make::composed(Make::layout([$board, Make::zone('z', 0, 0, 100, 100, [$item])]), null, $surroundings);
        self::assertSame([
            '0 20000 - Layout test: it plays without end',
            '0 5000 z Layout offer: Tolm: its own list',
            '0 12000 board 2 rows, first Tolm, 1 Jan 00:00: rows of "s"',
            '5000 10000 z Layout offer: Vennick: its own list',
            '10000 15000 z Layout offer: Tolm: its own list',
            '12000 20000 board 1 row: Vennick, 1 Jan 01:00: rows of "s"',
            '15000 20000 z Layout offer: Vennick: its own list',
        ], self::told(Course::of(Programme::endless($layout, 'UTC'), 0, 20_000)));
    }

    public function testWhatPlaysOnTheNightOnWhichTheClocksGoBackHasNoHole(): void
    {
        $programme = Make::programme(['day' => [Make::picture('d')], 'night' => [Make::picture('n', durationMs: 1_800_000), Make::picture('m', durationMs: 3_600_000)]], [
            ['id' => 'late', 'name' => 'Late boat', 'plays' => ['playlist' => 'day'], 'start' => '2026-10-01T00:30:00', 'end' => '2026-10-01T01:30:00'] + self::HOUR,
        ], ['playlist' => 'night'], 'Europe/Lisbon');
        // 00:30 to 03:30 on the wall are four hours that night.
        $clock = WallClock::in('Europe/Lisbon');
        [$from, $to] = [1000 * (int) $clock->utc(self::local('2026-10-25T00:30:00')), 1000 * (int) $clock->utc(self::local('2026-10-25T03:30:00'))];
        self::assertSame(4 * 3_600_000, $to - $from);
        $whole = array_values(array_filter(Course::of($programme, $from, $to)->stretches, static fn (Stretch $one): bool => $one->zone === null));
        self::assertSame(
            [['2026-10-24T23:30:00Z', '2026-10-25T00:30:00Z', 'late'], ['2026-10-25T00:30:00Z', '2026-10-25T03:30:00Z', null]],
            array_map(static fn (Stretch $one): array => [$one->toArray()['from'], $one->toArray()['to'], $one->booking], $whole),
        );
        self::assertSame('standby: no booking is due', $whole[1]->why);
        self::assertSame(['nothing', 'everyday booking "Late boat"'], [
            Course::of(Make::programme(['day' => []], [], null), $from, $to)->stretches[0]->kind, $whole[0]->why,
        ]);
    }

    public function testZonesOfTheStandingLayoutTellWhatIsBookedInThemAndElseTheirOwnList(): void
    {
        $programme = Make::programme(
            ['hall' => Make::layout([
                Make::zone('main', 0, 0, 960, 540, [Make::picture('m', durationMs: 60_000)]), Make::zone('side', 960, 0, 960, 540, []),
            ], id: 'hall'), 'noon' => [Make::picture('x', durationMs: 40_000)]],
            [['id' => 'n', 'zone' => 'side', 'plays' => ['playlist' => 'noon'], 'start' => '2026-06-03T12:00:00', 'end' => '2026-06-03T12:01:00'] + self::HOUR],
            ['layout' => 'hall'],
        );
        $from = Instant::parse('2026-06-03T10:59:30Z')->ms;
        self::assertSame([
            '0 120000 - Layout hall: standby: no booking is due',
            '0 30000 main m.png: its own list', '0 30000 side : its list is empty',
            '30000 90000 main m.png: its own list', '30000 90000 side Layout noon: everyday booking "n"', '30000 70000 side/whole x.png: its own list',
            '70000 90000 side/whole x.png: its own list',
            '90000 120000 main m.png: its own list', '90000 120000 side : its list is empty',
        ], self::told(Course::of($programme, $from, $from + 120_000), $from));
        self::assertCount(2, Course::of($programme, $from, $from + 120_000, false)->stretches, 'without items only bookings are told');
    }

    public function testASpanWithTooManyChangesIsRefused(): void
    {
        $layout = Make::composed(Make::layout([Make::zone('z', 0, 0, 1920, 1080, [Make::picture('a', durationMs: 100), Make::picture('b', durationMs: 100)])]));
        self::assertCount(Budget::STRETCHES, Course::of(Programme::endless($layout, 'UTC'), 0, 100 * (Budget::STRETCHES - 1))->stretches);
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('100,000 are the most');
        Course::of(Programme::endless($layout, 'UTC'), 0, 100 * Budget::STRETCHES);
    }

    /** The property: at random instants the course tells of each zone the item that ShownAt shows in it. */
    public function testTheCourseAgreesWithWhatIsShown(): void
    {
        $random = Make::random(77);
        $from = Instant::parse('2026-10-24T20:00:00Z')->ms;
        $checked = 0;
        for ($round = 0; $round < Make::rounds(12); $round++) {
            $layout = Make::composed(Make::comingAndGoing($random));
            $programme = Make::programme(['l' => Make::comingAndGoing($random), 'k' => Make::comingAndGoing($random)], [
                ['id' => 'b', 'plays' => ['layout' => 'k'], 'start' => '2026-10-24T23:10:00', 'end' => '2026-10-25T01:45:13'] + self::HOUR,
            ], ['layout' => 'l']);
            $both = [
                [Course::of(Programme::endless($layout, 'UTC'), $from, $from + 3_600_000), Make::shownAt($layout)],
                [Course::of($programme, $from, $from + 10_000_000), ShownAt::of($programme)],
            ];
            foreach ($both as [$course, $shownAt]) {
                for ($n = 0; $n < 30; $n++) {
                    $one = $course->stretches[$random->getInt(0, count($course->stretches) - 1)];
                    if ($one->kind !== 'item' || $one->toMs <= $one->fromMs) {
                        continue;
                    }
                    $at = $random->getInt($one->fromMs, $one->toMs - 1);
                    $items = [];
                    foreach ($shownAt->at($at)->things as $thing) {
                        if (explode('/', $thing->part->element)[0] === $one->zone && $thing->part->item !== null) {
                            $items[] = $thing->part->item;
                        }
                    }
                    // Of a nested layout the items of its own zones are shown.
                    if (count(array_filter($items, static fn (string $item): bool => $item === $one->id)) > 0) {
                        $checked++;
                        continue;
                    }
                    $told = sprintf('round %d: %s tells %s at %s, shown is %s', $round, $one->zone, $one->id, Instant::ofMs($at), implode(' ', $items));
                    self::assertDoesNotMatchRegularExpression('/\.(png|mp4)$/', $one->name, $told);
                }
            }
        }
        self::assertGreaterThan(200, $checked);
    }

    /** @return list<string> */
    private static function told(Course $course, int $from = 0): array
    {
        $say = static fn (Stretch $one): string => sprintf('%d %d %s %s: %s', $one->fromMs - $from, $one->toMs - $from, $one->zone ?? '-', $one->name, $one->why);

        return array_map($say, $course->stretches);
    }

    private static function local(string $time): int
    {
        return LocalTime::parse($time)->seconds;
    }
}
