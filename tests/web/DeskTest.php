<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What every station of the desk is built on: figures, the API, the session, the shelf (web/src/ui). */
final class DeskTest extends TestCase
{
    /** @param list<mixed> $arguments */
    #[DataProvider('figures')]
    public function testFiguresAreWrittenWithTheirUnit(string $function, array $arguments, string $written): void
    {
        self::assertSame($written, (new Module('ui/format.ts'))->call($function, ...$arguments));
    }

    /** @return iterable<string, array{string, list<mixed>, string}> */
    public static function figures(): iterable
    {
        $at = 1_793_493_000_000; // 2026-11-01T00:30:00Z
        yield 'whole seconds' => ['seconds', [10_000], '10.0 s'];
        yield 'tenths' => ['seconds', [4_500], '4.5 s'];
        yield 'milliseconds' => ['seconds', [1_234], '1.234 s'];
        yield 'bytes' => ['bytes', [999], '999 B'];
        yield 'kilobytes' => ['bytes', [1_499], '1 kB'];
        yield 'megabytes' => ['bytes', [1_550_000], '1.6 MB'];
        yield 'gigabytes' => ['bytes', [2_345_000_000], '2.35 GB'];
        yield 'a raster' => ['size', [['width' => 1920, 'height' => 540]], '1920 × 540'];
        yield 'the clock there' => ['clock', [$at, 'Atlantic/Azores'], '23:30:00'];
        yield 'the clock without seconds' => ['clock', [$at, 'Europe/Lisbon', false], '00:30'];
        yield 'the day there' => ['day', [$at, 'Atlantic/Azores'], 'Saturday 31 October'];
        yield 'the zone by its name' => ['zoneName', ['Europe/Lisbon', 1_780_308_000_000], 'WEST'];
        yield 'all names' => ['some', [['Gate 1', 'Gate 2']], 'Gate 1, Gate 2'];
        yield 'as many as there is room for' => ['some', [['a', 'b', 'c'], 3], 'a, b, c'];
        yield 'some of many' => ['some', [array_fill(0, 2_007, 'x'), 2], 'x, x and 2,005 more'];
        yield 'never' => ['moment', [null], 'never'];
        yield 'another day' => ['moment', ['2020-02-29T23:30:00Z', 'Asia/Tokyo'], '1 Mar 08:30'];
        yield 'never called' => ['ago', [null, $at], 'never'];
        yield 'a moment ago' => ['ago', ['2026-11-01T00:29:51Z', $at], '9 s ago'];
        yield 'a clock that is ahead' => ['ago', ['2026-11-01T00:31:00Z', $at], '0 s ago'];
        yield 'minutes' => ['ago', ['2026-11-01T00:00:30Z', $at], '29 min ago'];
        yield 'hours' => ['ago', ['2026-10-31T20:30:00Z', $at], '4 h ago'];
        yield 'days' => ['ago', ['2026-10-29T00:30:00Z', $at], '3 days ago'];
    }

    public function testTheServersOwnWordsAreTold(): void
    {
        self::assertSame([
            [422, 'value.range', 'Name is empty.', '/name', false],
            [422, 'value.range', 'Size px of element 3 is 0; 1 is the least.', '/elements/2/style/size_px', false],
            [422, 'value.range', 'On "Wide": Item 2 of element 1 has no media. Open /player.', '', false],
            [500, 'failed', 'The server answered 500.', '', false],
            [502, 'failed', 'The server answered 502.', '', true],
            [0, 'server.away', 'The server does not answer. What you changed is kept in this window.', '', true],
            [200, 'answer.wrong', 'The server answered something that cannot be read.', '', false],
            null,
            ['id' => 'x'],
        ], Scene::of('desk.ts', 'wordsOfTheServer'));
    }

    public function testWhatChangesSomethingCarriesTheTokenOfTheSession(): void
    {
        self::assertSame(['GET' => null, 'POST' => 'second', 'PUT' => 'second', 'DELETE' => 'second'], Scene::of('desk.ts', 'tokens'));
    }

    public function testATokenThatIsOldIsReadAnewAndTheRequestSentOnceMore(): void
    {
        self::assertSame([['id' => 'x'], ['PUT old', 'GET', 'PUT new'], [403, 'csrf.wrong'], 3], Scene::of('desk.ts', 'oldToken'));
    }

    public function testASessionThatIsLostAsksToSignInAndThenGoesOn(): void
    {
        self::assertSame([false, false, true, 0, 2, false, 'Wrong name or password.'], Scene::of('desk.ts', 'lost'));
    }

    public function testWhatWasSentBeforeSomebodySignedInAgainIsSentOnceMore(): void
    {
        self::assertSame([['layouts' => []], false, ['GET layouts', 'POST sign-in', 'GET session', 'GET layouts']], Scene::of('desk.ts', 'late'));
    }

    public function testTheShelfCountsByLevelAndForgetsWhatWasOpen(): void
    {
        self::assertSame([[2, 1, 0], [0, 0, 0], '', true], Scene::of('desk.ts', 'shelf'));
    }

    public function testWhatIsBroughtInIsAskedForUntilItIsReady(): void
    {
        self::assertSame([1, 3, 3, ['pier'], ['id' => 'pier', 'name' => 'pier.png', 'width' => 640, 'height' => 480], 'film, 640 × 480, 2.4 s'], Scene::of('desk.ts', 'broughtIn'));
    }

    public function testTheEstateIsSortedByPlaceAndByHowDisplaysStand(): void
    {
        self::assertSame([['UTC', ['Estate', 'Hall'], 'plays'], ['Hall' => ['a', 'b'], 'Pier' => ['c']], ['b'], ['c'], ['a'], ['a']], Scene::of('desk.ts', 'estate'));
    }
}
