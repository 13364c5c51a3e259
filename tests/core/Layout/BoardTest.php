<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Data\Snapshot;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Kind\Board\Boards;
use UpperPane\Core\Layout\Kind\Board\Grid;
use UpperPane\Core\Layout\Kind\Board\Paging;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/**
 * Boards: what has room, how it is paged, what is told and when it changes.
 *
 * @phpstan-import-type Doc from Make
 */
final class BoardTest extends TestCase
{
    /** Check value of computation.md 6 (common practice, no source): 15 rows, 5 to a page, 5 s each; 6 fields are 90 values. */
    public function testFifteenRowsOfFiveAreThreePagesOfFiveSeconds(): void
    {
        $board = Make::board('{a} {b} {c} {d, number} {e} {a}', 840, 160, at_most: 5, gap: 8, page_ms: 5000);
        $board['pattern']['elements'][] = Make::told('more', '{f, plural, one {#} other {#}}');
        $figures = self::figures($board, self::rows(15));

        self::assertSame([15, 5, 15_000, 90, null, null], [$figures['rows'], $figures['at_once'], $figures['total_ms'], $figures['values'], $figures['changes_at'], $figures['legible_rows']]);
        self::assertSame([
            ['rows' => [0, 1, 2, 3, 4], 'start_ms' => 0, 'length_ms' => 5000],
            ['rows' => [5, 6, 7, 8, 9], 'start_ms' => 5000, 'length_ms' => 5000],
            ['rows' => [10, 11, 12, 13, 14], 'start_ms' => 10_000, 'length_ms' => 5000],
        ], $figures['pages']);
    }

    /** @param list<int> $want */
    #[DataProvider('pages')]
    public function testPagesAreBalancedOrFilled(int $rows, int $atOnce, bool $balanced, array $want): void
    {
        self::assertSame($want, Paging::sizes($rows, $atOnce, $balanced));
    }

    /** @return iterable<array{int, int, bool, list<int>}> formats-data.md, Boards */
    public static function pages(): iterable
    {
        yield [16, 5, true, [4, 4, 4, 4]];
        yield [17, 5, true, [5, 4, 4, 4]];
        yield [16, 5, false, [5, 5, 5, 1]];
        yield [0, 5, true, [0]];
        yield [0, 5, false, [0]];
        yield [1, 5, true, [1]];
        yield [5, 5, false, [5]];
    }

    /** @param list<array{int, int}> $want */
    #[DataProvider('grids')]
    public function testRowsHavePlacesInLinesDownOrAcross(bool $isDown, int $across, ?int $atMost, array $want): void
    {
        $grid = Grid::of(Size::px(620, 340), Size::px(200, 100), 20, $isDown, $across, 10, $atMost);
        self::assertSame($want, array_map(static fn (int $place): array => [$grid->place($place)->x, $grid->place($place)->y], $grid->atOnce === 0 ? [] : range(0, $grid->atOnce - 1)));
    }

    /** @return iterable<array{bool, int, ?int, list<array{int, int}>}> */
    public static function grids(): iterable
    {
        yield 'three have room, since the last needs no gap' => [true, 1, null, [[0, 20], [0, 130], [0, 240]]];
        yield 'columns, filled one after the other' => [true, 2, 4, [[0, 20], [0, 130], [0, 240], [210, 20]]];
        yield 'lines across' => [false, 2, 5, [[0, 20], [210, 20], [420, 20], [0, 130], [210, 130]]];
        yield 'four columns do not fit' => [true, 4, null, []];
        yield 'four lines do not fit' => [false, 4, null, []];
    }

    public function testReadingTimeCountsAllWordsOfTheLongestPage(): void
    {
        // 1,000 + 2 x words x 60,000 / 180, rounded up to 100.
        self::assertSame([1000, 1700, 2400, 3000, 7700], array_map(Paging::readMs(...), [0, 1, 2, 3, 10]));
        // Three rows of two words on a page, four pages, and the page that is told.
        $board = Make::board('{to} Quay', 300, 100, continued: ['text' => '{page} of {pages}', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'style' => ['size_px' => 9]]);
        self::assertSame(7000, self::figures($board, self::rows(12))['pages'][0]['length_ms'], '9 words');
        self::assertSame([['rows' => [], 'start_ms' => 0, 'length_ms' => 1000]], self::figures($board, [])['pages']);
        self::assertSame(5000, self::figures(['page_ms' => 5000] + $board, [])['total_ms']);
    }

