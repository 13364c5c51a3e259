<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** A design that is being worked on: saved by itself, undone over the whole visit, never lost (scenes/work.ts). */
final class WorkTest extends TestCase
{
    public function testIsSavedByItselfAMomentAfterTheLastChange(): void
    {
        self::assertSame(['opening', 'saved', 'changed', 'Two', 'changed', 'Three', 'saved', ['PUT layouts/x'], 1, 'Three', null, 2], self::scene('isSavedByItselfAMomentAfterTheLastChange'));
    }

    public function testPartsOfTwoVersionsAreTakenTogetherAndUndoneAgain(): void
    {
        self::assertSame(['stale', ['POST layouts/x/compare'], 1, 'saved', 'Both', 'Mine', 'Theirs', 3], self::scene('partsOfTwoVersionsAreTakenTogetherAndUndoneAgain'));
    }

    public function testOneGestureIsOneStepOfUndo(): void
    {
        self::assertSame([false, ['Dragged 2', 'One', 'Dragged 2', 'Typed', 'Dragged 2', 'Other'], false, true, 'Other'], self::scene('oneGestureIsOneStepOfUndo'));
    }

    public function testUndoOfTheWholeVisitAndNothingBeyond(): void
    {
        self::assertSame(['One', false, true, 'C', 'One'], self::scene('undoOfTheWholeVisitAndNothingBeyond'));
    }

    public function testAChangeMadeWhileTheServerAnswersIsSavedAfterIt(): void
    {
        self::assertSame([[[1, 'Two'], [2, 'Three']], 'saved', 3, null], self::scene('aChangeMadeWhileTheServerAnswersIsSavedAfterIt'));
    }

    public function testAServerThatIsAwayIsAskedAgainUntilItIsBack(): void
    {
        $told = 'The server does not answer. What you changed is kept in this window.';
        self::assertSame(['kept', $told, 'Two', 3, 'saved', '', 'Two', null], self::scene('aServerThatIsAwayIsAskedAgainUntilItIsBack'));
    }

    public function testWhatTheServerRefusesIsToldAndTheNextChangeIsSaved(): void
    {
        self::assertSame(['refused', 'Name is empty.', 1, 'Three', 'saved', ''], self::scene('whatTheServerRefusesIsToldAndTheNextChangeIsSaved'));
    }

    public function testALostSessionKeepsWhatIsTypedUntilSomebodySignsIn(): void
    {
        self::assertSame(['kept', true, 'Three', false, 'saved', 'Three', 2, null], self::scene('aLostSessionKeepsWhatIsTypedUntilSomebodySignsIn'));
    }

    public function testSomebodyElseSavedMeanwhileAndMineIsPutOnTop(): void
    {
        self::assertSame(['stale', 'Theirs', 1, 'saved', 'Mine too', 3, 'Theirs'], self::scene('somebodyElseSavedMeanwhileAndMineIsPutOnTop'));
    }

    public function testSomebodyElseSavedMeanwhileAndTheirsIsTaken(): void
    {
        self::assertSame(['Theirs', 'saved', 2, 1, null, 'Mine', 'Mine', 3], self::scene('somebodyElseSavedMeanwhileAndTheirsIsTaken'));
    }

    public function testWhatHadNotReachedTheServerIsFoundAgainTheNewestFirst(): void
    {
        self::assertSame([true, 'Typed before the crash', 'Typed before the crash', 'One', 'One', ['gone']], self::scene('whatHadNotReachedTheServerIsFoundAgain'));
    }

    public function testWhatHadReachedTheServerIsForgotten(): void
    {
        self::assertSame([false, 'saved', null], self::scene('whatHadReachedTheServerIsForgotten'));
    }

    public function testEachTabHasItsOwnAndLeavesTheOthersAlone(): void
    {
        self::assertSame([false, 'One', ['Mine', 'Typed in the other tab'], 'Mine', ['there']], self::scene('eachTabHasItsOwn'));
    }

    public function testWhatSomebodyElseTypedInThisBrowserIsNotPutBack(): void
    {
        self::assertSame([false, 'One', 'Typed by Mark'], self::scene('somebodyElsesIsNotMine'));
    }

    public function testTheWayBackIsThereAfterComingBackUnlessSomebodyElseSaved(): void
    {
        self::assertSame(['B', false, 2, 'C', 'One', 'Theirs', false, false], self::scene('theWayBackIsThereAfterComingBack'));
    }

    public function testAStepBackIsKnownThatNobodyNoted(): void
    {
        self::assertSame(['A', true, 'C', false, 'saved'], self::scene('aStepBackIsKnownThatNobodyNoted'));
    }

    public function testWhatIsPutBackCanBeUndone(): void
    {
        self::assertSame(['Earlier', 'A', 'One', 3], self::scene('whatIsPutBackCanBeUndone'));
    }

    public function testTheWayBackFromWhatAKilledTabLeft(): void
    {
        self::assertSame([true, 'B', 'A', 'One'], self::scene('theWayBackFromWhatAKilledTabLeft'));
    }

    public function testWhatADeskOfBeforeKeptIsTakenOver(): void
    {
        self::assertSame([true, 'Old draft', 'Old draft', []], self::scene('whatADeskOfBeforeKeptIsTakenOver'));
    }

    public function testADraftOfAnOlderRevisionIsNotPutOverANewerOne(): void
    {
        self::assertSame(['stale', 'Old draft', 'Newer'], self::scene('aDraftOfAnOlderRevisionIsNotPutOverANewerOne'));
    }

    public function testABrowserThatKeepsNothingIsToldAndTheServerIsToldAllTheSame(): void
    {
        self::assertSame(['This browser keeps nothing: what is not saved yet is lost with this window.', 'saved', 'Two'], self::scene('aBrowserThatKeepsNothingDoesNotStandInTheWay'));
    }

    public function testLeavingSavesAtOnce(): void
    {
        self::assertSame([['PUT layouts/x'], 'Two', 0], self::scene('leavingSavesAtOnce'));
    }

    public function testSavingByHandWaitsForNothingAndSavesNothingTwice(): void
    {
        self::assertSame([0, 1, 1, 'd1'], self::scene('savingByHandWaitsForNothingAndSavesNothingTwice'));
    }

    public function testTheDisplayChosenWhileTheServerAnswersStays(): void
    {
        self::assertSame(['d2', 'd2', 'saved', 2], self::scene('theDisplayChosenWhileTheServerAnswersStays'));
    }

    public function testADesignThatIsNotThereSaysSoAndOneThatIsAwayIsAskedForAgain(): void
    {
        self::assertSame(['refused', 'This layout is not there, or no longer.', 1, 'opening', 'saved'], self::scene('aDesignThatIsNotThereSaysSoAndOneThatIsAwayIsAskedForAgain'));
    }

    private static function scene(string $name): mixed
    {
        return Scene::of('work.ts', $name);
    }
}
