<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\FirstShown;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\SearchTarget;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Time\Schedule\Booking;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;

/**
 * When something saved is next seen, or why it never is.
 *
 * @phpstan-import-type Doc from Make
 */
final class FirstShownTest extends TestCase
{
    /** A Wednesday, 13:00 in Lisbon. */
    private const NOW = '2026-06-03T12:00:00Z';

    /** @param list<Doc> $items */
    #[DataProvider('lists')]
    public function testAMediaInAListIsSeenOrToldWhyNot(array $items, string $said): void
    {
        $layout = Make::composed(Make::layout([Make::zone('main', 0, 0, 1920, 1080, $items)]));
        $found = FirstShown::of(Programme::endless($layout, 'Europe/Lisbon'), SearchTarget::media('m'), Instant::parse(self::NOW)->ms);
        self::assertSame($said, ($found?->toArray()['at'] ?? $found?->never) . ', ' . $found?->why);
    }

    /** @return iterable<string, array{list<Doc>, string}> */
    public static function lists(): iterable
    {
        $other = Make::picture('o', durationMs: 50_000);
        $it = static fn (mixed ...$more): array => array_filter($more, is_string(...), ARRAY_FILTER_USE_KEY)
            + ['id' => 'i', 'media' => ['id' => 'm', 'name' => 'm.png', 'width' => 16, 'height' => 9], 'duration_ms' => 10_000];
        $in = 'in zone "main" of "Layout test"';
        yield 'its turn comes' => [[$other, $it()], "2026-06-03T12:00:50Z, $in"];
        yield 'it is seen at this instant' => [[$it(), $other], "2026-06-03T12:00:00Z, $in"];
        yield 'switched off' => [[$other, $it(enabled: false)], "off, it is switched off $in"];
        yield 'over' => [[$other, $it(valid: ['until' => '2026-06-01T00:00:00'])], "expired, $in it is over since 2026-06-01 00:00"];
        yield 'far away' => [[$other, $it(valid: ['from' => '2028-01-01T00:00:00'])], "expired, $in it begins only on 2028-01-01 00:00"];
        $noDay = ['from' => '2026-06-01T00:00:00', 'until' => '2026-06-06T00:00:00', 'days' => ['SA']];
        yield 'no day for it' => [[$other, $it(valid: $noDay)], "hours, its days and hours $in leave no time for it"];
        yield 'its hours come, when the running item has ended' => [[$other, $it(valid: ['hours' => [['17:00', '19:00']]])], "2026-06-03T16:00:00Z, $in"];
        yield 'behind something endless' => [[['lasts' => 'endless'] + array_diff_key($other, ['duration_ms' => 0]), $it()], "unreached, something before it $in plays without end"];
    }

    public function testWhatStandsInANestedLayoutIsSeenWhenItsItemIs(): void
    {
        $second = ['id' => 'q', 'media' => ['id' => 'm', 'name' => 'm', 'width' => 1, 'height' => 1], 'duration_ms' => 4000];
        $inner = Make::layout([Make::zone('z', 0, 0, 100, 100, [Make::picture('p', durationMs: 4000), $second])], 100, 100, 'inner');
        $outer = static fn (int $ms): array => Make::layout([
            Make::zone('main', 0, 0, 1920, 1080, [Make::picture('o', durationMs: 50_000), ['id' => 'n', 'layout' => ['ref' => 'inner'], 'duration_ms' => $ms]]),
        ]);
        $find = static fn (int $ms, SearchTarget $target): ?array => FirstShown::of(Programme::endless(Make::composed($outer($ms), Library::of(['inner' => $inner])), 'UTC'), $target, 0)?->toArray();
        self::assertSame('1970-01-01T00:00:50Z', $find(8000, SearchTarget::layout('inner'))['at'] ?? null);
        self::assertSame('1970-01-01T00:00:54Z', $find(8000, SearchTarget::media('m'))['at'] ?? null);
        self::assertSame(['at' => null, 'never' => 'unreached', 'why' => 'its turn in zone "z" of "Layout inner" never comes in the time that it has'], $find(3000, SearchTarget::media('m')));
        self::assertNull($find(8000, SearchTarget::playlist('inner-list')));
        self::assertNull($find(8000, SearchTarget::media('elsewhere')));
    }

