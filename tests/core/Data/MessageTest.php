<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Data;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Randomizer;
use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Message\Words;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Data\Ticks;
use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Text\PrimaryText;
use UpperPane\Core\Units\Decimal;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;

/** What messages make of values that are not as they should be; the rest is held against ICU in tests/reference/DataRowsReferenceTest.php. */
final class MessageTest extends TestCase
{
    /** @return iterable<string, array{string, string, list<string>}> */
    public static function told(): iterable
    {
        yield 'the example of the contract' => ['{n, plural, one {# place} other {# places}} to {to}', '2 places to Tolm', []];
        yield 'white space around a style' => ['{when, date, HH:mm }', '17:05', []];
        yield 'what is missing, each once, in order' => ['{b} {a} {b} {to}', '? – ? Tolm', ['b', 'a']];
        yield 'what does not fit' => ['{to, number} {to, date} {n, time} {flag, number}', '– – – –', ['to', 'n', 'flag']];
        yield 'a text that reads as a number' => ['{twelve, number, 00.0} {twelve, plural, one {one} other {#}} {twelve}', '12.0 12 12', []];
        yield 'a plural without a number' => ['{b, plural, =0 {none} other {# of {n}}}', '? of 2', ['b']];
        yield 'a choice without a word' => ['{a, select, x {X} other {else}}', 'else', ['a']];
        yield 'branches not taken are not counted' => ['{n, plural, one {{a}} other {{to}}}', 'Tolm', []];
        yield 'booleans' => ['{flag} {flag, select, true {yes} other {no}}', 'true yes', []];
        yield 'a number chosen by' => ['{n, select, 2 {two} other {else}}', 'two', []];
        yield 'a day, which no zone moves' => ['{day} {day, date, d MMM} {day, time}', '6/1/26 1 Jun –', ['day']];
        yield 'a figure within a choice within a plural is a sign' => ['{n, plural, other {# {to, select, other {#}}}}', '2 #', []];
        yield 'an offset' => ['{n, plural, offset:1 =1 {you} one {you and one} other {you and #}}', 'you and one', []];
        yield 'names that objects have' => ['{__proto__} {constructor}', '– –', ['__proto__', 'constructor']];
        yield 'markup is text' => ['<b>{to}</b>', '<b>Tolm</b>', []];
    }

    /** @param list<string> $missing */
    #[DataProvider('told')]
    public function testMessages(string $pattern, string $text, array $missing): void
    {
        $row = ['n' => 2, 'to' => 'Tolm', 'when' => Instant::parse('2026-06-01T16:05:00Z'), 'twelve' => '12', 'flag' => true, 'day' => Day::parse('2026-06-01'), 'b' => null];
        $told = Message::parse($pattern)->tell($row, new Formats('en', 'Europe/Lisbon'), ['b' => '?', 'to' => null]);
        self::assertSame([$text, $missing], [$told->text, $told->missing]);
    }

    public function testTheNamesOfAllBranches(): void
    {
        self::assertSame(['n', 'a', 'b', 'when'], Message::parse('{n, plural, one {{a}} other {{b, select, x {{when}} other {{a}}}}}')->names());
    }

    /** @return iterable<string, array{string, int}> */
    public static function wrong(): iterable
    {
        yield 'never closed' => ['to {n', 3];
        yield 'a branch never closed' => ['é {n, plural, other {x', 14];
        yield 'no name' => ['{}', 1];
        yield 'a word behind the name' => ['{n number}', 3];
        yield 'no such type' => ['{n, money}', 4];
        yield 'no such style' => ['{n, number, #.#.#}', 12];
        yield 'no other' => ['{n, plural, one {x}}', 0];
        yield 'a branch without braces' => ['{n, plural, other x}', 18];
        yield 'an apostrophe in a style' => ["{n, date, 'at}", 10];
        yield 'too deep' => [str_repeat('{n, select, other {', 30) . str_repeat('}}', 30), 190];
    }

    #[DataProvider('wrong')]
    public function testWhatCannotBeReadIsRefusedWithItsOffset(string $pattern, int $offset): void
    {
        try {
            Message::parse($pattern, '/elements/0/text');
            self::fail($pattern);
        } catch (DataRefused $refused) {
            self::assertSame(['path' => '/elements/0/text', 'offset' => $offset], array_diff_key($refused->toArray()['error'], ['code' => 1, 'message' => 1]));
        }
    }

    public function testALongMessageIsTold(): void
    {
        $pattern = str_repeat('{n, plural, one {a} other {#}} ', 400);
        self::assertSame(str_repeat('2 ', 400), Message::parse($pattern)->tell(['n' => 2], new Formats('en', 'UTC'))->text);
    }

    public function testDecimals(): void
    {
        $cases = [[2.675, 2, 2.68], [-2.5, 0, -3.0], [0.5, 0, 1.0], [0.04, 1, 0.0], [9.995, 2, 10.0], [1e-7, 2, 0.0], [123.4, 5, 123.4], [1e22, 2, 1e22], [0.45, 1, 0.5]];
        foreach ($cases as [$number, $decimals, $rounded]) {
            self::assertSame($rounded, Decimal::rounded($number, $decimals), (string) $number);
        }
        self::assertSame(['0', '1e+21', '0.000001', '1e-7', '-12.5', '100'], array_map(Decimal::text(...), [0.0, 1e21, 1e-6, 1e-7, -12.5, 100]));
    }

