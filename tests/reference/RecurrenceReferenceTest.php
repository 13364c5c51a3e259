<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Recurrence\Recurrence;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

/**
 * Recurrences against python-dateutil 2.8.2 (Debian), rrule 2.8.1 (npm) and the cases that libical 3.0.16 is tested with.
 *
 * Where both tools agree they are the reference. Not asked of them: BYWEEKNO without a day, where RFC 5545, 3.3.10 takes the
 * weekday of DTSTART and both give the whole week (libical's cases hold it); weekly BYSETPOS in a week that DTSTART cuts.
 */
final class RecurrenceReferenceTest extends TestCase
{
    private const ZONES = ['Europe/Lisbon', 'Atlantic/Azores', 'America/New_York', 'Australia/Lord_Howe', 'Pacific/Chatham', 'Asia/Kolkata'];

    private const FREQUENCIES = [
        'YEARLY', 'YEARLY', 'YEARLY', 'MONTHLY', 'MONTHLY', 'MONTHLY', 'WEEKLY', 'WEEKLY', 'DAILY', 'DAILY', 'HOURLY', 'MINUTELY', 'SECONDLY',
    ];

    /** Nights on which the clocks of those zones change, and a day without (zdump -v -c 2025,2028). */
    private const NIGHTS = ['2025-10-26', '2026-03-08', '2026-03-29', '2026-04-05', '2026-09-27', '2026-10-04', '2026-10-25', '2026-11-01', '2027-01-31'];

    public function testTheCasesOfLibicalComeOut(): void
    {
        $file = dirname(__DIR__, 2) . '/var/icalendar/icalrecur_test.out';
        self::assertFileExists($file, 'bin/test fetches it from the sources of libical');
        $cases = 0;
        foreach (preg_split('/\n\s*\n/', (string) file_get_contents($file)) ?: [] as $block) {
            preg_match_all('/^(RRULE|DTSTART|START-AT|INSTANCES):(.*)$/m', $block, $m);
            $case = array_combine($m[1], array_map(trim(...), $m[2]));
            if (!isset($case['RRULE'], $case['DTSTART'], $case['INSTANCES'])) {
                continue;
            }
            $cases++;
            $instants = Recurrence::of(self::compact($case['DTSTART']), Rule::parse($case['RRULE']), WallClock::in('UTC'))
                ->between(isset($case['START-AT']) ? self::compact($case['START-AT'])->seconds : 0, 4_102_444_800);
            $wanted = array_map(static fn (string $time): string => rtrim($time, 'Z'), explode(',', $case['INSTANCES']));
            self::assertSame($wanted, array_map(static fn (int $utc): string => gmdate('Ymd\THis', $utc), $instants), $block);
        }
        self::assertGreaterThanOrEqual(63, $cases);
    }

    public function testRandomRulesComeOutAsDateutilAndRruleAgree(): void
    {
        $cases = self::cases(560);
        $python = self::python($cases);
        $node = self::node($cases);
        $agreed = $withInstants = 0;
        foreach ($cases as $index => $case) {
            if ($python[$index] === null || $node[$index] === null || $python[$index] !== $node[$index]) {
                continue;
            }
            $agreed++;
            $ours = Recurrence::of(LocalTime::parse($case['start']), Rule::parse($case['rule']), WallClock::in($case['zone']))
                ->between(intdiv(Instant::parse($case['from'] . 'Z')->ms, 1000), intdiv(Instant::parse($case['to'] . 'Z')->ms, 1000));
            self::assertSame($python[$index], array_map(static fn (int $utc): string => gmdate('Y-m-d\TH:i:s\Z', $utc), $ours), implode(' ', $case));
            $withInstants += $ours === [] ? 0 : 1;
        }
        self::assertGreaterThanOrEqual(500, $agreed, 'rules on which both tools agree');
        self::assertGreaterThan(350, $withInstants, 'rules that happen at all in their span');
    }

