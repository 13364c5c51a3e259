<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** How a player fetches what it is to show, from a network that is as bad as they are (scenes/fetching.ts). */
final class FetchingTest extends TestCase
{
    public function testWhatBrokeOffGoesOnWhereItEnded(): void
    {
        self::assertSame([
            'asked' => ['/film', '/film bytes=1200000-', '/film bytes=2400000-'],
            'why' => ['the connection broke off', 'the connection broke off'],
            'here' => ['/film'],
            'length' => 3_000_000,
        ], Scene::of('fetching', 'brokenOff'));
        // In pieces of 1 MiB, as far as they had come.
        self::assertSame(['asked' => ['/film bytes=1049000-'], 'here' => ['/film'], 'length' => 2_500_000], Scene::of('fetching', 'killedInBetween'));
        self::assertSame(['asked' => ['/film', '/film bytes=1200000-'], 'here' => ['/film'], 'length' => 2_500_000], Scene::of('fetching', 'withoutRanges'));
    }

    public function testWhateverIsWrongIsSaidAndTriedAgainLessAndLess(): void
    {
        $said = Scene::of('fetching', 'wrongAnswers');
        self::assertSame([
            'not found' => 'the server answered 404',
            'an error' => 'the server answered 500',
            'a web page' => 'a web page was answered in its place',
            'another hash' => 'it is not what the release names: its hash is another',
            'longer, and says so' => '5000 bytes were announced, and the release names 1500',
            'longer, and does not say so' => 'it is longer than the 1500 bytes that the release names',
            'shorter, and does not say so' => 'it ended after 5000 of 9000 bytes',
            'a lie about its length' => '7 bytes were announced, and the release names 5000',
            'nothing comes' => 'nothing came for 20 s',
        ], array_map(static fn (array $one): string => $one['why'], $said));
        self::assertSame([[[], false]], array_values(array_unique(array_map(static fn (array $one): array => [$one['here'], $one['whole']], $said), SORT_REGULAR)), 'nothing of it is used');
        self::assertSame([2000, 4000, 8000], $said['another hash']['again']);
        // An hour of it: 2, 4, 8 ... 256 s, then every 5 min.
        $hour = Scene::of('fetching', 'nobodyAnswers');
        self::assertSame([19, 300_000, 'the server does not answer'], [$hour['tries'], $hour['last']['again_ms'], $hour['last']['why']]);
    }

    public function testWhatHasNoRoomWaitsAndTheRestIsFetched(): void
    {
        self::assertSame([
            'before' => ['why' => ['there is no room for it: it takes 5 MB, and 4 MB are free'], 'here' => ['/small']],
            'here' => ['/small', '/large'],
            'length' => 5_000_000,
        ], Scene::of('fetching', 'aFullDisk'));
    }

    public function testWhatWasKeptIsHeldAgainstItsHashAfterEachStart(): void
    {
        self::assertSame(['news' => ['/a damaged', '/b here', '/a here'], 'asked' => ['/a']], Scene::of('fetching', 'damaged'));
    }

    public function testWhatIsDueFirstIsFetchedFirstAndWhatNobodyWantsIsBrokenOff(): void
    {
        self::assertSame(['before' => ['/1', '/2'], 'asked' => ['/4'], 'here' => ['/4', '/1']], Scene::of('fetching', 'order'));
    }
}
