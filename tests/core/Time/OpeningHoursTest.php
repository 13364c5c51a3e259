<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Time\OpeningHours;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

final class OpeningHoursTest extends TestCase
{
    private const WEEK = [['days' => ['MO', 'TU', 'WE', 'TH', 'FR'], 'hours' => ['08:00', '19:00']], ['days' => ['SA'], 'hours' => ['09:00', '17:00']]];

    /** @return iterable<string, array{string, list<array<string, mixed>>, string, ?string}> zone, hours, now, when it closes; 2026-06-01 is a Monday */
    public static function closings(): iterable
    {
        yield 'open' => ['Europe/Lisbon', self::WEEK, '2026-06-01T10:00:00Z', '2026-06-01T18:00:00Z'];
        yield 'the same on the Azores' => ['Atlantic/Azores', self::WEEK, '2026-06-01T10:00:00Z', '2026-06-01T19:00:00Z'];
        yield 'not open yet' => ['Europe/Lisbon', self::WEEK, '2026-06-01T05:00:00Z', '2026-06-01T18:00:00Z'];
        yield 'closed just now' => ['Europe/Lisbon', self::WEEK, '2026-06-01T18:00:00Z', '2026-06-02T18:00:00Z'];
        yield 'a closed Sunday' => ['Europe/Lisbon', self::WEEK, '2026-06-06T16:30:00Z', '2026-06-08T18:00:00Z'];
        yield 'after midnight, of the day before' => ['UTC', [['days' => ['FR'], 'hours' => ['20:00', '02:00']]], '2026-06-06T01:00:00Z', '2026-06-06T02:00:00Z'];
        yield 'one window goes over into the next' => ['UTC', [['hours' => ['08:00', '12:00']], ['hours' => ['12:00', '18:00']]], '2026-06-01T09:00:00Z', '2026-06-01T18:00:00Z'];
        yield 'but not over a break' => ['UTC', [['hours' => ['08:00', '12:00']], ['hours' => ['13:00', '18:00']]], '2026-06-01T09:00:00Z', '2026-06-01T12:00:00Z'];
        yield 'midnight' => ['UTC', [['hours' => ['06:00', '24:00']]], '2026-06-01T09:00:00Z', '2026-06-02T00:00:00Z'];
        yield 'the night on which clocks are put back' => ['Europe/Lisbon', [['hours' => ['22:00', '04:00']]], '2026-10-24T22:00:00Z', '2026-10-25T04:00:00Z'];
        yield 'always open' => ['UTC', [['hours' => ['00:00', '24:00']]], '2026-06-01T09:00:00Z', null];
        yield 'never open' => ['UTC', [], '2026-06-01T09:00:00Z', null];
    }

    /** @param list<array<string, mixed>> $hours */
    #[DataProvider('closings')]
    public function testItClosesWhenTheLastOfWhatGoesOverIntoOneAnotherEnds(string $zone, array $hours, string $now, ?string $closes): void
    {
        $at = self::of($hours)->closesAfter(WallClock::in($zone), Instant::parse($now)->ms);
        self::assertSame($closes, $at === null ? null : (string) Instant::ofMs($at));
    }

    /** Held against a clock that is asked minute by minute (PHP's own time zones). */
    public function testItIsTheFirstMinuteAtWhichNobodyIsInAnyMore(): void
    {
        $random = Make::random(2311);
        $days = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
        for ($round = 0; $round < Make::rounds(60); $round++) {
            $hours = [];
            for ($n = $random->getInt(1, 4); $n > 0; $n--) {
                // Not in the hours in which clocks are changed: which of two readings is meant is told above.
                [$from, $to] = [$random->getInt(4, 23), $random->getInt(4, 24)];
                $own = array_values(array_filter($days, static fn (): bool => $random->getInt(0, 1) === 1));
                $hours[] = ($own === [] ? [] : ['days' => $own]) + ['hours' => [sprintf('%02d:00', $from), sprintf('%02d:30', $to === 24 || $to === $from ? 0 : $to)]];
            }
            $zone = ['Europe/Lisbon', 'Atlantic/Azores', 'America/New_York'][$random->getInt(0, 2)];
            $there = new \DateTimeZone($zone);
            $isOpen = static function (int $utc) use ($hours, $there): bool {
                $local = (new \DateTimeImmutable("@$utc"))->setTimezone($there);
                [$time, $today, $before] = [$local->format('H:i'), strtoupper(substr($local->format('D'), 0, 2)), strtoupper(substr($local->modify('-1 day')->format('D'), 0, 2))];
                foreach ($hours as $window) {
                    [$from, $to] = $window['hours'];
                    $isOn = static fn (string $day): bool => in_array($day, $window['days'] ?? [$day], true);
                    if ($from < $to ? $isOn($today) && $time >= $from && $time < $to : ($isOn($today) && $time >= $from) || ($isOn($before) && $time < $to)) {
                        return true;
                    }
                }

                return false;
            };
            $now = (int) strtotime('2026-10-20T00:00:00Z') + 600 * $random->getInt(0, 1500);
            for ($minute = $now; $minute < $now + 7 * 86_400 && !$isOpen($minute);) {
                $minute += 600;
            }
            for (; $minute < $now + 8 * 86_400 && $isOpen($minute);) {
                $minute += 600;
            }
            $closes = self::of($hours)->closesAfter(WallClock::in($zone), 1000 * $now);
            self::assertSame($minute < $now + 8 * 86_400 ? 1000 * $minute : null, $closes, "$zone " . json_encode($hours) . ' at ' . gmdate('c', $now));
        }
    }

    public function testItIsWrittenAsItWasRead(): void
    {
        self::assertSame(self::WEEK, self::of(self::WEEK)->toArray());
    }

    /** @return iterable<string, array{string, array<mixed>}> path, hours */
    public static function refused(): iterable
    {
        yield 'one time' => ['/0/hours', [['hours' => ['08:00']]]];
        yield 'no time at all' => ['/0/hours', [['days' => ['MO']]]];
        yield 'closes when it opens' => ['/1/hours', [['hours' => ['08:00', '09:00']], ['hours' => ['08:00', '08:00']]]];
        yield 'no day' => ['/0/days/0', [['days' => ['Monday'], 'hours' => ['08:00', '09:00']]]];
        yield 'something else' => ['/0/from', [['from' => '08:00', 'hours' => ['08:00', '09:00']]]];
    }

    /** @param array<mixed> $hours */
    #[DataProvider('refused')]
    public function testWhatIsNoWindowIsRefusedWhereItIs(string $path, array $hours): void
    {
        try {
            self::of($hours);
            self::fail('It was taken.');
        } catch (DocumentRefused $e) {
            self::assertSame($path, $e->path);
        }
    }

    /** @param array<mixed> $hours */
    private static function of(array $hours): OpeningHours
    {
        return OpeningHours::fromNode(Node::root($hours));
    }
}
