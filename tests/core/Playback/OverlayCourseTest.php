<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\BudgetExceeded;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Playback\Course;
use UpperPane\Core\Playback\FirstShown;
use UpperPane\Core\Playback\OverlayCourse;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\SearchTarget;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Overlay\OverlayDocuments;
use UpperPane\Tests\Core\Overlay\RandomOverlaid;
use UpperPane\Tests\Core\Typewriter;

/** What is in force from when to when: rounds where items say so, and the same at every instant as counted one by one. */
final class OverlayCourseTest extends TestCase
{
    public function testARoundIsWhatEachInstantSays(): void
    {
        $random = Make::random(1616);
        $looked = $rounds = 0;
        for ($i = 0; $i < Make::rounds(30); $i++) {
            $items = array_map(static fn (int $n): array => Make::picture("i$n", durationMs: 1000 * $random->getInt(1, 9))
                + ($random->getInt(0, 3) === 0 ? ['overlays' => ['without' => ['o0']]] : []), range(0, $random->getInt(0, 5)));
            $overlays = [];
            for ($n = 0, $count = $random->getInt(1, 3); $n < $count; $n++) {
                $after = ['after' => ['every' => $random->getInt(1, 7)], 'lasts_ms' => $random->getInt(100, 40_000)];
                $overlays[] = ['id' => "o$n"] + ($n === 0 ? OverlayDocuments::mark() : ['when' => $after] + OverlayDocuments::window());
            }
            $anchor = $random->getInt(0, 1) * 1_780_000_000_000;
            $course = self::course([Make::zone('z', 0, 0, 1920, 1080, $items)], $overlays, $anchor);
            $from = $anchor + $random->getInt(0, 100_000);
            $turns = $course->between($from, $from + 4_000_000);
            self::assertSame([$from, $from + 4_000_000], [$turns[0]->fromMs, $turns[count($turns) - 1]->toMs]);
            foreach ($turns as $n => $turn) {
                self::assertSame($turns[$n + 1]->fromMs ?? $from + 4_000_000, $turn->toMs, 'without hole');
                $rounds += $turn->loop->periodMs === null ? 0 : 1;
            }
            for ($n = 0; $n < 60; $n++) {
                $at = $random->getInt($from, $from + 3_999_999);
                $turn = array_values(array_filter($turns, static fn ($one): bool => $one->fromMs <= $at && $at < $one->toMs))[0];
                $list = $course->list($turn->loop->items[$turn->loop->slotAt($turn->loop->position($at - $turn->anchorMs))]);
                self::assertSame(self::counted($items, $overlays, $at - $anchor), array_map(static fn (InForce $one): string => $one->overlay->id, $list), "round $i at $at");
                self::assertSame(self::ids($course->at($at)->standing), self::ids($list), "round $i at $at");
                $looked++;
            }
        }
        self::assertSame([Make::rounds(30) * 60, true], [$looked, $rounds > 20]);
    }

    /** Each occurrence begins at the end of an n-th item; what is shown in it counts from there. */
    public function testItBeginsAnewAfterEveryThird(): void
    {
        $items = [Make::picture('a', durationMs: 7000), Make::picture('b', durationMs: 4000)];
        $overlay = ['when' => ['after' => ['every' => 3], 'lasts_ms' => 2500]] + OverlayDocuments::takeover();
        $course = self::course([Make::zone('z', 0, 0, 1920, 1080, $items)], [$overlay]);
        $turns = $course->occurrences($course->overlays->all[0], 100_000, 200_000);
        self::assertCount(1, $turns);
        // The third item ends at 18 s, the sixth at 33 s, and so again every 33 s.
        self::assertSame([18_000, 33_000, [15_000, 18_000]], [$turns[0]->anchorMs, $turns[0]->loop->periodMs, $turns[0]->loop->lengths]);
        self::assertSame([[], ['takeover'], []], array_map(static fn (int $ms): array => self::ids($course->at($ms)->standing), [17_999, 18_000, 20_500]));
    }

    /** A list that ends has no round: what comes after its last item never does. */
    public function testAfterAListWithoutEndNothingComes(): void
    {
        $items = [Make::picture('a', durationMs: 7000), Make::picture('b', durationMs: 4000), ['lasts' => 'endless'] + array_diff_key(Make::picture('c'), ['duration_ms' => 1])];
        $overlay = ['when' => ['after' => ['every' => 2], 'lasts_ms' => 3000]] + OverlayDocuments::takeover();
        $course = self::course([Make::zone('z', 0, 0, 1920, 1080, $items)], [$overlay]);
        $found = array_map(static fn ($turn): array => [$turn->fromMs, self::ids($course->list($turn->loop->items[0]))], $course->between(0, 100_000));
        self::assertSame([[0, []], [11_000, ['takeover']], [14_000, []]], $found);
        self::assertSame([11_000, 14_000], [$course->nextChange(0), $course->nextChange(11_000)]);
    }

    /** Rounds that are longer than can be written are written out; what is more than that is refused in words. */
    public function testWhatIsTooMuchIsRefused(): void
    {
        $items = array_map(static fn (int $n): array => Make::picture("i$n", durationMs: 1000 + $n), range(0, 12));
        $after = static fn (int $every): array => ['id' => "o$every", 'when' => ['after' => ['every' => $every], 'lasts_ms' => 400]] + OverlayDocuments::window();
        $overlays = array_map($after, [7, 11, 17, 19, 23, 29]);
        $course = self::course([Make::zone('z', 0, 0, 1920, 1080, $items)], $overlays);
        self::assertGreaterThan(500, count($course->between(0, 3_600_000)));
        $this->expectException(BudgetExceeded::class);
        $course->between(0, 92 * 86_400_000);
    }

