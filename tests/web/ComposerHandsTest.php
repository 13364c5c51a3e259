<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** Every way in which the composer changes a document, and the hand of the tide table (web/src/Layout/composer). */
final class ComposerHandsTest extends TestCase
{
    /** What is begun, put in, taken out and stacked is the core's to do (ActsTest): it is asked in turn, each with what is chosen by then. */
    public function testTheCoreIsAskedInTurn(): void
    {
        self::assertSame([
            [
                ['do' => 'begin', 'kind' => 'text', 'rect' => ['x' => 5, 'y' => 0, 'width' => 100, 'height' => 50]],
                ['do' => 'insert', 'elements' => ['new'], 'dx' => 20, 'dy' => 20],
                ['do' => 'restack', 'elements' => ['copy'], 'by' => 10_000],
                ['do' => 'remove', 'elements' => ['copy']],
            ],
            'choose', [], ['a', 'new', 'copy'], ['What is locked stays.'], 3,
        ], Scene::of('composer.ts', 'inTurn'));
    }

    public function testWhatIsCopiedIsPastedInAnotherLayoutAndAgainBesideItself(): void
    {
        self::assertSame([[['a', 5, 0], ['a', 5, 20]], 0, 0], Scene::of('composer.ts', 'pasted'));
    }

    /** A hand that types while the core works loses nothing: it is asked again with what stands there then. */
    public function testWhatAHandDoesMeanwhileIsKept(): void
    {
        self::assertSame([['a', 'b'], 'typed', 2, 'Nothing here.', true], Scene::of('composer.ts', 'meanwhile'));
    }

    public function testWhatBelongsTogetherIsChosenAndMovedTogether(): void
    {
        self::assertSame([['a', 'b'], ['a', 'b'], [[10, 0], [110, 0], [300, 0]], ['group1', 'group1', null], [null, null, null]], Scene::of('composer.ts', 'groups'));
    }

    public function testWhatIsLockedStaysWhereItIs(): void
    {
        self::assertSame([[[0, 0], [101, 0]], [true, null], [null, true]], Scene::of('composer.ts', 'locked'));
    }

    public function testWhatIsNudgedTogetherIsOneStepOfUndo(): void
    {
        self::assertSame([[[0, 0], [11, -3], [21, -3]], ['nudge b,c', 'nudge b,c'], 2], Scene::of('composer.ts', 'nudged'));
    }

    public function testAPlaceAnEditAndASettingTouchOnlyWhatTheyName(): void
    {
        self::assertSame([[[7, 8], [10, 0]], 'words', 'x', 640, 'drag'], Scene::of('composer.ts', 'touched'));
    }

    public function testAnEmptyDocumentHasNothingToChoose(): void
    {
        self::assertSame([[], 0, []], Scene::of('composer.ts', 'empty'));
    }

    public function testTheHandKnowsWhatIsDueAndWhenAnItemComesNext(): void
    {
        // Two items take their turn, the third is off; the second fades in over 1 s.
        self::assertSame([['z' => 'a'], ['z' => 'b'], [20_000, 11_000, 11_000, 31_000, null, null], []], Scene::of('composer.ts', 'due'));
    }

    public function testTheHandStopsTheClockAndStepsFromChangeToChange(): void
    {
        self::assertSame([true, false, 10_000, 0, 20_000, 10_000, 'b'], Scene::of('composer.ts', 'steps'));
    }

    public function testTheNewestAnswerOfTheCoreHolds(): void
    {
        self::assertSame([['a', 'd'], 'd', 'The server does not answer. What you changed is kept in this window.', 'd', ''], Scene::of('analysis.ts', 'newest'));
    }

    public function testWhileAHandMovesThingsOnlyWhatChangesIsAskedFor(): void
    {
        self::assertSame([[[false, 'a'], [true, 'b'], [false, 'b']], ['b', 'sheet of a', 'same'], ['b', 'sheet of b']], Scene::of('analysis.ts', 'whileMoving'));
    }

    /** Cures are tried apart: they come a little later, and stay beside what is still found until they have been tried anew. */
    public function testCuresAreAskedForOnceTheHandRests(): void
    {
        self::assertSame([[null, null], ['Wider', null], ['Wider', null], [null, 'Higher'], ['analysis a', 'cures a', 'analysis b', 'cures b', 'analysis c']], Scene::of('analysis.ts', 'cured'));
    }
}
