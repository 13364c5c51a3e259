<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Recurrence;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Recurrence\Recurrence;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

/** Rules on the clock on the wall; against outside tools in tests/reference/RecurrenceReferenceTest.php. */
final class RecurrenceTest extends TestCase
{
    private const FAR = 4_102_444_800;

    public function testTheCalendarAgreesWithPhpOnEveryKindOfYear(): void
    {
        for ($day = -25_567; $day < 84_006; $day += 11) {
            [$year, $month, $date] = Calendar::date($day);
            self::assertSame(gmdate('Y n j N', $day * 86_400), sprintf('%d %d %d %d', $year, $month, $date, Calendar::weekday($day) + 1));
            self::assertSame($day, Calendar::day($year, $month, $date));
        }
    }

    public function testATimeThatDoesNotExistIsDroppedAndNotCounted(): void
    {
        // Lisbon leaves out 01:00 to 02:00 on 29 March 2026 (zdump).
        self::assertSame(
            ['2026-03-28T01:30:00Z', '2026-03-30T00:30:00Z', '2026-03-31T00:30:00Z'],
            self::instants('FREQ=DAILY;COUNT=3', '2026-03-28T01:30:00', 'Europe/Lisbon'),
        );
        self::assertSame(['2026-03-29T01:30:00'], self::skipped('FREQ=DAILY;COUNT=3', '2026-03-28T01:30:00', 'Europe/Lisbon'));
        self::assertSame([], self::skipped('FREQ=DAILY;COUNT=1', '2026-03-28T01:30:00', 'Europe/Lisbon'), 'it has ended before');
        self::assertSame([], self::skipped('FREQ=DAILY;UNTIL=20260328T120000Z', '2026-03-28T01:30:00', 'Europe/Lisbon'));
    }

    public function testAStartThatDoesNotExistComesAnHourLaterAndItsRuleKeepsTheWrittenTime(): void
    {
        self::assertSame(
            ['2026-03-29T01:30:00Z', '2026-03-30T00:30:00Z'],
            self::instants('FREQ=DAILY;COUNT=2', '2026-03-29T01:30:00', 'Europe/Lisbon'),
        );
        self::assertSame(['2026-03-29T01:30:00Z'], self::instants(null, '2026-03-29T01:30:00', 'Europe/Lisbon'));
    }

    public function testOfATimeThatExistsTwiceTheFirstIsMeant(): void
    {
        // The Azores show 00:00 to 01:00 twice on 25 October 2026, at 00:00 and at 01:00 UTC (zdump).
        self::assertSame(
            ['2026-10-24T00:30:00Z', '2026-10-25T00:30:00Z', '2026-10-26T01:30:00Z'],
            self::instants('FREQ=DAILY;COUNT=3', '2026-10-24T00:30:00', 'Atlantic/Azores'),
        );
        self::assertSame(
            ['2026-10-25T00:30:00Z', '2026-10-25T02:30:00Z'],
            self::instants('FREQ=HOURLY;COUNT=2', '2026-10-25T00:30:00', 'Atlantic/Azores'),
            'hourly runs on the clock on the wall as well',
        );
    }

    public function testDatesAreAddedAndTakenAway(): void
    {
        $recurrence = Recurrence::of(
            LocalTime::parse('2026-06-01T08:00:00'),
            Rule::parse('FREQ=DAILY;COUNT=4'),
            WallClock::in('Europe/Lisbon'),
            [LocalTime::parse('2026-06-10T09:30'), LocalTime::parse('2026-06-02T08:00:00'), LocalTime::parse('2026-06-03T06:00:00')],
            [LocalTime::parse('2026-06-01T08:00:00'), LocalTime::parse('2026-06-09T08:00:00')],
            [LocalTime::parse('2026-06-03T00:00:00')->day()],
        );
        self::assertSame(['2026-06-02T07:00:00Z', '2026-06-04T07:00:00Z', '2026-06-10T08:30:00Z'], self::written($recurrence->between(0, self::FAR)));
    }

    public function testARuleThatNeverHappensEnds(): void
    {
        foreach (['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', 'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=31', 'FREQ=SECONDLY;INTERVAL=7200;BYHOUR=1', 'FREQ=MONTHLY;INTERVAL=12;BYMONTH=7'] as $rule) {
            $recurrence = Recurrence::of(LocalTime::parse('1990-01-01T00:00:00'), Rule::parse($rule), WallClock::in('UTC'));
            self::assertNull($recurrence->next(0), $rule);
        }
    }

