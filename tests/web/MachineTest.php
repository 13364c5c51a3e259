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
        self::assertSame(['first' => 9, 'gaps' => [2, 3, 4.5, 7], 'change' => [180.5], 'said' => 'Held back. (main, i3)'], Scene::of('machine', 'reportsThatDoNotArrive'));
    }

    public function testWhatIsSensedIsToldAtOnceToWhoeverLearnsOrAsks(): void
    {
        self::assertSame(
            ['heard' => 0, 'answered' => 0, 'asked' => 1, 'over again' => 1, 'learnt' => 1, 'later' => 0, 'last' => [3, 'help', ['a']]],
            Scene::of('machine', 'sensed'),
        );
    }

    public function testWhatBeginsAndEndsByTheClockNeedsNoServer(): void
    {
        self::assertSame(['gathered' => [0.5, 30], 'aligned' => ['0.5 align on', '60 align off']], Scene::of('machine', 'byTheClock'));
    }

    public function testWhatMayBeNeededOneDayIsNamedWhereItIsAnother(): void
    {
        self::assertSame(['gather', ['siren'], ['siren', 'face'], []], Scene::of('machine', 'namedBeforehand'));
    }

    public function testAClockThatIsWrongIsToldAndOneBeyondBeliefIsNotFollowed(): void
    {
        $told = static fn (string $by): string => "The clock of this player is $by; it goes by the server's until it is set.";
        self::assertSame([
            // Seconds that it is off after all; what is told; what stands.
            '3 s fast' => [3, null, 'a'],
            '3 min slow' => [0, $told('3 min slow'), 'a'],
            '2 h fast' => [0, $told('2 h fast'), 'a'],
            'in 1970' => [0, $told('20605 days slow'), 'a'],
            'set right' => [0, null],
            '1970, and nothing remembered' => ['0 note'],
            '1970 and nobody there' => [
                ['0 gather', '0 show'],
                true,
                'The clock of this player says 1970-01-01, which is before its page was made; until it hears the server it stands still as it was last.',
                false,
                'kept',
                $told('20605 days slow'),
            ],
            'set back' => [0, 'The clock of this player was set to 1970-01-01; it goes on as before.'],
            'asleep' => [0, null],
        ], Scene::of('machine', 'wrongClocks'));
    }

    public function testALaterBuildIsLookedForAndTheGlassChangesOverToItAtAChange(): void
    {
        self::assertSame(['looked' => [21, 321], 'leaves' => [610], 'after' => 2, 'old' => ['2026-06-03T03']], Scene::of('machine', 'aLaterBuild'));
    }

    public function testInWhateverOrderThingsHappenItGoesOn(): void
    {
        self::assertSame(['rounds' => 200, 'wrong' => []], Scene::of('machine', 'anythingAtAll'));
    }
}