    public function testLettersAloneAreCompared(): void
    {
        self::assertTrue(PrimaryText::contains('Nach GROSSE Straße', 'ße st'));
        self::assertTrue(PrimaryText::contains('Große Straße', 'sse str'));
        self::assertTrue(PrimaryText::contains("a\u{301}b", 'áB'));
        self::assertTrue(PrimaryText::begins('Ærø', 'aero'));
        self::assertFalse(PrimaryText::begins('x-ray', 'xr'));
        self::assertTrue(PrimaryText::contains('日本語', '本'));
    }

    public function testAxes(): void
    {
        self::assertSame([0.0, 4.0], Ticks::axis(null, null, 1.2, 3.7, 5));
        self::assertSame([-2.0, 4.0], Ticks::axis(null, null, -1.2, 3.7, 5));
        self::assertSame([0.0, 3.5], Ticks::axis(null, 3.5, 1.2, 3.7, 5));
        self::assertSame([0.0, 1.0], Ticks::axis(null, null, 0.0, 0.0, 5), 'values that are all the same');
        self::assertSame([], Ticks::of(1.1, 1.9, 1));
        foreach ([[1.0, 1.0, 5, '/to'], [0.0, 1.0, 0, '/count'], [0.0, INF, 5, '/to']] as [$from, $to, $count, $path]) {
            try {
                Ticks::of($from, $to, $count);
                self::fail("$from $to $count");
            } catch (Refused $refused) {
                self::assertSame($path, $refused->path);
            }
        }
    }

    /** A message told in part, and then the rest of it, says what it says told at once: over random patterns, quotes and braces of all sorts. */
    public function testWhatIsToldInPartIsToldTheSame(): void
    {
        $random = Make::random(16);
        $formats = new Formats('en', 'UTC');
        $parts = 0;
        for ($i = 0; $i < Make::rounds(400); $i++) {
            $pattern = self::randomPattern($random, 2, false);
            $values = ['a' => self::randomWords($random), 'b' => 'x', 'n' => $random->getInt(0, 3), 'm' => $random->getInt(0, 6) / 2];
            $known = array_filter($values, static fn (): bool => $random->getInt(0, 1) === 0);
            $message = Message::parse($pattern);
            $part = $message->toldInPart($known, $formats);
            self::assertSame($message->tell($values, $formats)->text, $part->tell(array_diff_key($values, $known), $formats)->text, $pattern);
            self::assertSame([], array_intersect($part->names(), array_keys($known)), 'what has been told is named no more');
            $parts += $part->pattern === $pattern ? 0 : 1;
        }
        self::assertGreaterThan(100, $parts);
    }

    public function testANumberHasItsDecimalsWhereNoFormatIsSaid(): void
    {
        $told = static fn (string $pattern, int|float $n, int $decimals, string $language = 'en'): string
            => Message::parse($pattern)->toldInPart(['n' => $n], new Formats($language, 'UTC'), ['n' => $decimals])->pattern;
        self::assertSame('18.50 €', $told('{n} €', 18.5, 2));
        self::assertSame('18,50 €', $told('{n} €', 18.5, 2, 'pt'));
        self::assertSame('1,234.00', $told('{n}', 1234, 2));
        self::assertSame('12', $told('{n}', 12, 0));
        self::assertSame('12.5', $told('{n, number}', 12.5, 2), 'a format tells it as it is');
    }

    private static function randomWords(Randomizer $random): string
    {
        return implode('', array_map(static fn (): string => ['{', '}', "'", '#', 'a', 'b '][$random->getInt(0, 5)], range(0, $random->getInt(0, 3))));
    }

    private static function randomPattern(Randomizer $random, int $depth, bool $isPlural): string
    {
        $pick = static fn (string ...$of): string => $of[$random->getInt(0, count($of) - 1)];
        $branch = static fn (bool $isPlural): string => '{' . self::randomPattern($random, $depth - 1, $isPlural) . '}';
        $pattern = '';
        for ($left = $random->getInt(1, 4); $left > 0; $left--) {
            $pattern .= match ($random->getInt(0, $depth > 0 ? 5 : 2)) {
                0 => Words::quoted(self::randomWords($random), $isPlural) . $pick('{a}', '{b}', '{n}'),
                1 => '{' . $pick('a', 'b', 'n', 'm') . '}',
                2 => $isPlural ? '#' : '{m, number, ::.00}',
                3 => sprintf('{%s, plural, =2 %s one %s other %s}', $pick('n', 'm'), $branch(true), $branch(true), $branch(true)),
                4 => sprintf('{%s, plural, offset:1 one %s other %s}', $pick('n', 'm'), $branch(true), $branch(true)),
                default => sprintf('{%s, select, x %s other %s}', $pick('a', 'b'), $branch(false), $branch(false)),
            };
        }

        return $pattern;
    }
}
