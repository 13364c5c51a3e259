<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** What is put on the page for an instant (scenes/stage.ts). Where everything lies is held against the core in DrawnTest. */
final class StageTest extends TestCase
{
    public function testEverythingStandsWhereTheCoreSays(): void
    {
        self::assertSame([
            ['1920px', '540px', '#102030', 'translate(10px, 20px) scale(0.5, 0.5)'],
            ['100px', '50px', '400px', '200px'],
            ['-50px', '0px', '500px', '200px'],
            ['img', '/files/pier.png'],
            // What never reaches beyond its box is not cut.
            ['z', 'i1', ['hidden', 'hidden', ''], '1', '2', '3'],
            ['Gate 7', '"Inter", sans-serif', '60px', '700', 'center', 'flex-end'],
            ['#14665b', '50%'],
        ], self::scene('places'));
    }

    public function testAnElementMayBeDrawnInManyParts(): void
    {
        self::assertSame([['0px', '20px', '40px'], ['0px', '20px']], self::scene('manyParts'));
    }

    public function testItemsTakeTheirTurnAndFadeOneOverTheOther(): void
    {
        $told = self::scene('turnsOfItems');
        self::assertEquals([
            [[['i1', 1]], 10_000],
            [[['i1', 1], ['f1', 0.25]], 11_000],
            [[['f1', 1]], 20_000],
        ], $told['seen']);
        self::assertSame([], $told['fades'], 'what has come stands by itself: no motion is left on it');
    }

    public function testWhatMovesIsSeenWhereItsZoneLies(): void
    {
        self::assertEquals([
            // Pushed: by a quarter of 400 px to the right, and in from the left.
            [[['x' => 200, 'y' => 50, 'width' => 300, 'height' => 200], 150], [['x' => 100, 'y' => 50, 'width' => 100, 'height' => 200], -250]],
            // Wiped: what was stands, what comes is seen in the left quarter.
            [[['x' => 100, 'y' => 50, 'width' => 400, 'height' => 200], 50], [['x' => 100, 'y' => 50, 'width' => 100, 'height' => 200], 50]],
        ], self::scene('moves'));
    }

    public function testAFilmThatFollowsItselfIsThereTwiceWhileItFades(): void
    {
        self::assertSame([true, true, true, 1], self::scene('followsItself'));
    }

    public function testNothingIsDrawnAgainBeforeItChanges(): void
    {
        self::assertSame([null, 10_000, 11_000, 120_000, 62_000, 5000], self::scene('untilWhen'));
    }

    public function testWhatIsSeenSoonStandsLoadedAndTheRestIsGivenBack(): void
    {
        self::assertSame([
            'held' => [[['i1'], 1], [['i1'], 1], [['i1', 'i2'], 1], [['i2', 'f1'], 1]],
            'goesOn' => true,
        ], self::scene('ready'));
    }

    public function testWhatIsChangedOverToIsLoadedBefore(): void
    {
        self::assertSame([0, 1], self::scene('prepares'));
    }

    /** Each film holds a decoder; 128 MiB hold four pictures of 3840 x 2160 px. */
    public function testWhatStandsReadyIsBounded(): void
    {
        self::assertSame([4, 4], self::scene('bounds'));
    }

    public function testAFilmStandsAtItsFrameRunsIsCaughtUpWithAndJumpsOnce(): void
    {
        self::assertEquals([
            'still' => [4, true, 1],
            'runs' => [false, 1, 1],
            'drifts' => [1, 1.02],
            'ahead' => [1, 0.98],
            'far' => [7.4, 2],
            'again' => 2,
            'held' => [9.96, true],
            'muted' => true,
        ], self::scene('films'));
    }

    public function testWhatAHandDragsStaysUnderItUntilTheCoreAnswers(): void
    {
        self::assertSame([
            // What is only moved is moved by the compositor; what is sized is laid out again.
            [['100px', '50px', '400px', '200px'], 'translate(10px, 30px)', ['-50px', '0px', '500px', '200px']],
            [['0px', '0px', '900px', '80px'], '', ['0px', '0px', '900px', '80px']],
            [['100px', '50px', '400px', '200px'], ''],
            ['100px', '50px', '400px', '200px'],
        ], self::scene('drags'));
    }

    public function testAMediaThatIsGoneIsNamedAtTheDeskAloneAndTakenAsSoonAsItIsThere(): void
    {
        self::assertSame([['pier.png is not there', [false], 'img', 1], ['', [false], 'img', 1]], self::scene('absent'));
    }

    public function testAFilmShowsItsSmallPictureUntilItsFrameIsThereAndNothingElseWhereItIsSmall(): void
    {
        $still = '0 0 / 100% 100% url("/files/quay-small.png")';
        self::assertSame([['video', $still], ['div', $still]], self::scene('stills'));
    }

    public function testOneMediaInTwoPlacesIsDrawnTwice(): void
    {
        self::assertSame([2, 0, 0], self::scene('twoPlaces'));
    }

    public function testWhatIsInAnotherSheetAsWellGoesOnAsItIs(): void
    {
        self::assertSame([['s', 'z', 't'], true, 1], self::scene('goesOn'));
    }

    private static function scene(string $name): mixed
    {
        return Scene::of('stage.ts', $name);
    }
}
