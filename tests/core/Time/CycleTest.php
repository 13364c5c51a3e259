<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Time\Cycle;
use UpperPane\Core\Time\CycleFigures;
use UpperPane\Core\Time\Playlist;
use UpperPane\Tests\Core\Make;

/**
 * The order in which items come: `A*3` comes three times a round, `-B` is tied to the item before it, `.C` is off.
 *
 * @phpstan-import-type Doc from Make
 */
final class CycleTest extends TestCase
{
    #[DataProvider('lists')]
    public function testComesInOrder(string $list, ?int $every, string $extras, string $cycle): void
    {
        self::assertSame($cycle, self::cycle(self::playlist($list, $every, $extras)));
    }

    /** @return iterable<string, array{string, ?int, string, string}> */
    public static function lists(): iterable
    {
        yield 'one after the other' => ['A B C', null, '', 'A B C'];
        yield 'what is off is left out' => ['A .B C', null, '', 'A C'];
        yield 'nothing at all' => ['', null, '', ''];
        yield 'two extras after every two' => ['A B C D', 2, 'X Y', 'A B X C D Y'];
        yield 'extras counting on across rounds' => ['A B C', 2, 'X', 'A B X C A X B C X'];
        yield 'two extras after every second of three' => ['A B C', 2, 'X Y', 'A B X C A Y B C X A B Y C A X B C Y'];
        yield 'after each' => ['A B', 1, 'X Y', 'A X B Y'];
        yield 'more extras than places' => ['A B', 2, 'X Y Z', 'A B X A B Y A B Z'];
        yield 'rarer than a round' => ['A B', 4, 'X', 'A B A B X'];
        yield 'no extras that are on' => ['A B', 2, '.X', 'A B'];
        yield 'nothing to put them between' => ['', 2, 'X', ''];
        yield 'twice as often, apart' => ['A*2 B C D', null, '', 'A B A C D'];
        yield 'half of the time' => ['A*3 B C D', null, '', 'A B A C A D'];
        yield 'two heavy ones' => ['A*2 B*2 C', null, '', 'A B A B C'];
        yield 'one heavy behind' => ['A B C D*2', null, '', 'D A B C D'];
        yield 'as often as all, which is as often as once' => ['A*2 B*2', null, '', 'A B A B'];
        yield 'tied ones stay together' => ['A -B C', null, '', 'A B C'];
        yield 'also when they come more often' => ['A*2 -B C D', null, '', 'A B C A B D'];
        yield 'and count as one' => ['A -B C D -E', 2, 'X', 'A B C X D E A B X C D E X'];
        yield 'tied extras' => ['A B', 1, 'X -Y', 'A X Y B X Y'];
        yield 'tied to one that is off' => ['A .B -C D', null, '', 'A C D'];
        yield 'weighted extras' => ['A B', 1, 'X*2 Y', 'A X B X A Y B X A X B Y'];
    }

    /** The property: a unit that comes w times of T is never a whole turn ahead of or behind its even share. */
    public function testWeightsAreSpreadEvenly(): void
    {
        $random = Make::random(9);
        for ($round = 0; $round < 60; $round++) {
            $weights = array_map(static fn (): int => $random->getInt(1, 12), range(1, $random->getInt(2, 9)));
            $list = implode(' ', array_map(static fn (int $weight, int $n): string => chr(65 + $n) . "*$weight", $weights, array_keys($weights)));
            $cycle = explode(' ', self::cycle(self::playlist($list)));
            $total = array_sum($weights);
            self::assertCount($total, $cycle);
            $come = array_fill(0, count($weights), 0);
            $furthest = 0.0;
            foreach ($cycle as $turn => $letter) {
                $come[ord($letter) - 65]++;
                foreach ($weights as $item => $weight) {
                    $furthest = max($furthest, abs($come[$item] - ($turn + 1) * $weight / $total));
                }
            }
            self::assertLessThan(1.0, $furthest, $list);
            self::assertSame($weights, $come);
        }
    }

    public function testTheLengthIsKnownBeforeItIsWrittenOut(): void
    {
        $random = Make::random(10);
        for ($round = 0; $round < 80; $round++) {
            $make = static function (int $first) use ($random): string {
                $words = [];
                for ($n = 0, $count = $random->getInt(0, 5); $n < $count; $n++) {
                    $words[] = ['', '', '', '-', '.'][$random->getInt(0, 4)] . chr($first + $n) . ($random->getInt(0, 2) === 0 ? '*' . $random->getInt(2, 4) : '');
                }

                return implode(' ', $words);
            };
            $playlist = self::playlist($make(65), $random->getInt(1, 4), $make(80));
            $on = static fn (array $items): array => array_values(array_filter($items, static fn ($item): bool => $item->enabled));
            self::assertSame(count($playlist->cycle()), Cycle::length($on($playlist->items), $on($playlist->extras), $playlist->every));
        }
    }