    /** @return iterable<string, array{string, string, string, list<string>}> */
    public static function examples(): iterable
    {
        $ny = ['1997-09-02T09:00:00', 'America/New_York'];
        yield 'first Friday' => ['FREQ=MONTHLY;COUNT=3;BYDAY=1FR', '1997-09-05T09:00:00', $ny[1], ['1997-09-05T13:00:00Z', '1997-10-03T13:00:00Z', '1997-11-07T14:00:00Z']];
        yield 'Friday the 13th' => ['FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13;COUNT=2', ...$ny, ...[['1998-02-13T14:00:00Z', '1998-03-13T14:00:00Z']]];
        yield 'election day' => [
            'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8;COUNT=3', '1996-11-05T09:00:00', $ny[1],
            ['1996-11-05T14:00:00Z', '2000-11-07T14:00:00Z', '2004-11-02T14:00:00Z'],
        ];
        yield 'last but one weekday' => ['FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2;COUNT=2', '1997-09-29T09:00:00', $ny[1], ['1997-09-29T13:00:00Z', '1997-10-30T14:00:00Z']];
        yield 'week start Monday' => [
            'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO', '1997-08-05T09:00:00', $ny[1],
            ['1997-08-05T13:00:00Z', '1997-08-10T13:00:00Z', '1997-08-19T13:00:00Z', '1997-08-24T13:00:00Z'],
        ];
        yield 'week start Sunday' => [
            'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU', '1997-08-05T09:00:00', $ny[1],
            ['1997-08-05T13:00:00Z', '1997-08-17T13:00:00Z', '1997-08-19T13:00:00Z', '1997-08-31T13:00:00Z'],
        ];
        yield 'every 90 minutes' => ['FREQ=MINUTELY;INTERVAL=90;COUNT=3', ...$ny, ...[['1997-09-02T13:00:00Z', '1997-09-02T14:30:00Z', '1997-09-02T16:00:00Z']]];
        yield 'an invalid date is ignored' => ['FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5', '2007-01-15T09:00:00', $ny[1], [
            '2007-01-15T14:00:00Z', '2007-01-30T14:00:00Z', '2007-02-15T14:00:00Z', '2007-03-15T13:00:00Z', '2007-03-30T13:00:00Z',
        ]];
    }

    /**
     * Source: RFC 5545, 3.8.5.3.
     *
     * @param list<string> $wanted
     */
    #[DataProvider('examples')]
    public function testTheExamplesOfTheStandardComeOut(string $rule, string $start, string $zone, array $wanted): void
    {
        $ours = Recurrence::of(LocalTime::parse($start), Rule::parse($rule), WallClock::in($zone))->between(0, 4_102_444_800);
        self::assertSame($wanted, array_map(static fn (int $utc): string => gmdate('Y-m-d\TH:i:s\Z', $utc), $ours));
    }