    /**
     * @param list<Doc> $bookings
     * @param array<string, string> $standby
     */
    #[DataProvider('schedules')]
    public function testABookedLayoutIsSeenOrToldWhyNot(array $bookings, string $said, array $standby = ['layout' => 'night']): void
    {
        $zones = [Make::zone('main', 0, 0, 960, 1080), Make::zone('side', 960, 0, 960, 1080)];
        $documents = array_map(static fn (string $id): array => Make::layout($zones, id: $id), ['night' => 'night', 'fair' => 'fair', 'day' => 'day']);
        $programme = Make::programme($documents, $bookings, $standby, 'Europe/Lisbon');
        $found = FirstShown::of($programme, SearchTarget::layout('fair'), Instant::parse(self::NOW)->ms);
        self::assertSame($said, $found === null ? 'nowhere' : ($found->toArray()['at'] ?? $found->never) . ', ' . $found->why);
        // The booking itself says the same.
        $booking = array_values(array_filter(self::schedule($programme)->bookings, static fn (Booking $one): bool => $one->id === 'f'))[0] ?? null;
        if ($booking !== null) {
            $own = FirstShown::ofBooking(self::schedule($programme), $programme->clock(), $booking, Instant::parse(self::NOW)->ms);
            self::assertSame([$found?->atMs, $found?->never], [$own->atMs, $own->never]);
        }
    }

    /** @return iterable<string, array{0: list<Doc>, 1: string, 2?: array<string, string>}> */
    public static function schedules(): iterable
    {
        $fair = ['id' => 'f', 'name' => 'Fair', 'plays' => ['layout' => 'fair'], 'rank' => 'weekly']
            + ['start' => '2026-05-02T09:00:00', 'end' => '2026-05-02T13:00:00', 'rrule' => 'FREQ=WEEKLY;BYDAY=SA'];
        $all = ['id' => 'd', 'name' => 'Day', 'plays' => ['layout' => 'day'], 'rank' => 'takeover', 'start' => '2026-05-01T00:00:00', 'end' => '2026-05-02T00:00:00', 'rrule' => 'FREQ=DAILY'];
        yield 'next Saturday' => [[$fair], '2026-06-06T08:00:00Z, it plays'];
        yield 'when what goes before it is over' => [[$fair, ['until' => '2026-06-13T10:00:00', 'name' => 'Day'] + $all], '2026-06-13T09:00:00Z, it plays'];
        yield 'outranked for ever' => [[$fair, $all], 'outranked, booking "Fair" never gets its turn: "Day" goes before it'];
        yield 'over' => [[['until' => '2026-06-01T00:00:00'] + $fair], 'expired, booking "Fair" is over since 2026-06-01 00:00'];
        yield 'it was once' => [[array_diff_key($fair, ['rrule' => 0])], 'expired, booking "Fair" is over since 2026-05-02 13:00'];
        yield 'in years' => [[['rrule' => 'FREQ=YEARLY;INTERVAL=4'] + $fair], 'expired, booking "Fair" has no occurrence within a year'];
        yield 'standby that never comes' => [[$all], 'outranked, it is standby, and something is booked all the time', ['layout' => 'fair']];
        $once = ['start' => '2026-06-05T08:00:00', 'end' => '2026-06-05T09:00:00', 'rank' => 'dated'] + array_diff_key($fair, ['rrule' => 0]);
        yield 'in a zone of what stands' => [[['zone' => 'side'] + $once], '2026-06-05T07:00:00Z, it plays'];
        yield 'not there' => [[], 'nowhere'];
    }

    /** The property: at the instant that is told, it is shown, and not a millisecond before unless that instant is now. */
    public function testWhatIsToldIsTrue(): void
    {
        $random = Make::random(4711);
        $now = Instant::parse(self::NOW)->ms;
        [$seen, $never] = [0, 0];
        for ($round = 0; $round < Make::rounds(60); $round++) {
            $document = Make::comingAndGoing($random);
            $layout = Make::composed(self::withIds($document));
            $shown = Make::shownAt($layout, 0, new Surroundings('Europe/Lisbon'));
            foreach (['i0', 'i1', 'i2', 'i3'] as $item) {
                $found = FirstShown::of(Programme::endless($layout, 'Europe/Lisbon'), SearchTarget::media("z0-$item"), $now);
                if ($found?->atMs === null) {
                    $never++;
                    continue;
                }
                $has = static fn (int $at): bool => array_filter($shown->at($at)->things, static fn ($thing): bool => $thing->part->media?->id === "z0-$item" && $thing->opacity >= 0.0) !== [];
                self::assertTrue($has($found->atMs), "round $round, $item at " . Instant::ofMs($found->atMs));
                if ($found->atMs > $now) {
                    self::assertFalse($has($found->atMs - 1), "round $round, $item before " . Instant::ofMs($found->atMs));
                }
                $seen++;
            }
        }
        self::assertGreaterThan(60, $seen);
        self::assertGreaterThan(10, $never);
    }