    public function testTheNextOneIsFoundYearsAhead(): void
    {
        $leapDay = Recurrence::of(LocalTime::parse('2024-02-29T12:00:00'), Rule::parse('FREQ=YEARLY'), WallClock::in('UTC'));
        self::assertSame(self::utc('2104-02-29T12:00:00'), $leapDay->next(self::utc('2097-01-01T00:00:00')), '2100 has no leap day');
        self::assertSame(self::utc('2028-02-29T12:00:00'), $leapDay->next(self::utc('2024-02-29T12:00:01')));
    }

    public function testEachSecondOfADayIsGivenUntilEnough(): void
    {
        $seconds = Recurrence::of(LocalTime::parse('1990-01-01T00:00:00'), Rule::parse('FREQ=SECONDLY'), WallClock::in('UTC'));
        self::assertCount(86_400, $seconds->between(1_780_000_000, 1_780_086_400));
        self::assertSame([1_780_000_000, 1_780_000_001], $seconds->between(1_780_000_000, self::FAR, 2));
    }

    /** A count that began years ago ends at the same instant, however the span is asked for. */
    public function testCountingByWholeYearsIsCountingOneByOne(): void
    {
        $rules = [
            'FREQ=DAILY', 'FREQ=DAILY;INTERVAL=3;BYMONTH=1,3,10', 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,SU;WKST=SU', 'FREQ=MONTHLY;BYDAY=-1SU', 'FREQ=MONTHLY;INTERVAL=5;BYMONTHDAY=-1,13',
            'FREQ=YEARLY;INTERVAL=3;BYYEARDAY=60,366', 'FREQ=YEARLY;BYWEEKNO=1,53;BYDAY=MO,SU', 'FREQ=WEEKLY;BYDAY=MO,WE,FR;BYSETPOS=-1', 'FREQ=HOURLY;INTERVAL=7;BYDAY=SU',
            'FREQ=MINUTELY;INTERVAL=400;BYHOUR=0,1,2', 'FREQ=HOURLY;INTERVAL=6', 'FREQ=MONTHLY;BYDAY=MO,TU;BYHOUR=1,5;BYSETPOS=2,-1', 'FREQ=SECONDLY;INTERVAL=5000;BYMONTH=3',
        ];
        foreach ($rules as $rule) {
            $start = LocalTime::parse('1999-10-31T01:30:00');
            $clock = WallClock::in('Europe/Lisbon');
            $all = Recurrence::of($start, Rule::parse($rule), $clock)->between(0, self::utc('2015-01-01T00:00:00'));
            $counted = max(3, count($all) - 10);
            $some = Recurrence::of($start, Rule::parse("$rule;COUNT=$counted"), $clock);
            foreach ([11, 40, min(400, $counted), $counted] as $before) {
                $from = $all[max(0, $counted - $before)];
                self::assertSame(array_slice($all, max(0, $counted - $before), min($before, $counted)), $some->between($from, self::FAR), "$rule, the last $before of $counted");
            }
        }
    }