    public function testThingsSayWhichRowAndWhichPartTheyAre(): void
    {
        $style = ['family' => Typewriter::FAMILY, 'size_px' => 20];
        $small = ['x' => 0, 'y' => 0, 'width' => 60, 'height' => 20];
        $board = Make::board(
            '{to}',
            320,
            100,
            header: ['height' => 20, 'elements' => [
                ['id' => 'title', 'kind' => 'text', 'rect' => $small, 'text' => 'Boats {to}', 'style' => $style],
                Make::told('which', '{from} to {to} of {count}, {page}/{pages} {taken, date, yyyy}'),
            ]],
            stripe: '#00000020',
            highlight: [['where' => [['field' => 'late', 'is' => 'equals', 'value' => true]], 'fill' => '#a3262a'], ['where' => [], 'fill' => '#112233']],
            continued: ['text' => '{page}/{pages}', 'rect' => $small, 'style' => $style],
            page_ms: 4000,
            balance: false,
        );
        $rows = [['to' => 'Tolm', 'late' => true], ['to' => 'Vennick'], ['to' => 'Great Pellan'], ['to' => 'Hare Skerry']];
        $things = array_map(
            static fn (array $thing): array => [$thing['row'] ?? '', $thing['part'], $thing['text'] ?? $thing['fill'] ?? '', $thing['rect']['y']],
            self::shown($board, Make::fed($rows, Instant::parse('2026-06-01T00:00:00Z')->ms), 1000),
        );
        self::assertSame([
            ['', 'title', 'Boats {to}', 20],
            ['', 'which', '1 to 3 of 4, 1/2 2026', 20],
            [0, 'highlight', '#a3262a', 40], [0, 'to', 'Tolm', 40],
            [1, 'stripe', '#00000020', 140], [1, 'highlight', '#112233', 140], [1, 'to', 'Vennick', 140],
            [2, 'highlight', '#112233', 240], [2, 'to', 'Great Pellan', 240],
            ['', 'continued', '1/2', 20],
        ], $things);
        $last = self::shown($board, Make::fed($rows), 5000);
        self::assertSame(['Boats {to}', '4 to 4 of 4, 2/2 –', '#112233', 'Hare Skerry', '2/2'], array_map(static fn (array $one): string => $one['text'] ?? $one['fill'] ?? '', $last));
        self::assertSame(3, $last[3]['row']);
        self::assertSame('board', $last[3]['element']);
        self::assertArrayNotHasKey('continued', array_flip(array_column(self::shown($board, Make::fed([$rows[0]]), 1000), 'part')), 'one page goes on nowhere');
    }

    public function testWithoutRowsStandsWhatIsSaid(): void
    {
        $board = Make::board(empty: ['elements' => [Make::told('none', 'No boats, {count}')]]);
        self::assertSame(['No boats, 0'], array_column(self::shown($board, Make::fed([]), 0), 'text'));
        self::assertSame([], self::shown(Make::board(), Make::fed([]), 0));
    }

    /**
     * A page that stands ends, then the new rows follow from their first: held against a clock that ticks, over random sailings that leave.
     */
    public function testRowsGoAtTheEndOfAPage(): void
    {
        $random = Make::random(140);
        for ($round = 0; $round < 20; $round++) {
            $rows = array_map(static fn (int $n): array => ['to' => "P$n", 'departs' => (string) Instant::ofMs(500 * $random->getInt(0, 200))], range(1, $random->getInt(1, 14)));
            $where = [['field' => 'departs', 'is' => 'upcoming', 'from_min' => -2 / 60, 'to_min' => $random->getInt(20, 90) / 60]];
            $board = Make::board(rows: ['source' => 's', 'where' => $where], page_ms: 500 * $random->getInt(2, 12), at_most: $random->getInt(1, 4));
            $feeds = Make::fed($rows);
            $shown = Make::shownAt(Make::composed(Make::layout([$board]), null, self::surroundings($feeds)), 0, self::surroundings($feeds));
            $chosen = static fn (int $at): array => array_values(array_map(static fn (array $row): string => $row['to'], array_filter($rows, static function (array $row) use ($at, $where): bool {
                $departs = Instant::parse($row['departs'])->ms;

                return $departs - 60_000 * $where[0]['to_min'] <= $at && $at < $departs + 2000;
            })));
            [$now, $page, $left] = [$chosen(0), 0, $board['page_ms']];
            for ($at = 0; $at < 120_000; $at += 500) {
                if ($left === 0) {
                    $then = $chosen($at);
                    [$now, $page, $left] = [$then, $then === $now ? $page + 1 : 0, $board['page_ms']];
                }
                $sizes = Paging::sizes(count($now), min(4, $board['at_most']), true);
                $page %= count($sizes);
                self::assertSame(
                    array_slice($now, array_sum(array_slice($sizes, 0, $page)), $sizes[$page]),
                    array_map(static fn (array $thing): string => $thing['text'], $shown->at($at)->toArray()['things']),
                    "round $round at $at",
                );
                $left -= 500;
            }
        }
    }