    /** In the table of all changes, when something in it is first seen, and what another handover would change. */
    public function testTheyAreToldFoundAndCompared(): void
    {
        $when = ['bookings' => [['start' => '2026-06-06T09:00:00', 'end' => '2026-06-06T13:00:00', 'rrule' => 'FREQ=WEEKLY;BYDAY=SA']]];
        $sign = Make::layout([Make::zone('s', 0, 0, 900, 900, [['media' => ['id' => 'market'] + Make::picture()['media']] + Make::picture('m')])], id: 'sign');
        $window = ['when' => $when, 'name' => 'Market'] + OverlayDocuments::window();
        $now = ['bookings' => [['start' => '2026-06-01T10:00:00Z', 'end' => '2026-06-01T10:05:00Z']]];
        $alarm = ['reason' => 'Smoke', 'plays' => ['layout' => 'sign'], 'when' => $now] + OverlayDocuments::takeover();
        $after = ['id' => 'after', 'when' => ['after' => ['every' => 3], 'lasts_ms' => 12_000, 'until' => '2026-06-01T12:00:00']] + OverlayDocuments::window();
        $base = Make::layout([Make::zone('z', 0, 0, 1920, 1080, [Make::picture()])]);
        $programme = RandomOverlaid::over($base, [$window, $alarm, $after], [$sign], 'Europe/Lisbon')->programme;
        $from = Instant::parse('2026-06-01T08:00:00Z')->ms;
        $stretches = array_filter(Course::of($programme, $from, $from + 7 * 86_400_000, false)->stretches, static fn ($one): bool => $one->kind === 'overlay');
        self::assertSame([
            ['after', '2026-06-01T08:00:00Z', '2026-06-01T11:00:00Z', 'after every 3 items, for 12 s'],
            ['takeover', '2026-06-01T10:00:00Z', '2026-06-01T10:05:00Z', 'takeover: Smoke'],
            ['window', '2026-06-06T08:00:00Z', '2026-06-06T12:00:00Z', 'window'],
        ], array_map(static fn ($one): array => [$one->id, $one->toArray()['from'], $one->toArray()['to'], $one->why], array_values($stretches)));
        self::assertSame('2026-06-01T08:00:00Z', FirstShown::of($programme, SearchTarget::media('market'), $from)?->toArray()['at']);
        $without = RandomOverlaid::over($base, [$window], [$sign], 'Europe/Lisbon')->programme;
        $first = FirstShown::of($without, SearchTarget::layout('sign'), $from);
        self::assertSame(['2026-06-06T08:00:00Z', 'in the window "Market"'], [$first?->toArray()['at'], $first?->why]);
        self::assertSame(['The takeover "Takeover" lies above.', 'The window "Window" lies above.'], self::sorted($programme->changesFrom($without)));
        self::assertSame(['"Takeover" no longer lies above.', '"Window" no longer lies above.'], self::sorted($without->changesFrom($programme)));
        $later = RandomOverlaid::over($base, [['when' => 'always', 'volume' => 40] + $window], [$sign], 'Europe/Lisbon')->programme;
        self::assertSame(['"Market" is shown at other times, changes its volume.'], $later->changesFrom($without));
        self::assertSame([], $later->changesFrom($later));
    }

    /**
     * Counted one by one, with nothing of the core: the items that have ended, and the item that is due.
     *
     * @param array<mixed> $items
     * @param array<mixed> $overlays
     * @return list<string>
     */
    private static function counted(array $items, array $overlays, int $since): array
    {
        [$at, $ended, $ends] = [0, 0, array_fill_keys(array_column($overlays, 'id'), null)];
        $due = null;
        while ($at <= $since) {
            $due = $items[$ended % count($items)];
            $at += $due['duration_ms'];
            if ($at > $since) {
                break;
            }
            $ended++;
            foreach ($overlays as $one) {
                if (is_array($one['when']) && $ended % $one['when']['after']['every'] === 0) {
                    $ends[$one['id']] = $at;
                }
            }
        }
        $standing = array_filter($overlays, static fn (array $one): bool => !in_array($one['id'], $due['overlays']['without'] ?? [], true)
            && (!is_array($one['when']) || ($ends[$one['id']] !== null && $since - $ends[$one['id']] < $one['when']['lasts_ms'])));
        usort($standing, static fn (array $a, array $b): int => [$a['kind'] === 'mark', $a['id']] <=> [$b['kind'] === 'mark', $b['id']]);

        return array_column($standing, 'id');
    }

    /**
     * @param list<InForce> $standing
     * @return list<string>
     */
    private static function ids(array $standing): array
    {
        return array_map(static fn (InForce $one): string => $one->overlay->id, $standing);
    }

    /**
     * @param list<string> $words
     * @return list<string>
     */
    private static function sorted(array $words): array
    {
        sort($words);

        return $words;
    }

    /**
     * @param list<array<string, mixed>> $elements
     * @param list<array<string, mixed>> $overlays
     */
    private static function course(array $elements, array $overlays, int $anchorMs = 0): OverlayCourse
    {
        $layout = Composer::over(Library::of([]), new Surroundings('UTC', new Typewriter()))->layout(Layout::fromArray(Make::layout($elements)));

        return new OverlayCourse(Programme::endless($layout, 'UTC', $anchorMs)->base, Overlays::of(...array_map(Overlay::fromArray(...), $overlays)));
    }
}