    /** The same of what is booked, around the night on which the clocks go back; and what never comes is shown at no instant. */
    public function testWhatIsToldOfAScheduleIsTrue(): void
    {
        $random = Make::random(4712);
        $now = Instant::parse('2026-10-24T21:00:00Z')->ms;
        [$seen, $never] = [0, 0];
        for ($round = 0; $round < Make::rounds(40); $round++) {
            $documents = ['k' => ['id' => 'k'] + self::withIds(Make::comingAndGoing($random)), 'l' => ['id' => 'l'] + Make::randomLayout($random, 2)];
            $start = sprintf('2026-10-2%dT%02d:%02d:07', $random->getInt(4, 5), $random->getInt(0, 23), $random->getInt(0, 59));
            $programme = Make::programme($documents, [[
                'id' => 'b', 'plays' => ['layout' => 'k'], 'rank' => 'dated', 'start' => $start,
                'end' => gmdate('Y-m-d\TH:i:s', (int) strtotime("$start UTC") + $random->getInt(20, 9000)), 'rrule' => ['FREQ=DAILY;COUNT=3', 'FREQ=HOURLY;COUNT=9'][$round % 2],
            ]], ['layout' => 'l']);
            $shown = ShownAt::of($programme);
            foreach (['i0', 'i1', 'i2', 'i3'] as $item) {
                $found = FirstShown::of($programme, SearchTarget::media("z0-$item"), $now);
                $has = static fn (int $at): bool => array_filter($shown->at($at)->things, static fn ($thing): bool => $thing->part->media?->id === "z0-$item") !== [];
                if ($found?->atMs === null) {
                    $never++;
                    for ($n = 0; $n < 40; $n++) {
                        $at = $random->getInt($now, $now + 3 * 86_400_000);
                        self::assertFalse($has($at), "round $round, $item at " . Instant::ofMs($at) . ', told is: ' . $found?->why);
                    }
                    continue;
                }
                $seen++;
                self::assertTrue($has($found->atMs), "round $round, $item at " . Instant::ofMs($found->atMs));
                for ($n = 0; $n < 20; $n++) {
                    // What is still sliding out now, for 100 ms at most, is not what comes next.
                    $at = $random->getInt(min($now + 100, $found->atMs), $found->atMs);
                    self::assertSame($at === $found->atMs, $at === $found->atMs || $has($at), "round $round, $item, told at " . Instant::ofMs($found->atMs) . ', shown at ' . Instant::ofMs($at));
                }
            }
        }
        self::assertGreaterThan(20, $seen);
        self::assertGreaterThan(10, $never);
    }

    /**
     * @param Doc $document
     * @return Doc with a media id for each item of the first zone
     */
    private static function withIds(array $document): array
    {
        $elements = is_array($document['elements'] ?? null) ? $document['elements'] : [];
        foreach ($elements as $index => $element) {
            if (!is_array($element) || !is_array($element['playlist'] ?? null) || !is_array($element['playlist']['items'] ?? null)) {
                continue;
            }
            foreach ($element['playlist']['items'] as $place => $item) {
                if (is_array($item) && is_array($item['media'] ?? null) && is_string($item['id'] ?? null) && is_string($element['id'] ?? null)) {
                    $elements[$index]['playlist']['items'][$place]['media']['id'] = $element['id'] . '-' . $item['id'];
                }
            }
        }

        return ['elements' => $elements] + $document;
    }

    private static function schedule(Programme $programme): Schedule
    {
        return $programme->base->schedule ?? throw new \LogicException('It plays by a schedule.');
    }
}
