<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Document;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\BudgetExceeded;
use UpperPane\Core\Document\Limits;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Course;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Core\Recurrence\Recurrence;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

/**
 * Every bound of docs/limits.md: what goes beyond is refused in words, with its path, before it is worked out.
 *
 * @phpstan-import-type Doc from Make
 */
final class LimitsTest extends TestCase
{
    private const DAY_MS = 86_400_000;

    public function testEveryBoundIsHeldAndSaysWhere(): void
    {
        $cases = $this->cases();
        self::assertSame(array_column(Limits::all(), 'what'), array_keys($cases));
        foreach ($cases as $what => [$path, $ask]) {
            if ($path === null) {
                $ask();
                continue;
            }
            $before = memory_get_usage();
            memory_reset_peak_usage();
            try {
                $ask();
                self::fail("$what: it was worked out.");
            } catch (BudgetExceeded $e) {
                self::assertSame([Reason::BudgetExceeded, $path], [$e->reason, $e->path], $what);
                self::assertMatchesRegularExpression('~^' . ($path === '' ? 'The document' : preg_quote($path)) . ' .*(\d|counted).* are the most~', $e->getMessage(), $what);
            }
            self::assertLessThan(256e6, memory_get_peak_usage() - $before, $what);
        }
    }

    /** @return array<string, array{?string, \Closure(): mixed}> by what the table says: the path, and what goes beyond */
    private function cases(): array
    {
        $from = Instant::parse('2026-06-01T00:00:00Z')->ms;
        $deep = array_map(fn (int $n): array => self::mentioning("n$n", $n < 6 ? 'n' . ($n + 1) : null), range(0, 6));
        $minutely = self::schedule('FREQ=MINUTELY');
        $short = Make::composed(Make::layout([self::zone('z', 2, 50)]));
        $list = static fn (int $weight): array => array_map(static fn (string $id): array => Make::picture($id, weight: $weight), ['a', 'b', 'c']);
        $pool = implode(',', range(0, 59));
        $yearly = "FREQ=YEARLY;BYMONTHDAY=1,2,3,4,5,6,7,8;BYHOUR=0,1,2,3,4,5;BYMINUTE=$pool;BYSECOND=$pool;BYSETPOS=-1";

        return [
            'layouts within layouts, the outermost included' => ['/elements/0/playlist/items/0/layout/ref', static fn () => Make::composed($deep[0], Library::of($deep))],
            'layouts and playlists that a layout, and all that lies in it, mentions; each counts wherever it is named' => [
                '/elements/0/playlist/items/2000/layout',
                static fn () => Make::composed(self::mentioning('a', 'x', 2001), Library::of([self::mentioning('x', null)])),
            ],
            // The core reads more, so that a stored one opens; who saves anew and who asks is held to it.
            'elements of a layout' => ['/elements', static fn () => Budget::ofElements(2001, '/elements')],
            'rows of data that an element tells, at the instant at which it is looked at' => ['/elements/0/rows', static function (): void {
                $surroundings = (new Surroundings())->fed(Make::fed(array_fill(0, 20_001, ['to' => 'Tolm'])));
                Make::composed(Make::layout([Make::board()]), null, $surroundings);
            }],
            'rows of data, of any time, that an item plays one after the other' => ['/elements/0/playlist/items/0/each', static function (): void {
                $rows = array_map(static fn (int $n): array => ['at' => (string) Instant::ofMs(86_400_000 * $n)], range(1, 20_001));
                $item = ['id' => 'e', 'each' => ['source' => 's', 'where' => [['field' => 'at', 'is' => 'upcoming', 'to_min' => 60]]], 'duration_ms' => 1, 'layout' => Make::layout([])];
                Make::composed(Make::layout([Make::zone('z', 0, 0, 9, 9, [$item])]), null, (new Surroundings())->fed(Make::fed($rows)));
            }],
            'slots of a loop, weights and extras counted, until all begins again' => ['/elements/0/playlist/interleave', static fn () => Make::composed(Make::layout([[
                'playlist' => ['items' => $list(1000), 'interleave' => ['every' => 1, 'items' => array_map(static fn (int $n): array => Make::picture("x$n"), range(1, 1999))]],
            ] + Make::zone('z', 0, 0, 9, 9)]))],
            'slots of the loop of a follower and its leader, until both begin together again' => [
                '/elements/1/follows',
                static fn () => Make::composed(Make::layout([self::zone('a', 499, 1000), self::zone('b', 503, 1000) + ['follows' => 'a']])),
            ],
            'occurrences of the bookings of a schedule in the span that is asked for' => [
                '/bookings/0/rrule',
                static fn () => Plays::of($minutely, WallClock::in('UTC'), $from, $from + 200 * self::DAY_MS),
            ],
            'instants of a recurrence in the span that is asked for' => ['/to', static fn () => self::recurring('FREQ=SECONDLY')],
            'times in one round of a rule of which BYSETPOS chooses' => ['', static fn () => self::recurring($yearly)],
            'segments of all zones of a layout in the span that is asked for' => ['/to', static fn () => Timeline::of($short, $from, $from + self::DAY_MS)],
            'pieces that play one after the other in the span that is asked for' => [
                '/to',
                static fn () => Plays::of($minutely, WallClock::in('UTC'), $from, $from + 105 * self::DAY_MS),
            ],
            'turns of all zones in a run sheet' => ['/to', static function () use ($from): void {
                $booked = static fn (string $zone): array => ['zone' => $zone, 'id' => $zone] + self::booking('FREQ=MINUTELY');
                $programme = Make::programme(['l' => Make::layout([self::zone('a', 1, 1000), self::zone('b', 1, 1000)])], [$booked('a'), $booked('b')], ['layout' => 'l']);
                RunSheet::of($programme, null, $from, $from + 60 * self::DAY_MS);
            }],
            'changes of a display and its zones told in words' => ['/to', static fn () => Course::of(Programme::endless($short), $from, $from + self::DAY_MS)],
            'elements checked again while cures are tried, ten for one that is no zone; the findings behind them are offered a cure once others are cured' => [null, static function (): void {
                $zones = [];
                for ($n = 0; $n < 400; $n++) {
                    $zones[] = Make::zone("z$n", 0, 5 * $n, 1000, 3, []);
                }
                $findings = Make::cured(Make::layout($zones, 1000, 1998))->all;
                $offered = count(array_filter($findings, static fn (Finding $finding): bool => $finding->cure() !== null));
                self::assertCount(399, array_filter($findings, static fn (Finding $finding): bool => $finding->code === 'zone.sliver'));
                self::assertTrue($offered > 4 && $offered <= intdiv(Budget::TRIALS, 400), "$offered cures");
            }],
            'findings of one code in one answer; then one that says how many more' => [null, function (): void {
                $zones = array_map(static fn (int $n): array => Make::zone("z$n", $n, 0, 900, 900, [Make::picture('a')]), range(0, 149));
                $found = array_values(array_filter(Checks::run(Make::composed(Make::layout($zones)))->all, static fn ($one): bool => $one->code === 'zone.overlap'));
                self::assertCount(Budget::FINDINGS + 1, $found);
                self::assertStringContainsString(number_format(149 * 150 / 2 - Budget::FINDINGS), end($found)->message);
            }],
        ];
    }

