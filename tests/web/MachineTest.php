<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** What a player does next, whatever happens (scenes/machine.ts). */
final class MachineTest extends TestCase
{
    public function testItBeginsWithWhatWasSaidLastAndGoesOnWithoutAnybody(): void
    {
        // An hour without an answer: asked again after 2, 3, 4.5 ... and then every 10 s, in beats of half a second.
        self::assertSame(['begins' => '0 gather, 0 show', 'glass' => 'kept', 'asked' => 363, 'longest' => 10, 'notes' => []], Scene::of('machine', 'withoutAServer'));
    }

    public function testADayIsQuiet(): void
    {
        self::assertSame(['asked' => 43_200, 'gathered' => [0.5, 20.5], 'reported' => ['a', 'b'], 'rhythm' => [10]], Scene::of('machine', 'aPlayerOfADay'));
    }

    public function testWhatCannotBeTakenIsToldAndTheOldOneGoesOn(): void
    {
        self::assertSame([
            'before' => ['glass' => 'a', 'trouble' => 'It cannot be drawn.', 'tries' => 14, 'last' => 60],
            'glass' => 'c',
            'trouble' => null,
        ], Scene::of('machine', 'aReleaseThatCannotBeTaken'));
        self::assertSame(['shown' => ['b'], 'glass' => 'b', 'troubles' => []], Scene::of('machine', 'overtaken'));
    }

    public function testWhereNothingIsDrawnThePageIsLoadedAnewAndAtLastShowsWhatWasWhole(): void
    {
        self::assertSame([
            'seen' => [
                ...array_fill(0, 3, 'loaded anew after 11 s'),
                'last picture',
                'Drawing stopped 3 times within 10 minutes: it shows its last whole picture until something else is handed over.',
                'then b',
            ],
            'rarely' => false,
        ], Scene::of('machine', 'nothingIsDrawn'));
    }

    public function testOneThatWasTakenBackAsksNobodyAnyMore(): void
    {
        self::assertSame(['6.5 ask', '6.5 end'], Scene::of('machine', 'takenBack'));
    }

    public function testWhatIsSaidAndDoesNotArriveIsSaidAgainLessAndLess(): void
    {
        self::assertSame(['first' => 9, 'gaps' => [2, 3, 4.5, 7], 'change' => [180.5], 'said' => 'Held back.'], Scene::of('machine', 'reportsThatDoNotArrive'));
    }

    public function testWhatBeginsAndEndsByTheClockNeedsNoServer(): void
    {
        self::assertSame(['gathered' => [0.5, 30], 'aligned' => ['0.5 align on', '60 align off']], Scene::of('machine', 'byTheClock'));
    }

    public function testInWhateverOrderThingsHappenItGoesOn(): void
    {
        self::assertSame(['rounds' => 200, 'wrong' => []], Scene::of('machine', 'anythingAtAll'));
    }
}
