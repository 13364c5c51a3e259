<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Handover;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Handover\DisplayFacts;
use UpperPane\Core\Handover\EstateFindings;
use UpperPane\Core\Handover\Planned;
use UpperPane\Core\Playback\Call;
use UpperPane\Core\Playback\DisplayStatus;
use UpperPane\Core\Units\Instant;

/** What is wrong with the displays of an estate, and that the same of many is said once. */
final class EstateFindingsTest extends TestCase
{
    private const NOW = '2026-06-01T10:00:00Z';
    private const RELEASE = ['number' => 4, 'name' => 'Hall, 100 %', 'source' => 'layout:hall'];
    private const FINE = ['stops' => 0, 'warnings' => 0, 'hints' => 0];

    public function testWhatIsWrongWithADisplayIsSaid(): void
    {
        self::assertSame([], self::told(self::display('a', [self::call()])));
        self::assertSame(['stop player.silent A has been silent since 10:23. It goes on with release 4.'], self::told(self::display('a', [self::call('2026-06-01T09:23:00Z')])));
        self::assertSame(['stop player.silent A has been silent since 2026-05-31 10:23. It goes on with release 4.'], self::told(self::display('a', [self::call('2026-05-31T09:23:00Z')])));
        self::assertSame(['stop player.silent A has been silent from the beginning. It goes on with release 4.'], self::told(self::display('a', [new Call(0)])));
        self::assertSame(['warning player.troubled A: The disk is full.'], self::told(self::display('a', [self::call(trouble: 'The disk is full.')])));
        self::assertSame(['warning player.changing A is on its way to release 4.'], self::told(self::display('a', [self::call(plays: 'before')])));
        self::assertSame(['stop player.silent A (player 2) has been silent from the beginning. It goes on with release 4.'], self::told(self::display('a', [self::call(), new Call(0)])));
        self::assertSame(['warning display.unbound A has no player.', 'hint display.blank Nothing was handed over to A yet.'], self::told(self::display('a', [], null)));
        self::assertSame(['warning release.older "Hall, 100 %" is changed and not handed over to A.'], self::told(self::display('a', [self::call()], isOlder: true)));
        $planned = new Planned(Instant::parse('2026-06-04T12:00:00Z')->ms, 'Night');
        self::assertSame(
            ['warning release.ends A: What is planned ends in 3 days; from then on the standby "Night" plays. Hand over again.'],
            self::told(self::display('a', [self::call()], planned: $planned->finding(Instant::parse(self::NOW)->ms))),
        );
        self::assertSame(['warning survey.found A: 3 found in its survey.'], self::told(self::display('a', [self::call()], survey: ['stops' => 0, 'warnings' => 1, 'hints' => 2])));
    }

    public function testTheSameOfManyDisplaysIsSaidOnceAndNamesThemAll(): void
    {
        $displays = static fn (int $count): array => array_map(static fn (int $n): DisplayFacts => self::display("d$n", [new Call(0)], isOlder: true), range(1, $count));
        self::assertSame(6, count(self::told(...$displays(5))), 'five are said one by one, what was changed is one thing');
        $found = EstateFindings::of([...$displays(6), self::display('x', [self::call()], ['source' => 'layout:x', 'name' => 'X'] + self::RELEASE, isOlder: true)], Instant::parse(self::NOW)->ms)->all;
        self::assertSame([
            '6 displays have a silent player; each goes on with what it has.',
            '"Hall, 100 %" is changed and not handed over to 6 displays.',
            '"X" is changed and not handed over to X.',
        ], array_map(static fn (Finding $finding): string => $finding->message, $found));
        self::assertSame([['d1', 'd2', 'd3', 'd4', 'd5', 'd6'], 'layout:hall'], [$found[1]->elements, $found[1]->measure['source']]);
    }

    public function testWhatIsFilledInAndLacksALanguageIsSaidOnce(): void
    {
        $found = EstateFindings::untranslated('price', 'Price', ['pt'], ['a' => 'Pier A', 'b' => 'Pier B']);
        self::assertSame(['"Price" has no text in pt, which Pier A, Pier B show too.', ['a', 'b'], 'price'], [$found->message, $found->elements, $found->measure['filled']]);
        $many = array_combine(range(1, 7), array_map(static fn (int $n): string => "Pier $n", range(1, 7)));
        self::assertSame('"Price" has no text in en, pt, which 7 displays show too.', EstateFindings::untranslated('price', 'Price', ['en', 'pt'], $many)->message);
        self::assertSame('"Price" has no text in pt, which Pier A shows too.', EstateFindings::untranslated('price', 'Price', ['pt'], ['a' => 'Pier A'])->message);
    }

    public function testEachKindIsExplained(): void
    {
        $codes = array_column(array_map(static fn ($explanation): array => [$explanation->code], EstateFindings::explained()), 0);
        self::assertSame($codes, array_unique($codes));
        self::assertContains(EstateFindings::blank('a', 'A')->code, $codes);
    }

    private static function call(string $at = self::NOW, string $plays = 'now', ?string $trouble = null): Call
    {
        return new Call(0, Instant::parse($at)->ms, $plays, $trouble);
    }

    /**
     * @param list<Call> $players
     * @param ?array{number: int, name: string, source: string} $release
     * @param array{stops: int, warnings: int, hints: int} $survey
     */
    private static function display(string $id, array $players, ?array $release = self::RELEASE, bool $isOlder = false, ?Finding $planned = null, array $survey = self::FINE): DisplayFacts
    {
        $stands = static fn (Call $call): DisplayStatus => DisplayStatus::of($call, $release === null ? [] : ['now'], Instant::parse(self::NOW)->ms);
        $named = array_map(static fn (Call $call, int $number): array => ['player ' . ($number + 1), $call, $stands($call)], $players, array_keys($players));

        return new DisplayFacts($id, strtoupper($id), 'Europe/Lisbon', $named, $release, $isOlder, $planned, $survey);
    }

    /** @return list<string> */
    private static function told(DisplayFacts ...$displays): array
    {
        $found = EstateFindings::of($displays, Instant::parse(self::NOW)->ms)->all;

        return array_map(static fn (Finding $finding): string => "{$finding->level->value} $finding->code $finding->message", $found);
    }
}