    public function testNewDataFollowAtTheEndOfAPageAndAHighlightComesByItself(): void
    {
        $feeds = Feeds::of(['s' => [
            new Snapshot(Make::tree([['to' => 'A'], ['to' => 'B'], ['to' => 'C']])),
            new Snapshot(Make::tree([['to' => 'D', 'soon' => '1970-01-01T00:01:40Z']]), 1000, 12_000),
        ]]);
        $highlight = [['where' => [['field' => 'soon', 'is' => 'upcoming', 'to_min' => 1]], 'fill' => '#a3262a']];
        $board = Make::board(at_most: 1, page_ms: 5000, highlight: $highlight);
        $told = static fn (int $at): string => implode(' ', array_map(static fn (array $one): string => $one['text'] ?? $one['part'], self::shown($board, $feeds, $at)));
        self::assertSame(
            ['A', 'B', 'C', 'C', 'D', 'D', 'highlight D', 'D'],
            array_map($told, [4999, 9999, 12_001, 14_999, 15_000, 39_999, 40_000, 100_000]),
        );
    }

    public function testDataThatAreTooOldAreMarkedOrCovered(): void
    {
        $feeds = Make::fed([['to' => 'A'], ['to' => 'B']], 0, 7000);
        $marked = Make::board(at_most: 1, page_ms: 5000, stale: 'mark');
        $covered = Make::board(at_most: 1, page_ms: 5000, stale: ['elements' => [Make::told('late', 'Ask at the desk')]]);
        $told = static fn (array $board, int $at): array => array_map(static fn (array $one): string => strtr($one['text'] ?? '', ["\u{202f}" => ' ']), self::shown($board, $feeds, $at));
        self::assertSame([['B'], ['B', '1/1/70, 12:00 AM']], [$told($marked, 7000), $told($marked, 7001)]);
        self::assertSame([['B'], ['Ask at the desk']], [$told($covered, 7000), $told($covered, 7001)]);
        self::assertSame([['B'], ['B']], [$told(Make::board(at_most: 1, page_ms: 5000), 7001), $told(Make::board(at_most: 1, page_ms: 5000), 9000)], 'where nothing is said it goes on');
    }

    public function testAnItemLastsAsLongAsTheBoardInIt(): void
    {
        $item = ['id' => 'b', 'layout' => Make::layout([Make::board(height: 500, page_ms: 5000)])];
        $zone = Make::zone('z', 0, 0, 1920, 1080, [$item, Make::picture('p', durationMs: 4000)]);
        $composed = Make::composed(Make::layout([$zone]), null, self::surroundings(Make::fed(self::rows(15))));
        self::assertSame([15_000, 4000], $composed->loops['z']->lengths);
        // A row that goes takes a page with it: the item that runs keeps its length, the next has the new one.
        $until = static fn (int $n): string => $n === 0 ? '1970-01-01T00:00:07Z' : '2030-01-01T00:00:00Z';
        $rows = array_map(static fn (int $n): array => ['to' => "P$n", 'until' => $until($n)], range(0, 5));
        $item['layout']['elements'][0]['rows'] = ['source' => 's', 'where' => [['field' => 'until', 'is' => 'upcoming']]];
        $zone['playlist']['items'][0] = $item;
        $surroundings = self::surroundings(Make::fed($rows));
        $shown = Make::shownAt(Make::composed(Make::layout([$zone]), null, $surroundings), 0, $surroundings);
        $first = static fn (int $at): string => (string) ($shown->at($at)->toArray()['things'][1]['text'] ?? 'picture');
        self::assertSame(['P0', 'P3', 'picture', 'P1', 'picture', 'P1'], array_map($first, [4999, 9999, 10_000, 14_000, 19_000, 23_000]));
    }

