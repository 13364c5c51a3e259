<?php

declare(strict_types=1);

// Required by run.php: recurrences against sabre/vobject, and what plays in a year.

namespace UpperPane\Bench;

use Sabre\VObject\Recur\RRuleIterator;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Recurrence\Recurrence;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

function benchTime(float $hash): void
{
    // Rules that both expand to as many instants.
    $rules = ['FREQ=DAILY', 'FREQ=WEEKLY;BYDAY=MO,WE,FR', 'FREQ=MONTHLY;BYDAY=2TU', 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1', 'FREQ=DAILY;COUNT=20000', 'FREQ=HOURLY;INTERVAL=6'];
    $lisbon = WallClock::in('Europe/Lisbon');
    [$year, $after] = [LocalTime::parse('2030-01-01T00:00:00')->seconds, LocalTime::parse('2031-01-01T00:00:00')->seconds];
    foreach (['1990-01-01T08:00:00' => 'at least 20', '2029-12-24T08:00:00' => ''] as $start => $wanted) {
        $instants = 0;
        $ours = seconds(static function () use ($rules, $start, $lisbon, $year, $after, &$instants): void {
            $instants = 0;
            foreach ($rules as $rule) {
                $instants += count(Recurrence::of(LocalTime::parse($start), Rule::parse($rule), $lisbon)->between($year, $after));
            }
        }, 2);
        $theirs = 0;
        $other = seconds(static function () use ($rules, $start, $year, $after, &$theirs): void {
            $theirs = 0;
            foreach ($rules as $rule) {
                $iterator = new RRuleIterator($rule, new \DateTimeImmutable($start, new \DateTimeZone('Europe/Lisbon')));
                $iterator->fastForward(new \DateTimeImmutable("@$year"));
                for (; $iterator->valid() && ($current = $iterator->current()) instanceof \DateTimeInterface && $current->getTimestamp() < $after; $iterator->next()) {
                    $theirs++;
                }
            }
        }, 1);
        say(
            sprintf('2030 of %d rules begun in %s, %d instants', count($rules), substr($start, 0, 4), $instants),
            sprintf('%s a second, %.0f x sabre/vobject (%d)', number_format($instants / $ours), $instants / $ours / ($theirs / $other), $theirs),
            $wanted,
        );
    }

    $bookings = [];
    for ($i = 0; $i < 200; $i++) {
        $rank = ['everyday', 'weekly', 'dated', 'takeover'][$i % 4];
        $hour = 7 * $i % 22;
        $bookings[] = array_filter([
            'id' => "b$i",
            'plays' => ['layout' => "l$i"],
            'rank' => $rank,
            'start' => sprintf('2026-01-%02dT%02d:00:00', $i % 7 + 1, $hour),
            'end' => sprintf('2026-01-%02dT%02d:30:00', $i % 7 + 1, $hour + 1),
            'rrule' => ['everyday' => 'FREQ=DAILY', 'weekly' => 'FREQ=WEEKLY;BYDAY=MO,WE,FR', 'dated' => 'FREQ=MONTHLY;BYMONTHDAY=3', 'takeover' => ''][$rank],
        ]);
    }
    $schedule = Schedule::fromArray(['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S', 'timezone' => 'Europe/Lisbon', 'standby' => ['layout' => 'x'], 'bookings' => $bookings]);
    $plays = seconds(static fn () => Plays::of($schedule, $lisbon, $year * 1000, $after * 1000), 2);
    say(
        sprintf('a year of plays, 200 bookings, %s pieces', number_format(count(Plays::of($schedule, $lisbon, $year * 1000, $after * 1000)->pieces))),
        sprintf('%.0f ms, %s x baseline', $plays * 1000, number_format($plays / $hash)),
        'under 250 ms',
    );

    $timezones = ['Europe/Lisbon', 'Atlantic/Azores', 'America/New_York', 'Asia/Kolkata', 'Pacific/Chatham'];
    $documents = [];
    for ($i = 0; $i < 1000; $i++) {
        $some = array_slice($bookings, $i % 180, 20);
        $documents[] = ['format' => Schedule::FORMAT, 'id' => "s$i", 'name' => 'S', 'timezone' => $timezones[$i % 5], 'standby' => ['layout' => 'x'], 'bookings' => $some];
    }
    $read = seconds(static fn () => array_map(Schedule::fromArray(...), $documents), 1);
    $schedules = array_map(Schedule::fromArray(...), $documents);
    $now = static function () use ($schedules, $year): int {
        $clocks = [];
        $found = 0;
        foreach ($schedules as $schedule) {
            $found += Plays::at($schedule, $clocks[$schedule->timezone] ??= WallClock::in($schedule->timezone), ($year + 40_000) * 1000)->booking === null ? 0 : 1;
        }

        return $found;
    };
    $took = seconds($now, 2);
    say(
        sprintf('1,000 displays, each with a schedule of its own of 20 bookings: what plays now (%d booked)', $now()),
        sprintf('%.0f ms, %s x baseline; reading the schedules %.0f ms', $took * 1000, number_format($took / $hash), $read * 1000),
        'under 1 s',
    );

    $zones = static function (bool $comeAndGo): Composed {
        $zones = [];
        for ($z = 0; $z < 20; $z++) {
            $items = array_map(
                static fn (int $i): array => Make::picture("i$i", 192, 216, 4000 + 37 * $i) + ($comeAndGo && $i % 3 === 0 ? ['valid' => ['hours' => [['08:00', '18:00']]]] : []),
                range(1, 10),
            );
            $zones[] = Make::zone("z$z", 192 * ($z % 10), 216 * intdiv($z, 10), 192, 216, $items);
        }

        return Make::composed(Make::layout($zones));
    };
    foreach (['that stay' => $zones(false), 'a third of which come and go daily' => $zones(true)] as $what => $layout) {
        $sheet = seconds(static fn () => Make::runSheet($layout, 0, new Surroundings('Europe/Lisbon'), $year * 1000, ($year + 14 * 86_400) * 1000), 2);
        say("14 days of 20 zones with 10 items each, $what", sprintf('%.0f ms, %s x baseline', $sheet * 1000, number_format($sheet / $hash)), 'under 100 ms');
    }
}
