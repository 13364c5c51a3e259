<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\RowLoops;
use UpperPane\Core\Time\RowTurns;
use UpperPane\Core\Time\SteadyTurns;

final class RowLoopsTest extends TestCase
{
    /** @var list<int> instants for which a loop was worked out */
    private array $worked = [];

    public function testALoopIsWorkedOutOnceUntilTheRowsMayChange(): void
    {
        $loops = new RowLoops(self::every(1000), $this->loop(...));
        foreach ([1200, 1999, 1200, 2000, 2999, 1500] as $ms) {
            self::assertSame([intdiv($ms, 1000)], $loops->at($ms)->items, "$ms");
        }
        self::assertSame([1200, 2000], $this->worked);
        self::assertSame([1], $loops->at(1100)->items, 'before the first that was asked for nothing is known');
        self::assertInstanceOf(RowTurns::class, $loops->turns());
    }

    public function testTheSameRowsAreToldAnewWhereNewerDataSaySo(): void
    {
        $loops = new RowLoops(self::every(1000), $this->loop(...), self::every(400));
        foreach ([0, 399, 400, 799, 900, 999, 1000] as $ms) {
            $loops->at($ms);
        }
        self::assertSame([0, 400, 900, 1000], $this->worked);
    }

    public function testWhatNeverChangesIsSteady(): void
    {
        $loops = new RowLoops(static fn (): null => null, $this->loop(...));
        self::assertTrue($loops->isSteady());
        self::assertInstanceOf(SteadyTurns::class, $loops->turns());
    }

    public function testOnlySoManyStretchesAreRemembered(): void
    {
        $loops = new RowLoops(self::every(1000), $this->loop(...));
        for ($second = 0; $second < 100; $second++) {
            $loops->at(1000 * $second);
        }
        $loops->at(99_500);
        self::assertNotContains(99_500, $this->worked);
        self::assertSame(0, $this->worked[0]);
        $loops->at(500);
        self::assertSame(500, $this->worked[100] ?? null, 'the first is forgotten');
    }

    /** @return \Closure(int): int */
    private static function every(int $ms): \Closure
    {
        return static fn (int $at): int => $at === PHP_INT_MIN ? 0 : (intdiv($at, $ms) + 1) * $ms;
    }

    private function loop(int $ms): Loop
    {
        $this->worked[] = $ms;

        return Loop::endless(intdiv($ms, 1000));
    }
}