    /** @return iterable<string, array{array<string, mixed>, list<array<string, mixed>>, list<string>}> */
    public static function faults(): iterable
    {
        $clean = ['page_ms' => 60_000];
        yield 'nothing is wrong' => [Make::board(...$clean), [['to' => 'Tolm']], []];
        yield 'board.room' => [Make::board(pattern: 401), [['to' => 'Tolm']], ['board.room']];
        yield 'board.empty' => [Make::board(...$clean), [], ['board.empty']];
        yield 'board.empty, but something stands there' => [['empty' => ['elements' => []]] + Make::board(...$clean), [], []];
        yield 'board.overflow' => [
            Make::board(...$clean),
            [['to' => 'Tolm'], ['to' => 'Hare Skerry, North Landing by the Old Light and further on still to the east, where nobody goes']],
            ['board.overflow'],
        ];
        yield 'board.brisk' => [Make::board(page_ms: 1600), [['to' => 'Tolm']], ['board.brisk']];
        yield 'data.missing' => [Make::board(...$clean), [['to' => 'Tolm'], ['to' => null]], ['data.missing']];
        $typed = ['rows' => ['source' => 's', 'fields' => ['to' => ['of' => '$.to', 'type' => 'number']]]];
        yield 'data.unreadable' => [$typed + Make::board(...$clean), [['to' => 3], ['to' => 'x']], ['data.missing', 'data.unreadable']];
        yield 'data.unknown' => [['rows' => ['source' => 'other']] + Make::board(...$clean), [], ['data.unknown']];
    }

    /**
     * @param Doc $board
     * @param list<array<string, mixed>> $rows
     * @param list<string> $want
     */
    #[DataProvider('faults')]
    public function testWhatIsFound(array $board, array $rows, array $want): void
    {
        $found = self::findings($board, Make::fed($rows));
        self::assertSame(
            $want,
            array_values(array_filter(array_map(static fn (Finding $one): string => $one->code, $found), static fn (string $code): bool => !str_starts_with($code, 'text.contrast'))),
        );
    }

    public function testTheFindingsHaveTheirFigures(): void
    {
        $missing = self::found('data.missing', Make::board('{to} {berth}', page_ms: 60_000), Make::fed([['to' => 'A', 'berth' => 1], ['to' => 'B'], ['x' => 1]]));
        self::assertSame(['arguments' => ['berth', 'to'], 'count' => 3, 'row' => 1], $missing->measure);
        $long = str_repeat('x', 61);
        $over = self::found('board.overflow', Make::board(page_ms: 60_000), Make::fed([['to' => 'A'], ['to' => $long]]));
        self::assertSame(['part' => 'to', 'row' => 1, 'width_px' => 600.0, 'height_px' => 144.0, 'over_px' => ['width' => 0.0, 'height' => 44.0], 'fits_px' => 38], $over->measure);
        self::assertSame(38, $over->cures[0]->fields['pattern']['elements'][0]['style']['size_px']);
        self::assertSame(['age_s' => 9, 'source' => 's'], self::found('data.stale', Make::board(page_ms: 60_000), Make::fed([['to' => 'A']], -9000, 8000))->measure);
    }

    /** 2 x atan(cap / 2d): at 10 m from the eye 16 arc minutes are 46.54 mm; a capital of 28 px of 0.49 mm has 13.7 mm. */
    public function testItSaysHowManyRowsCouldStillBeRead(): void
    {
        $display = Display::fromArray(Make::display());
        $board = Make::board('{to}', 1000, 100, page_ms: 60_000);
        $figures = self::figures($board, self::rows(10), $display);
        $mmPerPx = 941.2 / 1920;
        $farthest = $display->viewing->farthestEyeMm();
        $needed = 2 * $farthest * tan(deg2rad(16 / 60) / 2) / (28 * $mmPerPx);
        self::assertSame([10, (int) floor(10 / $needed)], [$figures['at_once'], $figures['legible_rows']]);
        $found = array_values(array_filter(self::findings($board, Make::fed(self::rows(10)), $display), static fn (Finding $one): bool => in_array($one->code, ['board.small', 'text.small'], true)));
        self::assertSame(['board.small'], array_map(static fn (Finding $one): string => $one->code, $found), 'it is told once');
        self::assertSame(['at_most' => $figures['legible_rows']], $found[0]->cures[0]->fields);
    }

    /** Words on a highlight are judged on its colour. */
    public function testContrastKnowsWhatTheBoardPaintsBelowItsWords(): void
    {
        $board = Make::board(page_ms: 60_000);
        $board['pattern']['elements'][0]['style'] += ['color' => '#ffffff'];
        $document = static fn (string $fill): array => ['background' => ['color' => '#000000']] + Make::layout([$board + ['highlight' => [['where' => [], 'fill' => $fill]]]]);
        $codes = static fn (string $fill): array => array_map(
            static fn (Finding $one): string => $one->code,
            Checks::run(Make::composed($document($fill), null, self::surroundings(Make::fed(self::rows(1)))), self::surroundings(Make::fed([])))->all,
        );
        self::assertSame([[], ['text.contrast']], [$codes('#7a1a1d'), $codes('#f0f0f0')]);
    }

