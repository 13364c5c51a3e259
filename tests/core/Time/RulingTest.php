<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Time\Schedule\Ruling;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\LocalTime;

/** Which schedules rule where, and rules that are changed as values. */
final class RulingTest extends TestCase
{
    public function testItsOwnThenThoseOfItsPlacesTheNearestFirst(): void
    {
        $schedule = static fn (string $id): Schedule => Schedule::fromArray(['format' => Schedule::FORMAT, 'id' => $id, 'name' => $id, 'timezone' => 'UTC', 'bookings' => []]);
        $ruling = new Ruling(['wide' => $schedule('own')], ['estate' => $schedule('estate'), 'hall' => $schedule('hall'), 'pier' => $schedule('pier')]);
        $on = static fn (string $display, string ...$places): array => array_map(static fn (Schedule $one): string => $one->id, $ruling->on($display, ...$places));
        self::assertSame(['own', 'hall', 'estate'], $on('wide', 'gates', 'hall', 'estate'));
        self::assertSame(['hall', 'estate'], $on('tall', 'hall', 'estate'));
        self::assertSame([], $on('tall', 'gates'));
        self::assertSame(['own'], $on('wide'));
    }

    public function testAScheduleSaysForWhichZones(): void
    {
        $booking = ['id' => 'a', 'plays' => ['layout' => 'l'], 'zone' => 'side', 'rank' => 'dated', 'start' => '2026-06-01T08:00:00', 'end' => '2026-06-01T09:00:00'];
        $schedule = ['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'zones' => ['foot' => []], 'bookings' => [$booking, ['id' => 'b', 'zone' => 'foot'] + $booking]];
        self::assertSame(['foot', 'side'], Schedule::fromArray($schedule)->zonesNamed());
    }

    /** COUNT and UNTIL both end a rule, and a rule has one of them (RFC 5545, 3.3.10). */
    #[TestWith(['FREQ=DAILY', 'FREQ=DAILY;COUNT=3', 'FREQ=DAILY;UNTIL=20260601T075959'])]
    #[TestWith(['FREQ=DAILY;COUNT=9;INTERVAL=2', 'FREQ=DAILY;COUNT=3;INTERVAL=2', 'FREQ=DAILY;INTERVAL=2;UNTIL=20260601T075959'])]
    #[TestWith(['FREQ=WEEKLY;UNTIL=20270101T000000;BYDAY=MO', 'FREQ=WEEKLY;BYDAY=MO;COUNT=3', 'FREQ=WEEKLY;UNTIL=20260601T075959;BYDAY=MO'])]
    public function testARuleIsEndedAnotherWay(string $rule, string $counted, string $ended): void
    {
        self::assertSame($counted, (string) Rule::parse($rule)->withCount(3));
        $until = Rule::parse($rule)->withUntil(LocalTime::parse('2026-06-01T07:59:59'));
        self::assertSame($ended, (string) $until);
        self::assertSame(LocalTime::parse('2026-06-01T07:59:59')->seconds, $until->untilLocal);
        self::assertSame(gmmktime(7, 59, 59, 6, 1, 2026), Rule::parse($rule)->withUntilUtc((int) gmmktime(7, 59, 59, 6, 1, 2026))->untilUtc);
    }

    public function testTheDaysOfARuleAreChanged(): void
    {
        self::assertSame('FREQ=WEEKLY;BYDAY=TU,SU;COUNT=4', (string) Rule::parse('FREQ=WEEKLY;BYDAY=MO,SA;COUNT=4', '/rrule')->withDays([1, 6]));
        self::assertSame(1, Rule::parse('FREQ=DAILY;COUNT=4')->withCount(-5)->count, 'one at least');
    }
}
