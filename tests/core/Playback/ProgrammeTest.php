<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;

/**
 * What a display shows by its schedule.
 *
 * @phpstan-import-type Doc from Make
 */
final class ProgrammeTest extends TestCase
{
    private const DAY = ['rank' => 'everyday', 'start' => '2026-01-01T06:00:00', 'end' => '2026-01-01T22:00:00', 'rrule' => 'FREQ=DAILY'];

    public function testABookingBeginsAtItsBeginningAndGoesOnAfterAnInterruption(): void
    {
        $shown = $this->shown(['day' => [Make::picture('a', durationMs: 7000), Make::picture('b', durationMs: 7000)], 'storm' => [Make::picture('s')], 'night' => [Make::picture('n')]], [
            ['id' => 'day', 'plays' => ['layout' => 'day']] + self::DAY,
            ['id' => 'storm', 'plays' => ['layout' => 'storm'], 'rank' => 'takeover', 'start' => '2026-06-03T12:00:00', 'end' => '2026-06-03T12:00:10'],
        ]);
        self::assertSame(['n', 'a 0', 'a 6999', 'b 0', 'a 0'], [
            substr($shown('2026-06-03T04:59:59Z'), 0, 1), $shown('2026-06-03T05:00:00Z'), $shown('2026-06-03T05:00:06.999Z'), $shown('2026-06-03T05:00:07Z'), $shown('2026-06-03T05:00:14Z'),
        ]);
        // Six hours are 1542 rounds of 14 s and 12 s more: b has run for 5 s when the storm comes; 10 s later a has gone by and b comes again.
        self::assertSame(['b 4999', 's 0', 's 9999', 'b 1000'], [
            $shown('2026-06-03T10:59:59.999Z'), $shown('2026-06-03T11:00:00Z'), $shown('2026-06-03T11:00:09.999Z'), $shown('2026-06-03T11:00:10Z'),
        ]);
    }

    public function testAZoneOfTheStandingLayoutHasBookingsOfItsOwnAndElsePlaysItsList(): void
    {
        $documents = ['hall' => Make::layout([Make::zone('main', 0, 0, 960, 540, [Make::picture('m')]), Make::zone('side', 960, 0, 960, 540, [Make::picture('own', durationMs: 4000)])], id: 'hall')];
        $programme = Make::programme($documents + ['noon' => [Make::picture('x', durationMs: 3000), Make::picture('y', durationMs: 3000)]], [
            ['id' => 'noon', 'zone' => 'side', 'plays' => ['playlist' => 'noon'], 'rank' => 'everyday', 'start' => '2026-06-03T12:00:00', 'end' => '2026-06-03T13:00:00', 'rrule' => 'FREQ=DAILY'],
        ], ['layout' => 'hall']);
        $at = static fn (string $instant): array => array_map(
            static fn ($thing): string => $thing->part->element . ' ' . ($thing->part->item ?? $thing->part->kind),
            ShownAt::of($programme)->at(Instant::parse($instant)->ms)->things,
        );
        self::assertSame(['schedule background', 'main m', 'side own'], $at('2026-06-03T10:59:59Z'));
        self::assertSame(['schedule background', 'main m', 'side background', 'side/whole x'], $at('2026-06-03T11:00:02.999Z'));
        self::assertSame(['schedule background', 'main m', 'side background', 'side/whole y'], $at('2026-06-03T11:00:03Z'));
        self::assertSame(['schedule background', 'main m', 'side own'], $at('2026-06-03T12:00:00Z'));
    }

    public function testALayoutOfAnotherShapeIsFittedOntoTheRasterAndZonesThatAreNowhereAreTold(): void
    {
        $programme = Make::programme(['tall' => Make::layout([Make::zone('z', 0, 0, 540, 960, [Make::picture('p')])], 540, 960, 'tall')], [
            ['id' => 'x', 'zone' => 'gone', 'plays' => ['layout' => 'tall']] + self::DAY,
        ], ['layout' => 'tall']);
        $things = array_map(static fn ($thing): array => $thing->toArray(), ShownAt::of($programme)->at(0)->things);
        self::assertEquals(['x' => 656.25, 'y' => 0, 'width' => 607.5, 'height' => 1080], $things[0]['rect']);
        self::assertEquals($things[0]['rect'], $things[1]['rect']);
        self::assertSame(['Zone "gone" is booked, but no layout that plays on the display has a zone of that name.'], array_column($programme->findings(), 'message'));
    }

    public function testNothingIsShownWhereNothingIsDueAndThereIsNoStandby(): void
    {
        $programme = Make::programme(['day' => [Make::picture('a')]], [['id' => 'day', 'plays' => ['layout' => 'day']] + self::DAY], null);
        self::assertSame([], ShownAt::of($programme)->at(Instant::parse('2026-06-03T00:00:00Z')->ms)->things);
        self::assertNotSame([], ShownAt::of($programme)->at(Instant::parse('2026-06-03T08:00:00Z')->ms)->things);
    }

    /** The property: at random instants around the odd night the compiled sheet says what the core shows. */
    public function testTheRunSheetOfAScheduleAgreesWithShownAt(): void
    {
        $random = Make::random(514);
        $from = Instant::parse('2026-10-23T00:00:00Z')->ms;
        $to = $from + 5 * 86_400_000;
        $seen = [];
        for ($round = 0; $round < Make::rounds(14); $round++) {
            $programme = Make::bookedAround($random, $round % 4 !== 0);
            $sheet = json_decode((string) json_encode(RunSheet::of($programme, new Surroundings(), $from, $to)), true);
            $shownAt = ShownAt::of($programme);
            for ($n = 0; $n < 40; $n++) {
                $at = $random->getInt($from + 60_000, $to - 1);
                $want = $shownAt->at($at)->toArray()['things'];
                ShownAtTest::assertSameThings($want, SheetReader::things($sheet, $at), "round $round at " . Instant::ofMs($at));
                $seen[(string) json_encode(array_column($want, 'element'))] = true;
            }
        }
        self::assertGreaterThan(60, count($seen), 'many different things are shown');
    }

    /**
     * @param array<string, list<Doc>> $lists
     * @param list<array<string, mixed>> $bookings
     * @return \Closure(string): string item and offset at an instant
     */
    private function shown(array $lists, array $bookings): \Closure
    {
        $programme = Make::programme($lists, $bookings, ['layout' => 'night']);

        return static function (string $instant) use ($programme): string {
            $thing = ShownAt::of($programme)->at(Instant::parse($instant)->ms)->things[1];

            return $thing->part->item . ' ' . $thing->offsetMs;
        };
    }
}
