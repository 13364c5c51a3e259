<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** How a player puts a release together from what it keeps (scenes/larder.ts). */
final class LarderTest extends TestCase
{
    public function testANewReleaseWaitsForAllOfItsFiles(): void
    {
        self::assertSame([
            'before' => ['waiting', '"c.png" is not here: the server answered 500. It is tried again in 2 s.'],
            'after' => null,
            'addresses' => ['blob:100', 'blob:200', 'blob:300', null],
            'asked' => ['/releases/1', '/files/a', '/files/b', '/files/c', '/files/c'],
        ], Scene::of('larder', 'aNewOne'));
    }

    public function testAfterAStartWhatIsDueIsEnoughAndWhatIsDamagedIsFetchedAnew(): void
    {
        self::assertSame(['without' => ['ready', 'blob:100', null], 'later' => 'blob:300', 'asked' => ['/files/c']], Scene::of('larder', 'keptByAnEarlierStart'));
    }

    public function testADarkGlassIsWorseThanOnePictureLess(): void
    {
        self::assertSame(['ready', null, 'blob:200', []], Scene::of('larder', 'dueAndDamaged'));
    }

    public function testWhatNobodyNeedsGoesOnceTheNewOneStands(): void
    {
        $first = ['/files/a', '/files/b', '/releases/1'];
        self::assertSame([$first, $first, ['/files/a', '/files/b', '/files/c', '/releases/1', '/releases/2'], ['/files/b', '/files/c', '/releases/2']], Scene::of('larder', 'whatNobodyNeeds'));
    }

    public function testWhatMayBeNeededOneDayIsKeptAndNothingWaitsForIt(): void
    {
        self::assertSame([
            'steps' => [
                ['/files/a', '/releases/1'],
                ['/files/a', '/files/face', '/releases/1'],
                ['/files/a', '/files/b', '/files/face', '/releases/1', '/releases/2'],
                ['/files/b', '/files/face', '/files/siren', '/releases/2'],
                ['/files/b', '/files/face', '/releases/2'],
            ],
            'trouble' => '"siren", kept for what is put up in a hurry, is not here: the server answered 500. It is tried again in 2 s.',
            'progress' => [2, []],
        ], Scene::of('larder', 'keptBeforehand'));
    }

    public function testPagesThatShareAStoreLeaveOneAnotherWhatTheyNeed(): void
    {
        self::assertSame([
            'kept' => ['/files/a', '/files/b', '/files/c', '/releases/1', '/releases/2'],
            'again' => 'blob:1',
            'asked' => ['/files/a'],
        ], Scene::of('larder', 'twoPages'));
    }

    public function testWhatThisBuildDoesNotKnowIsRefusedWhole(): void
    {
        self::assertSame([
            'This page does not know the format upper-pane/release@9; it has to be loaded anew.',
            'This page does not know how to draw a hologram; it has to be loaded anew.',
        ], Scene::of('larder', 'whatThisBuildDoesNotKnow'));
    }

    public function testASurveyThatIsEditedNeverAsksInPublic(): void
    {
        $asBefore = 'it goes on as before until one is chosen there (F2).';
        self::assertSame([
            'steps' => [
                'This player has several outputs; choose one of them.',
                [1, 0, 1], null,
                [1, 0, 2], "This player has 2 outputs by now, and nothing says which this window is: $asBefore",
                [2, 100, 2], null,
                [3, 0, 2],
                [2, 100, 2], [2, 100, 1], 'There is no output 2 of this player any more: it goes on as before until another is chosen there (F2).',
            ],
            'progress' => ['all' => 2, 'missing' => []],
            'kept' => 2,
        ], Scene::of('larder', 'outputsThatChange'));
    }
}