    public function testACycleThatCannotBeWrittenOutIsRefused(): void
    {
        $many = implode(' ', array_map(static fn (int $n): string => "i$n", range(1, 997)));
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('makes a loop of 1,096,700 slots before all begins again; 100,000 are the most');
        Composer::over()->playlist(self::playlist($many, 10, implode(' ', array_map(static fn (int $n): string => "x$n", range(1, 100)))));
    }

    public function testPlaysAnHourAndSharesAreThoseOfTheCycle(): void
    {
        $document = ['format' => Playlist::FORMAT, 'id' => 'p', 'name' => 'P', 'items' => [
            Make::picture('A', durationMs: 10_000), Make::film('B', 15_000), Make::picture('C', durationMs: 5000, enabled: false),
        ], 'interleave' => ['every' => 2, 'items' => [Make::picture('X', durationMs: 5000)]]];
        $zone = Make::list($document, Library::empty())->zones['whole'];
        $figures = CycleFigures::of($zone->loop(null), $zone->playlist->all(), $zone->playlist->enabled());

        self::assertSame([30_000, 3, ['A', 'B', 'X']], [$figures['cycle_ms'], $figures['cycle_items'], $figures['cycle']]);
        self::assertSame([
            ['id' => 'A', 'plays' => 1, 'plays_per_hour' => 120.0, 'share' => 0.333333],
            ['id' => 'B', 'plays' => 1, 'plays_per_hour' => 120.0, 'share' => 0.5],
            ['id' => 'C', 'plays' => 0, 'plays_per_hour' => 0, 'share' => 0],
            ['id' => 'X', 'plays' => 1, 'plays_per_hour' => 120.0, 'share' => 0.166667],
        ], $figures['items']);
    }

    public function testOneWithoutEndHasAllTheTimeInTheLongRun(): void
    {
        $document = ['format' => Playlist::FORMAT, 'id' => 'p', 'name' => 'P', 'items' => [Make::picture('A'), ['lasts' => 'endless'] + Make::film('B'), Make::picture('C')]];
        $zone = Make::list($document, Library::empty())->zones['whole'];
        $figures = CycleFigures::of($zone->loop(null), $zone->playlist->all(), $zone->playlist->enabled());
        self::assertSame([null, ['A', 'B'], [0, 1, 0]], [$figures['cycle_ms'], $figures['cycle'], array_column($figures['items'], 'share')]);
    }

    public function testExtrasOfAnotherListComeUnderItsNameAndNotInACircle(): void
    {
        $notices = ['format' => Playlist::FORMAT, 'id' => 'notices', 'name' => 'Notices', 'items' => [Make::picture('i1'), Make::picture('i2')]];
        $round = ['format' => Playlist::FORMAT, 'id' => 'round', 'name' => 'Round', 'items' => [Make::picture('i1')], 'interleave' => ['every' => 1, 'ref' => 'notices']];
        self::assertSame('i1 notices/i1 i1 notices/i2', self::cycle(Make::list($round, Library::of([$notices]))->zones['whole']->playlist));
        foreach ([['round' => $round], ['notices' => ['interleave' => ['every' => 1, 'items' => []]] + $notices], []] as $given) {
            try {
                Make::list($round, Library::of(array_values($given)));
                self::fail('It was read.');
            } catch (Refused $e) {
                self::assertSame('/interleave/ref', $e->path);
            }
        }
    }

    public static function playlist(string $list, ?int $every = null, string $extras = ''): Playlist
    {
        return Playlist::fromNode(Node::root(['items' => self::items($list)] + ($every === null ? [] : ['interleave' => ['every' => $every, 'items' => self::items($extras)]])));
    }

    /** @return list<Doc> */
    private static function items(string $list): array
    {
        $items = [];
        foreach ($list === '' ? [] : explode(' ', $list) as $word) {
            preg_match('/^([-.]?)(\w+)(?:\*(\d+))?$/', $word, $m);
            $items[] = Make::picture($m[2] ?? '', weight: (int) ($m[3] ?? 1), tied: ($m[1] ?? '') === '-', enabled: ($m[1] ?? '') !== '.');
        }

        return $items;
    }

    private static function cycle(Playlist $playlist): string
    {
        $enabled = $playlist->enabled();

        return implode(' ', array_map(static fn (int $item): string => $enabled[$item]->id, $playlist->cycle()));
    }
}
