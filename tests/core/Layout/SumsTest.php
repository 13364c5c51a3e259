<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Division\Neighbours;
use UpperPane\Core\Layout\Division\Sum;
use UpperPane\Core\Layout\Division\Sums;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Tests\Core\Make;

final class SumsTest extends TestCase
{
    /**
     * Divisions of the trade, each zone as x, y, width, height. Common practice, no source.
     *
     * @param list<array{int, int, int, int}> $zones
     * @param list<string> $sums
     */
    #[TestWith([[[0, 0, 1920, 1080]], ['1920', '1080']], 'one zone')]
    #[TestWith([[[0, 0, 1320, 1080], [1320, 0, 600, 1080]], ['1320+600', '1080']], 'main and column: equal lists of heights are one')]
    #[TestWith([[[0, 0, 1320, 880], [1320, 0, 600, 880], [0, 880, 1920, 200]], ['1320+600', '1920', '880+200']], 'with a footer')]
    #[TestWith([[[0, 0, 960, 1080], [960, 0, 960, 540], [960, 540, 960, 540]], ['960+960', '1080', '540+540']], 'a half and two quarters')]
    #[TestWith([[[0, 0, 640, 1080], [640, 0, 640, 1080], [1280, 0, 640, 1080]], ['640+640+640', '1080']], 'thirds')]
    #[TestWith([[[0, 0, 1920, 1080], [100, 100, 50, 50]], ['1920', '1080']], 'an inset counts for nothing')]
    #[TestWith([[[0, 0, 1920, 864], [0, 864, 960, 216], [960, 864, 960, 216], [0, 0, 1920, 864]], ['1920', '960+960', '864+216']], 'two alike on one place count once')]
    #[TestWith([[[0, 0, 1920, 1080], [3000, 0, 50, 50]], ['1920', '1080']], 'nor does what lies outside')]
    public function testAddsUpEachStripOnce(array $zones, array $sums): void
    {
        $found = array_map(static fn (Sum $sum): string => implode('+', $sum->sizes), Sums::of($this->layout($zones)));
        self::assertSame($sums, $found);
    }

    public function testASumIsWrittenAsOneWritesIt(): void
    {
        [$widths] = Sums::of($this->layout([[0, 0, 1320, 1080], [1320, 0, 500, 1080]]));

        self::assertSame('1320 + 500 = 1820 px', $widths->written());
        self::assertSame(-100, $widths->difference());
        self::assertSame(['z0', 'z1'], $widths->elements);
    }

    public function testAnyDivisionIntoWholePixelsAddsUp(): void
    {
        $random = Make::random(6);
        for ($i = 0; $i < 100; $i++) {
            $cut = static function (int $whole, int $parts) use ($random): array {
                $edges = [0, $whole];
                while (count($edges) < $parts + 1) {
                    $edges = array_values(array_unique([...$edges, $random->getInt(1, $whole - 1)]));
                }
                sort($edges);

                return $edges;
            };
            [$xs, $ys] = [$cut(1920, $random->getInt(1, 6)), $cut(1080, $random->getInt(1, 6))];
            $zones = [];
            foreach (array_slice($xs, 0, -1) as $c => $x) {
                foreach (array_slice($ys, 0, -1) as $r => $y) {
                    $zones[] = [$x, $y, $xs[$c + 1] - $x, $ys[$r + 1] - $y];
                }
            }
            foreach (Sums::of($this->layout($zones)) as $sum) {
                self::assertSame(0, $sum->difference());
            }
        }
    }

    public function testTheSweepFindsThePairsThatComparingAllFinds(): void
    {
        $random = Make::random(12);
        for ($i = 0; $i < 100; $i++) {
            $zones = [];
            for ($n = $random->getInt(0, 14); $n >= 0; $n--) {
                $zones[] = [$random->getInt(0, 60), $random->getInt(0, 60), $random->getInt(1, 30), $random->getInt(1, 30)];
            }
            $elements = array_values($this->layout($zones)->zones);
            foreach ([0, 4] as $gap) {
                $found = array_map(static fn (array $pair): string => "{$pair[0]->id()} {$pair[1]->id()}", iterator_to_array(Neighbours::within($elements, $gap), false));
                self::assertSame($this->allPairs($elements, $gap), $found);
            }
        }
    }

    /**
     * @param list<PlayingZone> $elements
     * @return list<string>
     */
    private function allPairs(array $elements, int $gap): array
    {
        $pairs = [];
        foreach ($elements as $i => $a) {
            foreach (array_slice($elements, $i + 1) as $b) {
                [$p, $q] = [$a->rect(), $b->rect()];
                if ($p->x < $q->right() + $gap && $q->x < $p->right() + $gap && $p->y < $q->bottom() + $gap && $q->y < $p->bottom() + $gap) {
                    $pairs[] = "{$a->id()} {$b->id()}";
                }
            }
        }

        return $pairs;
    }

    /** @param list<array{int, int, int, int}> $zones */
    private function layout(array $zones): Composed
    {
        return Make::composed(Make::layout(array_map(static fn (int $i, array $z): array => Make::zone("z$i", ...$z), array_keys($zones), $zones)));
    }
}
