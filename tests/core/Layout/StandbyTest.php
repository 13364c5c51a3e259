<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Course;
use UpperPane\Core\Playback\FirstShown;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\SearchTarget;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Playback\SheetReader;
use UpperPane\Tests\Core\Playback\ShownAtTest;

/** What plays in a zone whenever nothing of its list is due, and the gaps of a zone that has none. */
final class StandbyTest extends TestCase
{
    private const NIGHT = ['media' => ['id' => 'night', 'name' => 'night.mp4', 'width' => 640, 'height' => 360, 'length_ms' => 7000]];

    /** Open from eight to six: the standby begins with the first instant at which nothing is due, and goes round from there. */
    #[TestWith(['2026-06-01T07:59:59.999Z', 'night.mp4', 6999])]
    #[TestWith(['2026-06-01T08:00:00Z', 'day.png', 0])]
    #[TestWith(['2026-06-01T17:59:59Z', 'day.png', 9000])]
    #[TestWith(['2026-06-01T18:00:00Z', 'night.mp4', 0])]
    #[TestWith(['2026-06-01T18:00:15Z', 'night.mp4', 1000])]
    public function testTheStandbyPlaysFromItsBeginning(string $at, string $media, int $offset): void
    {
        $thing = Make::shownAt(self::open(['standby' => self::NIGHT]))->at(Instant::parse($at)->ms)->things[0];
        self::assertSame([$media, $offset, 'z'], [$thing->part->media?->name, $thing->offsetMs, $thing->part->element]);
    }

    public function testAnEmptyTimeBegunInAnEarlierMonthIsOneTime(): void
    {
        $over = self::zone([Make::picture('day', valid: ['until' => '2026-03-10T12:00:00'])], ['standby' => self::NIGHT]);
        // The item that was due ran on to its end at 12:00:00, which is where the standby begins.
        $since = Instant::parse('2026-03-10T12:00:00Z')->ms;
        foreach (['2026-03-31T23:59:59Z', '2026-04-01T00:00:01Z', '2027-11-09T10:11:12Z'] as $at) {
            $ms = Instant::parse($at)->ms;
            self::assertSame(($ms - $since) % 7000, Make::shownAt($over)->at($ms)->things[0]->offsetMs, $at);
        }
    }

    /** Without hole or overlap, over months as well (Time\Turns). */
    public function testTurnsFollowOneAnother(): void
    {
        $random = Make::random(5);
        for ($i = 0; $i < Make::rounds(20); $i++) {
            $layout = Make::composed(Make::comingAndGoing($random));
            $from = Instant::parse('2026-10-20T00:00:00Z')->ms + $random->getInt(0, 86_400_000);
            foreach ($layout->turns(WallClock::in('Europe/Lisbon'), 0) as $id => $turns) {
                $at = $from;
                foreach ($turns->between($from, $from + 40 * 86_400_000) as $turn) {
                    self::assertSame($at, $turn->fromMs, "round $i, $id");
                    self::assertGreaterThan($at, $at = $turn->toMs, "round $i, $id");
                }
                self::assertSame($from + 40 * 86_400_000, $at, "round $i, $id");
            }
        }
    }

    public function testALayoutOrAListMayBeTheStandby(): void
    {
        $tides = Make::layout([Make::zone('inner', 0, 0, 64, 36, [Make::picture('tide')])], 64, 36, 'tides');
        $round = ['format' => 'upper-pane/playlist@1', 'id' => 'round', 'name' => 'Round', 'items' => [Make::picture('a', durationMs: 4000), Make::picture('b', durationMs: 6000)]];
        $library = Library::of([$tides, $round]);
        $night = Instant::parse('2026-06-01T18:00:05Z')->ms;
        foreach ([['layout' => ['ref' => 'tides']], ['layout' => 'tides']] as $ref) {
            $things = Make::shownAt(self::open(['standby' => $ref], $library))->at($night)->things;
            self::assertSame(['z', 'z/inner'], [$things[0]->part->element, $things[1]->part->element]);
        }
        $thing = Make::shownAt(self::open(['standby' => ['playlist' => 'round']], $library))->at($night)->things[0];
        self::assertSame(['z', 'b', 1000], [$thing->part->element, $thing->part->item, $thing->offsetMs]);
    }

