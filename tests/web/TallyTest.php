<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** What was seen is counted by what was drawn (scenes/tally.ts): item, quarter of an hour, first, last, times, ms, missed, missed ms. */
final class TallyTest extends TestCase
{
    public function testTurnsAndTimeAreCountedWhereSomethingWasDrawn(): void
    {
        self::assertSame([['i1', 0, 10_000, 39_500, 3, 29_500, 0, 0]], self::scene('counts'));
    }

    public function testWhatWasNotThereIsMissed(): void
    {
        self::assertSame([['i1', 0, 0, 9500, 1, 8000, 0, 1500], ['i2', 0, 10_000, 29_500, 1, 10_000, 1, 10_000]], self::scene('misses'));
    }

    public function testATurnIsCountedInTheQuarterOfAnHourInWhichItBegan(): void
    {
        self::assertSame([['i1', 0, 898_000, 899_500, 1, 1500, 0, 0], ['i1', 900_000, 900_000, 902_500, 0, 3000, 0, 0]], self::scene('quarters'));
    }

    public function testWhatFadesIntoItselfHasItsTurnTwice(): void
    {
        self::assertSame([['i1', 0, 0, 19_500, 2, 20_500, 0, 0]], self::scene('twice'));
    }

    public function testNothingIsSeenWhileThePageSleeps(): void
    {
        self::assertSame([['i1', 0, 0, 4500, 1, 4500, 0, 0], ['i1', 3_600_000, 3_600_000, 3_604_500, 0, 4500, 0, 0]], self::scene('sleeps'));
    }

    public function testWhatIsOnItsWayStaysTheSameUntilItHasArrived(): void
    {
        self::assertSame(['same' => true, 'still' => true, 'then' => [['i1', 0, 4500, 7500, 0, 3000, 0, 0]], 'none' => null], self::scene('arrives'));
    }

    public function testWhatIsKeptIsBoundedAndWhatWasLostIsTold(): void
    {
        self::assertSame([10, 20, null], self::scene('bounded'));
    }

    private static function scene(string $name): mixed
    {
        return Scene::of('tally.ts', $name);
    }

    public function testWhatWasAnsweredIsCountedByWhatItCameOf(): void
    {
        self::assertSame([['triggers/post', 'help, because of press', 2, 10_000], ['triggers/post', 'help, because of far', 1, 10_000]], Scene::of('tally', 'answers'));
    }
}
