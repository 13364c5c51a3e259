<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Units\Integers;
use UpperPane\Tests\Core\Make;

final class LoopTest extends TestCase
{
    public function testPiecesOfAnySpanFillItWithoutHoleOrOverlap(): void
    {
        $random = Make::random(11);
        for ($i = 0; $i < 200; $i++) {
            $lengths = array_map(static fn (): int => $random->getInt(1, 900), range(0, $random->getInt(0, 6)));
            if ($random->getInt(0, 4) === 0) {
                $lengths[] = null;
            }
            $loop = Loop::of($lengths);
            $at = $from = $random->getInt(-5000, 5000);
            $to = $from + $random->getInt(0, 5000);
            foreach ($loop->between($from, $to) as $piece) {
                self::assertSame($at, $piece['from']);
                self::assertGreaterThan($piece['from'], $piece['to']);
                foreach ([$piece['from'], $piece['to'] - 1] as $instant) {
                    $position = $loop->position($instant);
                    self::assertSame($piece['item'], $loop->items[$loop->slotAt($position)], "at $instant of " . json_encode($lengths));
                }
                $at = $piece['to'];
            }
            self::assertSame($to, $at);
        }
    }

    public function testFollowerChangesWithItsLeaderAndCountsOn(): void
    {
        $follower = Loop::of([1000, 3000])->followedBy([0, 1, 2]);

        self::assertSame([0, 1000, 4000, 5000, 8000, 9000], $follower->starts);
        self::assertSame([0, 1, 2, 0, 1, 2], $follower->items);
        self::assertSame(12_000, $follower->periodMs);
    }

    public function testFollowerOfAnEndlessLeaderStaysWithItsLastItem(): void
    {
        $follower = Loop::of([1000, null])->followedBy([0, 1]);

        self::assertNull($follower->periodMs);
        self::assertSame(1, $follower->items[$follower->slotAt($follower->position(PHP_INT_MAX))]);
    }

    public function testNothingFollowsAnItemWithoutEnd(): void
    {
        self::assertSame([0, 1], Loop::of([500, null, 700])->items);
    }

    public function testAnEndlessLoopWaitsAtItsBeginningBeforeTheAnchor(): void
    {
        self::assertSame(
            [['from' => -200, 'to' => 500, 'item' => 0, 'offset' => 0], ['from' => 500, 'to' => 900, 'item' => 1, 'offset' => 0]],
            Loop::of([500, null])->between(-200, 900),
        );
    }

    public function testMultiplesBeyondTheLimitAreNull(): void
    {
        self::assertSame(60, Integers::leastCommonMultiple([4, 6, 10], 1000));
        self::assertNull(Integers::leastCommonMultiple([4, 6, 10], 59));
        self::assertNull(Integers::leastCommonMultiple([PHP_INT_MAX, PHP_INT_MAX - 1], PHP_INT_MAX));
    }
}