    public function testAListHandedOverWholeHasAStandbyOfItsOwn(): void
    {
        $list = ['format' => 'upper-pane/playlist@1', 'id' => 'p', 'name' => 'P', 'standby' => self::NIGHT, 'items' => [Make::picture('day', valid: ['hours' => [['08:00', '18:00']]])]];
        $whole = Make::list($list);
        self::assertSame('night.mp4', Make::shownAt($whole)->at(Instant::parse('2026-06-01T20:00:00Z')->ms)->things[0]->part->media?->name);
        $inZone = Make::composed(Make::layout([['playlist' => ['ref' => 'p']] + Make::zone('z', 0, 0, 9, 9)]), Library::of([$list]));
        self::assertSame([], Make::shownAt($inZone)->at(Instant::parse('2026-06-01T20:00:00Z')->ms)->things, 'inside a zone it is not looked at');
        self::assertSame(['zone.gap'], self::codes($inZone));
        self::assertSame([], self::codes($whole));
    }

    public function testABookingGoesBeforeAndTheStandbyOfTheScheduleToo(): void
    {
        $layout = Make::layout([Make::zone('z', 0, 0, 1920, 1080, [Make::picture('day', valid: ['hours' => [['08:00', '18:00']]])], standby: self::NIGHT)], id: 'whole');
        $booked = ['id' => 'b', 'plays' => ['media' => 'booked'], 'zone' => 'z', 'rank' => 'dated', 'start' => '2026-06-01T20:00:00', 'end' => '2026-06-01T21:00:00'];
        $documents = ['whole' => $layout, 'booked' => [Make::picture('booked')], 'late' => [Make::picture('late')]];
        $seen = static function (array $more) use ($documents, $booked): array {
            $shown = ShownAt::of(Make::programme($documents, [$booked], ['layout' => 'whole'], 'UTC', $more));

            return array_map(static fn (string $hour): ?string => array_reverse($shown->at(Instant::parse("2026-06-01T$hour:00:00Z")->ms)->things)[0]->part->media?->name, ['12', '19', '20', '22']);
        };
        self::assertSame(['day.png', 'night.mp4', 'booked.png', 'night.mp4'], $seen([]));
        self::assertSame(['late.png', 'late.png', 'booked.png', 'late.png'], $seen(['zones' => ['z' => ['standby' => ['media' => 'late']]]]), 'that of the schedule goes before the list');
    }

    public function testTheRunSheetSaysTheSameAtEveryInstant(): void
    {
        $random = Make::random(77);
        $from = Instant::parse('2026-10-24T20:00:00Z')->ms;
        $surroundings = new Surroundings('Europe/Lisbon');
        for ($i = 0; $i < Make::rounds(12); $i++) {
            $document = Make::comingAndGoing($random);
            foreach ($document['elements'] as $place => $element) {
                if (isset($element['playlist'])) {
                    $document['elements'][$place]['standby'] = $place % 2 === 0 ? self::NIGHT : ['layout' => ['ref' => 'inner']];
                }
            }
            $layout = Make::composed($document, Library::of([['id' => 'inner'] + Make::comingAndGoing($random)]));
            $shown = Make::shownAt($layout, 0, $surroundings);
            $sheet = json_decode((string) json_encode(Make::runSheet($layout, 0, $surroundings, $from, $from + 86_400_000)), true);
            for ($n = 0; $n < 60; $n++) {
                $at = $from + $random->getInt(0, 86_399_999);
                ShownAtTest::assertSameThings($shown->at($at)->toArray()['things'], SheetReader::things($sheet, $at), "round $i at $at");
            }
        }
    }