    /** A span falls apart into any two: each gives its own, and together they are the whole. */
    public function testAnySpanIsTheSumOfItsParts(): void
    {
        $random = Make::random(17);
        foreach (['FREQ=DAILY;BYHOUR=1,2', 'FREQ=WEEKLY;INTERVAL=3;BYDAY=TU,SA', 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=1,-1', 'FREQ=YEARLY;BYDAY=20MO', 'FREQ=HOURLY;INTERVAL=5'] as $rule) {
            $recurrence = Recurrence::of(LocalTime::parse('2025-01-01T01:30:00'), Rule::parse($rule), WallClock::in('Australia/Lord_Howe'));
            $from = self::utc('2026-03-01T00:00:00');
            $to = self::utc('2027-12-01T00:00:00');
            $all = $recurrence->between($from, $to);
            for ($i = 0; $i < 20; $i++) {
                $middle = $random->getInt($from, $to);
                self::assertSame($all, [...$recurrence->between($from, $middle), ...$recurrence->between($middle, $to)], $rule);
            }
        }
    }

    /** @return iterable<array{string, string}> */
    public static function wrongRules(): iterable
    {
        yield ['', 'FREQ is missing'];
        yield ['FREQ=FORTNIGHTLY', 'FREQ=FORTNIGHTLY is none of'];
        yield ['FREQ=DAILY;COUNT=2;UNTIL=20270101T000000Z', 'both end it'];
        yield ['FREQ=DAILY;INTERVAL=0', 'INTERVAL=0; a whole number from 1'];
        yield ['FREQ=DAILY;COUNT=-1', 'COUNT=-1'];
        yield ['FREQ=DAILY;BYHOUR=24', 'BYHOUR has "24"; 0 to 23 are right'];
        yield ['FREQ=MONTHLY;BYMONTHDAY=0', 'BYMONTHDAY has "0"'];
        yield ['FREQ=MONTHLY;BYMONTHDAY=32', 'BYMONTHDAY has "32"'];
        yield ['FREQ=MONTHLY;BYDAY=0MO', 'BYDAY has "0MO"'];
        yield ['FREQ=WEEKLY;BYDAY=2MO', 'stands in monthly and yearly rules only'];
        yield ['FREQ=WEEKLY;BYMONTHDAY=2', 'does not stand in weekly rules'];
        yield ['FREQ=MONTHLY;BYWEEKNO=2', 'stands in yearly rules only'];
        yield ['FREQ=DAILY;BYYEARDAY=2', 'does not stand in daily'];
        yield ['FREQ=YEARLY;BYWEEKNO=2;BYDAY=1MO', 'beside BYWEEKNO'];
        yield ['FREQ=DAILY;BYSETPOS=1', 'there is none'];
        yield ['FREQ=DAILY;FREQ=WEEKLY', 'FREQ stands twice'];
        yield ['FREQ=DAILY;EVERY=2', '"EVERY" is no part of a rule'];
        yield ['FREQ=DAILY;UNTIL=20270230T000000Z', 'UNTIL=20270230T000000Z'];
        yield ['FREQ=DAILY;WKST=XX', 'WKST=XX is no weekday'];
        yield ['FREQ=DAILY;BYMONTH=' . str_repeat('1,', 9000) . '1', 'a rule of 18,020 characters is not read'];
    }

    #[DataProvider('wrongRules')]
    public function testARuleThatIsNoneIsRefusedWithTheReason(string $rule, string $reason): void
    {
        $this->expectException(Refused::class);
        $this->expectExceptionMessage($reason);
        Rule::parse($rule);
    }

    public function testARuleOfTenThousandCharactersIsReadAsWhatItSays(): void
    {
        $rule = Rule::parse('FREQ=YEARLY;BYMONTH=' . str_repeat('6,', 5000) . '6');
        self::assertSame([6], $rule->byMonth);
    }

    public function testTheClockGoesThereAndBack(): void
    {
        foreach (['Europe/Lisbon', 'Atlantic/Azores', 'Australia/Lord_Howe', 'Pacific/Chatham', 'America/New_York', 'Africa/Casablanca', 'Pacific/Apia', 'UTC'] as $zone) {
            $clock = WallClock::in($zone);
            for ($utc = 1_300_000_000; $utc < 1_900_000_000; $utc += 104_729) {
                $local = $clock->local($utc);
                $offset = (new \DateTimeImmutable("@$utc"))->setTimezone(new \DateTimeZone($zone))->getOffset();
                self::assertSame($utc + $offset, $local, "$zone $utc");
                $back = $clock->utc($local);
                self::assertTrue($back !== null && $back <= $utc && $clock->local($back) === $local, "$zone $utc");
            }
            foreach ($clock->gaps(1_700_000_000, 1_900_000_000) as [$from, $to]) {
                self::assertNull($clock->utc($from), $zone);
                self::assertNull($clock->utc($to - 1), $zone);
                self::assertNotNull($clock->utc($from - 1), $zone);
                self::assertSame($clock->utc($to), $clock->utcOrBefore($from), $zone);
            }
        }
    }

    private static function utc(string $time): int
    {
        return LocalTime::parse($time)->seconds;
    }

    /** @return list<string> */
    private static function instants(?string $rule, string $start, string $zone): array
    {
        return self::written(Recurrence::of(LocalTime::parse($start), $rule === null ? null : Rule::parse($rule), WallClock::in($zone))->between(0, self::FAR));
    }

    /** @return list<string> */
    private static function skipped(string $rule, string $start, string $zone): array
    {
        return array_map(strval(...), Recurrence::of(LocalTime::parse($start), Rule::parse($rule), WallClock::in($zone))->skipped(1_770_000_000, 1_800_000_000));
    }

    /**
     * @param list<int> $utcs
     * @return list<string>
     */
    private static function written(array $utcs): array
    {
        return array_map(static fn (int $utc): string => gmdate('Y-m-d\TH:i:s\Z', $utc), $utcs);
    }
}