    /** @return Doc */
    private static function zone(string $id, int $items, int $durationMs): array
    {
        return Make::zone($id, 0, 0, 9, 9, array_map(static fn (int $n): array => Make::picture("i$n", durationMs: $durationMs), range(1, $items)));
    }

    /** @return Doc a layout that mentions another, so many times */
    private static function mentioning(string $id, ?string $other, int $times = 1): array
    {
        $item = static fn (int $n): array => $other === null ? Make::picture("i$n") : ['id' => "i$n", 'layout' => ['ref' => $other], 'duration_ms' => 1000];

        return Make::layout([Make::zone('z', 0, 0, 9, 9, array_map($item, range(1, $times)))], id: $id);
    }

    private static function schedule(string $rule): Schedule
    {
        return Schedule::fromArray(['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'bookings' => [self::booking($rule)]]);
    }

    /** @return Doc one second long */
    private static function booking(string $rule): array
    {
        return ['id' => 'a', 'plays' => ['layout' => 'l'], 'rank' => 'weekly', 'start' => '2026-01-01T00:00:00', 'end' => '2026-01-01T00:00:01', 'rrule' => $rule];
    }

    private static function recurring(string $rule): void
    {
        $from = LocalTime::parse('2026-06-01T00:00:00')->seconds;
        $start = LocalTime::parse('2026-01-01T00:00:00');
        Budget::ofOccurrences(count(Recurrence::of($start, Rule::parse($rule), WallClock::in('UTC'))->between($from, $from + 400 * 86_400, Budget::SEGMENTS + 1)), '/to');
    }
}