    public function testItIsToldWhereverWhatPlaysIsTold(): void
    {
        $layout = self::open(['standby' => self::NIGHT]);
        $from = Instant::parse('2026-06-01T17:59:50Z')->ms;
        $last = Timeline::of($layout, $from, $from + 20_000)['zones'][0]['segments'][1];
        self::assertSame(['2026-06-01T18:00:00Z', null, 'night'], [$last['from'], $last['item'], $last['standby'] ?? null]);
        $why = array_map(static fn ($one): string => "$one->name: $one->why", Course::of(Programme::endless($layout), $from, $from + 20_000)->stretches);
        self::assertContains('night.mp4: standby: nothing of its list is due', $why);
        self::assertSame('2026-06-01T18:00:00Z', FirstShown::of(Programme::endless($layout), SearchTarget::media('night'), $from)?->toArray()['at']);
        self::assertSame(['night'], array_map(static fn ($media): ?string => $media->id, array_values(array_filter($layout->media(), static fn ($one): bool => $one->id !== null))));
        self::assertSame(['Standby of "z": "night.mp4", was none.'], Programme::endless($layout)->changesFrom(Programme::endless(self::open([]))));
    }

    public function testAZoneWithoutOneIsFoundWithItsGaps(): void
    {
        $at = (new Surroundings('Europe/Lisbon'))->at(Instant::parse('2026-10-24T10:00:00Z')->ms);
        [$gap] = Checks::run(self::open([]), $at)->all;
        // 18:00 in Lisbon is 17:00 UTC; that night has 25 hours.
        self::assertSame(
            ['zone.gap', ['z'], ['from' => '2026-10-24T17:00:00Z', 'to' => '2026-10-25T08:00:00Z', 'longest_ms' => 15 * 3_600_000, 'total_ms' => (15 + 6 * 14) * 3_600_000]],
            [$gap->code, $gap->elements, $gap->measure],
        );
        self::assertSame([], self::codes(self::open(['standby' => self::NIGHT])));
        self::assertSame([], self::codes(self::zone([Make::picture('always')])));
        self::assertSame(['zone.empty'], self::codes(self::zone([])), 'what is always empty is not a gap');
        self::assertSame([], self::codes(self::zone([], ['standby' => self::NIGHT])), 'with a standby something always plays');
    }

    /** @param array<string, mixed> $standby */
    #[TestWith([['media' => 'night'], '/elements/0/standby/media'])]
    #[TestWith([['layout' => 'gone'], '/elements/0/standby/layout'])]
    #[TestWith([['layout' => ['ref' => 'test']], '/elements/0/standby/layout'])]
    #[TestWith([['media' => ['name' => 'x']], '/elements/0/standby/media/width'])]
    #[TestWith([['layout' => 'a', 'media' => 'b'], '/elements/0/standby'])]
    #[TestWith([[], '/elements/0/standby'])]
    public function testOneThatMeansNothingIsRefused(array $standby, string $path): void
    {
        try {
            self::open(['standby' => $standby]);
            self::fail('It was composed.');
        } catch (Refused $e) {
            self::assertSame($path, $e->path);
        }
    }

    /** @param array<string, mixed> $more */
    private static function open(array $more, ?Library $library = null): Composed
    {
        return self::zone([Make::picture('day', 1920, 1080, valid: ['hours' => [['08:00', '18:00']]])], $more, $library);
    }

    /**
     * @param list<array<string, mixed>> $items
     * @param array<string, mixed> $more
     */
    private static function zone(array $items, array $more = [], ?Library $library = null): Composed
    {
        return Make::composed(Make::layout([$more + Make::zone('z', 0, 0, 1920, 1080, $items)]), $library);
    }

    /** @return list<string> */
    private static function codes(Composed $layout): array
    {
        $codes = array_map(static fn ($finding): string => $finding->code, Checks::run($layout)->all);

        return array_values(array_filter($codes, static fn (string $code): bool => in_array($code, ['zone.gap', 'zone.empty'], true)));
    }
}