    /** @return list<array{rule: string, start: string, zone: string, from: string, to: string}> */
    private static function cases(int $count): array
    {
        $random = Make::random(55);
        $some = static function (array $from, int $most) use ($random): string {
            if ($from === []) {
                return '';
            }
            $picked = array_map(static fn (int $key): string => (string) $from[$key], $random->pickArrayKeys($from, max(1, min(count($from), $random->getInt(1, $most)))));

            return implode(',', $picked);
        };
        $chance = static fn (int $percent): bool => $random->getInt(1, 100) <= $percent;
        $cases = [];
        while (count($cases) < $count) {
            $frequency = self::FREQUENCIES[$random->getInt(0, 12)];
            $night = self::NIGHTS[$random->getInt(0, 8)];
            $begin = new \DateTimeImmutable($night . ' UTC');
            $start = $begin->modify(sprintf('-%d days', $chance(40) ? 0 : $random->getInt(0, 400)))->modify(sprintf('+%d minutes', 15 * $random->getInt(0, $chance(70) ? 14 : 95)));
            $fine = in_array($frequency, ['HOURLY', 'MINUTELY', 'SECONDLY'], true);
            $rule = "FREQ=$frequency";
            $interval = $fine ? [2, 3, 5, 7, 12, 25, 90, 1000][$random->getInt(0, 7)] * ($frequency === 'SECONDLY' ? 60 : 1) : $random->getInt(2, 5);
            $rule .= $chance(50) ? ";INTERVAL=$interval" : ($frequency === 'SECONDLY' ? ';INTERVAL=599' : '');
            $days = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
            $chosen = false;
            if ($frequency === 'YEARLY' && $chance(20)) {
                $rule .= ';BYWEEKNO=' . $some([...range(1, 52), -1, -2, -9], 4) . ';BYDAY=' . $some($days, 3);
            } elseif ($frequency === 'YEARLY' && $chance(20)) {
                $rule .= ';BYYEARDAY=' . $some([1, 60, 87, 88, 89, 95, 270, 298, 299, 365, 366, -1, -100, -366], 4);
            } else {
                if ($chance(25)) {
                    $rule .= ';BYMONTH=' . $some([1, 2, 3, 4, 9, 10, 11, 12], 4);
                }
                if ($frequency !== 'WEEKLY' && $chance(20)) {
                    $rule .= ';BYMONTHDAY=' . $some([...range(1, 31), -1, -2, -7, -31], 6);
                    $chosen = true;
                }
                if ($chance(35)) {
                    $which = in_array($frequency, ['YEARLY', 'MONTHLY'], true) && $chance(50);
                    $rule .= ';BYDAY=' . ($which ? $some(['1SU', '2SU', '-1SU', '-1MO', '3WE', '4SA', '5TU', '-2FR'], 3) : $some($days, 4));
                    $chosen = true;
                }
            }
            if ($chance(30)) {
                $rule .= ';BYHOUR=' . $some([0, 1, 2, 3, 5, 12, 23], 4);
            }
            if ($chance(25)) {
                $rule .= ';BYMINUTE=' . $some([0, 15, 30, 45, 59], 3);
            }
            if ($chance(10)) {
                $rule .= ';BYSECOND=' . $some([0, 1, 30, 59], 2);
            }
            // Choosing the third of one makes both tools search to the end of time.
            if ($chosen && in_array($frequency, ['YEARLY', 'MONTHLY', 'DAILY', 'HOURLY'], true) && $chance(30)) {
                $rule .= ';BYSETPOS=' . $some(in_array($frequency, ['YEARLY', 'MONTHLY'], true) ? [1, 2, 3, -1, -2] : [1, -1], 2);
            }
            $rule .= $chance(15) ? ';WKST=' . $days[$random->getInt(0, 6)] : '';
            $end = $chance(30) ? ';COUNT=' . $random->getInt(1, 60) : ($chance(20) ? ';UNTIL=' . $begin->modify('+3 days')->format('Ymd\THis\Z') : '');
            $length = ['YEARLY' => 900, 'MONTHLY' => 400, 'WEEKLY' => 100, 'DAILY' => 40, 'HOURLY' => 4][$frequency] ?? 1;
            $cases[] = [
                'rule' => $rule . $end,
                'start' => $start->format('Y-m-d\TH:i:s'),
                'zone' => self::ZONES[$random->getInt(0, 5)],
                'from' => ($fine ? $start : $begin)->modify('-6 hours')->format('Y-m-d\TH:i:s'),
                'to' => ($fine ? $start : $begin)->modify("+$length days")->format('Y-m-d\TH:i:s'),
            ];
        }

        return $cases;
    }

    /**
     * @param list<array<string, string>> $cases
     * @return list<?list<string>>
     */
    private static function python(array $cases): array
    {
        /** @var list<?list<string>> */
        return self::asked('/usr/bin/python3 ' . escapeshellarg(__DIR__ . '/recurrence/expand.py') . ' < %s', $cases);
    }

    /**
     * Brought to instants by Python's tz data, through the same script, as dates.
     *
     * @param list<array{rule: string, start: string, zone: string, from: string, to: string}> $cases
     * @return list<?list<string>>
     */
    private static function node(array $cases): array
    {
        /** @var list<?list<string>> $locals */
        $locals = self::asked('node ' . escapeshellarg(__DIR__ . '/recurrence/expand.mjs') . ' ' . escapeshellarg(dirname(__DIR__, 2)) . ' %s', $cases);
        $asked = array_map(static fn (array $case, ?array $times): array => ['locals' => $times] + $case, $cases, $locals);

        /** @var list<?list<string>> */
        return self::asked('/usr/bin/python3 ' . escapeshellarg(__DIR__ . '/recurrence/expand.py') . ' < %s', $asked);
    }

    /**
     * @param list<array<string, mixed>> $cases
     * @return list<mixed>
     */
    private static function asked(string $command, array $cases): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'rules');
        file_put_contents($file, json_encode($cases));
        $answer = (string) shell_exec(sprintf($command, escapeshellarg($file)));
        unlink($file);
        $answers = json_decode($answer, true);

        return is_array($answers) && count($answers) === count($cases) ? array_values($answers) : throw new \RuntimeException("$command answered: " . mb_strimwidth($answer, 0, 300));
    }

    private static function compact(string $time): LocalTime
    {
        return LocalTime::parse((string) preg_replace('/^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z?$/', '$1-$2-$3T$4:$5:$6', $time));
    }
}