    public function testAllThatIsInItGrowsAndIsFound(): void
    {
        $board = Kinds::read(Node::root(Make::board(
            '{to}',
            400,
            100,
            header: ['height' => 20, 'elements' => []],
            gap: 3,
            continued: ['text' => '{page}', 'rect' => ['x' => 3, 'y' => 0, 'width' => 9, 'height' => 9], 'style' => ['size_px' => 10]],
        )));
        $scaled = $board->scaled(Rect::at(0, 0, 1200, 800), 2.0)->toArray();
        self::assertSame(
            [['width' => 1200, 'height' => 200], 80, 1200],
            [$scaled['pattern']['size'], $scaled['pattern']['elements'][0]['style']['size_px'], $scaled['pattern']['elements'][0]['rect']['width']],
        );
        self::assertSame(
            [40, 6, ['x' => 6, 'y' => 0, 'width' => 18, 'height' => 18], 20],
            [$scaled['header']['height'], $scaled['gap'], $scaled['continued']['rect'], $scaled['continued']['style']['size_px']],
        );
    }

    /** @param array<string, mixed> $change */
    #[DataProvider('wrong')]
    public function testWhatCannotBeReadIsRefused(array $change, string $path): void
    {
        try {
            self::shown($change + Make::board(), Make::fed([], isStrict: true), 0);
            self::fail('refused');
        } catch (Refused $e) {
            self::assertSame("/elements/0$path", $e->path);
        }
    }

    /** @return iterable<array{array<string, mixed>, string}> */
    public static function wrong(): iterable
    {
        $with = static fn (array $element): array => ['pattern' => ['size' => ['width' => 9, 'height' => 9], 'elements' => [$element]]];
        yield [['rows' => ['source' => 'other']], '/rows/source'];
        yield [$with(Make::told('a', '{to')), '/pattern/elements/0/text'];
        yield [$with(Make::zone('a', 0, 0, 9, 9)), '/pattern/elements/0/kind'];
        yield [$with(Make::told('a', '{to}', rows: ['source' => 's'])), '/pattern/elements/0/rows'];
        yield [['page_ms' => 'soon'], '/page_ms'];
        yield [['page_ms' => 300, 'transition' => ['kind' => 'fade', 'ms' => 301]], '/transition/ms'];
        yield [['stale' => 'never'], '/stale'];
        yield [['rows' => ['source' => 's', 'fields' => ['to' => '$.to']], 'highlight' => [['where' => [['field' => 'late', 'is' => 'missing']], 'fill' => '#ffffff']]], '/highlight/0/where/0/field'];
        yield [['continued' => ['text' => '{', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'style' => ['size_px' => 9]]], '/continued/text'];
    }

    /** @return list<array<string, mixed>> */
    private static function rows(int $count): array
    {
        return $count === 0 ? [] : array_map(static fn (int $n): array => ['to' => "P$n", 'a' => 'a', 'b' => 'b', 'c' => 'c', 'd' => 4, 'e' => 'e', 'f' => 1], range(1, $count));
    }

    private static function surroundings(Feeds $feeds): Surroundings
    {
        return (new Surroundings('UTC', new Typewriter()))->fed($feeds);
    }

    /**
     * @param Doc $board
     * @param list<array<string, mixed>> $rows
     * @return array<string, mixed>
     */
    private static function figures(array $board, array $rows, ?Display $display = null): array
    {
        $surroundings = self::surroundings(Make::fed($rows))->on($display)->in('UTC');

        return Boards::of(Make::composed(Make::layout([$board]), null, $surroundings), $surroundings)['board'];
    }

    /**
     * @param Doc $board
     * @return list<array<string, mixed>>
     */
    private static function shown(array $board, Feeds $feeds, int $at): array
    {
        $surroundings = self::surroundings($feeds);

        return Make::shownAt(Make::composed(Make::layout([$board]), null, $surroundings), 0, $surroundings)->at($at)->toArray()['things'];
    }

    /** @param Doc $board */
    private static function found(string $code, array $board, Feeds $feeds): Finding
    {
        return array_values(array_filter(self::findings($board, $feeds), static fn (Finding $one): bool => $one->code === $code))[0];
    }

    /**
     * @param Doc $board
     * @return list<Finding>
     */
    private static function findings(array $board, Feeds $feeds, ?Display $display = null): array
    {
        $surroundings = self::surroundings($feeds)->on($display)->in('UTC');

        return Checks::run(Make::composed(Make::layout([$board]), null, $surroundings), $surroundings)->all;
    }
}
