<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Playback\Call;
use UpperPane\Core\Playback\Standing;

final class StandingTest extends TestCase
{
    private const NOW = 1_780_000_000_000;

    #[DataProvider('calls')]
    public function testOnePlayer(Standing $expected, ?int $calledAgo, ?string $plays = 'a', ?string $trouble = null, ?string $due = 'a', int $boundAgo = 3_600_000): void
    {
        $call = new Call(self::NOW - $boundAgo, $calledAgo === null ? null : self::NOW - $calledAgo, $plays, $trouble);

        self::assertSame($expected, Standing::of($call, $due, self::NOW));
    }

    /** @return iterable<string, list<mixed>> */
    public static function calls(): iterable
    {
        yield 'called just now' => [Standing::Plays, 0];
        yield 'three calls missed' => [Standing::Plays, 45_000];
        yield 'a moment more' => [Standing::Silent, 45_001];
        yield 'bound long ago and never heard' => [Standing::Silent, null];
        yield 'bound a moment ago, not heard yet' => [Standing::Changing, null, null, null, 'a', 20_000];
        yield 'bound a moment ago, nothing handed over' => [Standing::Blank, null, null, null, null, 20_000];
        yield 'plays an older release' => [Standing::Changing, 5_000, 'b'];
        yield 'says what troubles it' => [Standing::Troubled, 5_000, 'a', 'No room for quay.mp4.'];
        yield 'silence says more than an old trouble' => [Standing::Silent, 60_000, 'a', 'No room for quay.mp4.'];
        yield 'plays something though nothing was handed over' => [Standing::Blank, 5_000, 'b', null, null];
        yield 'its clock is ahead of ours' => [Standing::Plays, -5_000];
    }

    public function testADisplayStandsAsTheBestOfItsPlayers(): void
    {
        self::assertSame(Standing::Unbound, Standing::together([]));
        self::assertSame(Standing::Silent, Standing::together([Standing::Silent, Standing::Silent]));
        self::assertSame(Standing::Plays, Standing::together([Standing::Silent, Standing::Plays, Standing::Troubled]));
        self::assertSame(Standing::Changing, Standing::together([Standing::Troubled, Standing::Changing]));
    }

    public function testSaysHowMuchItMattersAndWhy(): void
    {
        self::assertSame([Level::Warning, Level::Stop, Level::Warning, Level::Hint, Level::Warning, null], array_map(static fn (Standing $s) => $s->level(), Standing::cases()));
        self::assertSame('on its way to release 7', Standing::Changing->sentence(7));
        self::assertSame('No room for quay.mp4.', Standing::Troubled->sentence(7, 'No room for quay.mp4.'));
        self::assertSame('silent; it goes on with what it has', Standing::Silent->sentence(7));
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
        return array_values((array) Call::together($calls, [1, 2]));
    }
}
