<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Playback\Call;
use UpperPane\Core\Playback\DisplayStatus;
use UpperPane\Core\Playback\Rhythm;

final class StandingTest extends TestCase
{
    private const NOW = 1_780_000_000_000;

    #[DataProvider('calls')]
    public function testOnePlayer(DisplayStatus $expected, ?int $calledAgo, ?string $plays = 'a', ?string $trouble = null, ?string $due = 'a', int $boundAgo = 3_600_000, ?int $everyS = null): void
    {
        $call = new Call(self::NOW - $boundAgo, $calledAgo === null ? null : self::NOW - $calledAgo, $plays, $trouble, $everyS);

        self::assertSame($expected, DisplayStatus::of($call, $due === null ? [] : [$due, 'whole'], self::NOW));
    }

    /** @return iterable<string, list<mixed>> */
    public static function calls(): iterable
    {
        yield 'called just now' => [DisplayStatus::Plays, 0];
        yield 'three calls missed' => [DisplayStatus::Plays, 45_000];
        yield 'a moment more' => [DisplayStatus::Silent, 45_001];
        yield 'bound long ago and never heard' => [DisplayStatus::Silent, null];
        yield 'bound a moment ago, not heard yet' => [DisplayStatus::Changing, null, null, null, 'a', 20_000];
        yield 'bound a moment ago, nothing handed over' => [DisplayStatus::Blank, null, null, null, null, 20_000];
        yield 'plays an older release' => [DisplayStatus::Changing, 5_000, 'b'];
        yield 'says what troubles it' => [DisplayStatus::Troubled, 5_000, 'a', 'No room for quay.mp4.'];
        yield 'silence says more than an old trouble' => [DisplayStatus::Silent, 60_000, 'a', 'No room for quay.mp4.'];
        yield 'plays something though nothing was handed over' => [DisplayStatus::Blank, 5_000, 'b', null, null];
        yield 'our clock was set back by a moment' => [DisplayStatus::Plays, -5_000];
        yield 'our clock was set back: whether it is alive is not known' => [DisplayStatus::Silent, -3_600_000];
        yield 'plays the same in one piece' => [DisplayStatus::Plays, 0, 'whole'];
        yield 'calls once a minute, three calls missed' => [DisplayStatus::Plays, 270_000, 'a', null, 'a', 3_600_000, 60];
        yield 'calls once a minute, a moment more' => [DisplayStatus::Silent, 270_001, 'a', null, 'a', 3_600_000, 60];
    }

    /** @return iterable<string, array{int, int}> */
    public static function estates(): iterable
    {
        yield 'a house' => [20, 10];
        yield 'a town' => [5_000, 63];
        yield 'a country' => [10_000, 120];
    }

    #[DataProvider('estates')]
    public function testTheMorePlayersThereAreTheSeldomerTheyCall(int $players, int $everyS): void
    {
        self::assertSame($everyS, Rhythm::of($players));
    }

    public function testADisplayStandsAsTheBestOfItsPlayers(): void
    {
        self::assertSame(DisplayStatus::Unbound, DisplayStatus::together([]));
        self::assertSame(DisplayStatus::Silent, DisplayStatus::together([DisplayStatus::Silent, DisplayStatus::Silent]));
        self::assertSame(DisplayStatus::Plays, DisplayStatus::together([DisplayStatus::Silent, DisplayStatus::Plays, DisplayStatus::Troubled]));
        self::assertSame(DisplayStatus::Changing, DisplayStatus::together([DisplayStatus::Troubled, DisplayStatus::Changing]));
    }

    public function testSaysHowMuchItMattersAndWhy(): void
    {
        self::assertSame([Level::Warning, Level::Stop, Level::Warning, Level::Hint, Level::Warning, null], array_map(static fn (DisplayStatus $s) => $s->level(), DisplayStatus::cases()));
        self::assertSame('on its way to release 7', DisplayStatus::Changing->sentence(7));
        self::assertSame('No room for quay.mp4.', DisplayStatus::Troubled->sentence(7, 'No room for quay.mp4.'));
        self::assertSame('silent; it goes on with what it has', DisplayStatus::Silent->sentence(7));
    }

    public function testAPlayerOfSeveralOutputsSaysWhatHoldsOfTheWorst(): void
    {
        self::assertSame([5, null, 'a', null], self::together([1 => new Call(5, 100, 'a')]), 'output 2 was never heard');
        self::assertSame([5, 90, 'a', null], self::together([1 => new Call(5, 100, 'a'), 2 => new Call(5, 90, 'a')]));
        self::assertSame([5, 90, null, 'Output 2: dark'], self::together([1 => new Call(5, 100, 'a'), 2 => new Call(5, 90, 'b', 'dark')]));
        self::assertSame('dark', Call::together([1 => new Call(5, 9, null, 'dark')], [1])->trouble);
    }

    /**
     * @param non-empty-array<int, Call> $calls of outputs 1 and 2
     * @return list<mixed>
     */
    private static function together(array $calls): array
    {
        return array_slice(array_values((array) Call::together($calls, [1, 2])), 0, 4);
    }
}
