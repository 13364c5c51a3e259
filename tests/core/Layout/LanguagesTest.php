<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Told\Speaking;
use UpperPane\Core\Playback\ShownPart;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/**
 * A text in several languages: they take turns, or the place chooses.
 *
 * @phpstan-import-type Doc from Make
 */
final class LanguagesTest extends TestCase
{
    private const TEXTS = ['en' => 'Late boats', 'pt' => 'Barcos tardios', 'de' => 'Späte Boote'];

    /** Language k = floor((t - anchor) / turn_ms) mod n: the formula by another hand. */
    public function testLanguagesTakeTurns(): void
    {
        $random = Make::random(15);
        for ($i = 0; $i < Make::rounds(40); $i++) {
            $texts = array_slice(self::TEXTS, 0, $random->getInt(1, 3), true);
            $turn = $random->getInt(500, 9000);
            $anchor = $random->getInt(0, 100_000);
            $layout = Make::composed(Make::layout([Make::told('t', 'x', message: false, texts: $texts, turn_ms: $turn)]));
            $shown = Make::shownAt($layout, $anchor);
            for ($n = 0; $n < 20; $n++) {
                $at = $anchor + ($n < 4 ? $turn * $n - $n % 2 : $random->getInt(0, 1_000_000));
                $k = (int) floor(($at - $anchor) / $turn) % count($texts);
                self::assertSame([array_values($texts)[($k + count($texts)) % count($texts)]], self::said($shown->at($at)->things), "round $i, $at - $anchor by $turn");
            }
        }
        self::assertSame('Barcos tardios', self::shown(['texts' => self::TEXTS], new Speaking(), 6000), 'each stands for 6 s where nothing is said');
    }

    /** @param list<string> $languages */
    #[DataProvider('places')]
    public function testThePlaceChooses(?string $language, array $languages, string $want, string $after): void
    {
        self::assertSame([$want, $after], array_map(static fn (int $ms): string => self::shown(['texts' => self::TEXTS], new Speaking($language, $languages), $ms), [0, 6000]));
    }

    /** @return iterable<string, array{?string, list<string>, string, string}> */
    public static function places(): iterable
    {
        yield 'all, where it has not chosen' => [null, [], 'Late boats', 'Barcos tardios'];
        yield 'its own, in its order' => [null, ['de', 'en'], 'Späte Boote', 'Late boats'];
        yield 'those of its own that there are' => [null, ['fr', 'pt'], 'Barcos tardios', 'Barcos tardios'];
        yield 'the first, where there is none of its own' => [null, ['fr', 'pt-PT'], 'Late boats', 'Late boats'];
        yield 'one alone' => ['pt', ['en', 'de'], 'Barcos tardios', 'Barcos tardios'];
        yield 'the first, where there is not that one' => ['fr', ['pt'], 'Late boats', 'Late boats'];
    }

    /** @param array<string, mixed> $rows */
    #[DataProvider('tellings')]
    public function testMessagesAreToldInTheLanguageOfTheirTurn(array $rows, Speaking $speaking, string $want, string $after): void
    {
        $fields = ['message' => true, 'text' => '{n}', 'texts' => ['en' => 'from {n}', 'pt' => 'desde {n}'], 'rows' => ['source' => 's'] + $rows];
        self::assertSame([$want, $after], array_map(static fn (int $ms): string => self::shown($fields, $speaking, $ms), [0, 6000]));
    }

    /** @return iterable<string, array{array<string, mixed>, Speaking, string, string}> */
    public static function tellings(): iterable
    {
        yield 'of the turn' => [[], new Speaking(), 'from 1,234.5', 'desde 1.234,5'];
        yield 'before that of the rows' => [['language' => 'de'], new Speaking(), 'from 1,234.5', 'desde 1.234,5'];
        yield 'that is asked for' => [[], new Speaking('de'), 'from 1.234,5', 'from 1.234,5'];
        yield 'of the turn, in the order of the place' => [[], new Speaking(null, ['pt', 'en']), 'desde 1.234,5', 'from 1,234.5'];
    }

    public function testAMessageAloneIsToldInTheLanguageOfThePlace(): void
    {
        $of = static fn (Speaking $speaking, mixed ...$rows): string => self::shown(['message' => true, 'text' => '{n}', 'rows' => ['source' => 's'] + $rows], $speaking, 0);
        self::assertSame('1,234.5', $of(new Speaking()));
        self::assertSame('1.234,5', $of(new Speaking(), language: 'de'), 'of its rows');
        self::assertSame('1.234,5', $of(new Speaking(null, ['pt', 'en']), language: 'de'), 'the first of the place');
        self::assertSame('1,234.5', $of(new Speaking('en', ['pt']), language: 'de'), 'that is asked for');
    }

    public function testAPlaceIsTold(): void
    {
        $speaking = new Speaking(vars: ['phone' => '555 0100', 'berth' => 2]);
        $text = 'Call {place_phone}, berth {place_berth, number}, {place_fax} and {n}';
        self::assertSame('Call 555 0100, berth 2, – and 1,234.5', self::shown(['message' => true, 'text' => $text, 'rows' => ['source' => 's']], $speaking, 0));
        self::assertSame('Berth 2', self::shown(['message' => true, 'text' => 'Berth {place_berth}'], $speaking, 0), 'without any rows');
        $layout = Make::composed(Make::layout([Make::told('t', 'Berth {place_berth} {place_fax}')]));
        $missing = static fn (Speaking $speaking): array => array_column(array_filter(
            Checks::run($layout, (new Surroundings('UTC', new Typewriter()))->speaking($speaking))->toArray()['findings'],
            static fn (array $one): bool => $one['code'] === 'data.missing',
        ), 'measure');
        self::assertEquals([(object) ['arguments' => ['place_fax'], 'count' => 1, 'row' => null]], $missing($speaking));
        self::assertSame([], $missing(new Speaking(vars: ['berth' => 2, 'fax' => ''])));
        $this->assertRefused('/elements/0/rows/fields/place_x', ['message' => true, 'rows' => ['source' => 's', 'fields' => ['place_x' => '$.n']]]);
    }

    public function testInAnItemTurnsCountFromItsBegin(): void
    {
        $inner = Make::layout([Make::told('t', 'x', message: false, texts: self::TEXTS, turn_ms: 1000)], id: 'inner');
        $layout = Make::composed(Make::layout([Make::zone('z', 0, 0, 1920, 1080, [Make::picture('p', durationMs: 2500), ['id' => 'i', 'layout' => $inner, 'duration_ms' => 3000]])]));
        foreach ([2500 => 'Late boats', 3499 => 'Late boats', 3500 => 'Barcos tardios', 4500 => 'Späte Boote', 8000 => 'Late boats'] as $at => $want) {
            self::assertSame([$want], self::said(Make::shownAt($layout)->at($at)->things), "at $at");
        }
    }

    /** Each is looked at; what is found in one alone says in which. Words by a ruler: 20 px for each letter of 40 px. */
    public function testEveryLanguageIsChecked(): void
    {
        $texts = ['en' => 'Late', 'pt' => 'Barcos tardios'];
        $layout = Make::composed(Make::layout([Make::told('t', 'Late', 200, 60, message: false, texts: $texts, style: ['family' => Typewriter::FAMILY, 'size_px' => 40, 'color' => '#ffffff'])]));
        $found = array_values(array_filter(Make::checked($layout, null, new Typewriter())->all, static fn (Finding $one): bool => $one->code === 'text.overflow'));
        self::assertCount(1, $found);
        self::assertSame('pt', $found[0]->measure['language']);
        self::assertStringStartsWith('In pt: "t" needs ', $found[0]->message);

        $cured = Make::cured($layout = Make::layout([Make::told('t', 'Late', 200, 60, message: false, texts: $texts)]), new Surroundings('UTC', new Typewriter()))->all;
        $cure = array_values(array_filter($cured, static fn (Finding $one): bool => $one->code === 'text.overflow'))[0]->cure();
        self::assertNotNull($cure);
        $codes = static fn (array $document): array => array_map(static fn (Finding $one): string => $one->code, Make::checked(Make::composed($document), null, new Typewriter())->all);
        self::assertNotContains('text.overflow', $codes(Layout::fromArray($layout)->cured($cure)->toArray()));
    }

    /** 1 s and twice the words at 180 a minute, common practice: 9 words take 7 s. What takes turns together is read together. */
    public function testALanguageStandsUntilItIsRead(): void
    {
        $nine = ['en' => 'one two three four five six seven eight nine', 'pt' => 'um dois'];
        $brief = static fn (array ...$elements): array => array_values(array_filter(
            Make::checked(Make::composed(Make::layout(array_values($elements))), null, new Typewriter())->all,
            static fn (Finding $one): bool => $one->code === 'duration.short',
        ));
        $text = static fn (string $id, array $texts, int $turn = 6000): array => Make::told($id, 'x', 1900, 60, message: false, texts: $texts, turn_ms: $turn);
        [$found] = [...$brief($text('t', $nine)), null];
        self::assertSame([['t'], ['language' => 'en', 'words' => 9, 'duration_ms' => 6000, 'needed_ms' => 7000]], [$found?->elements, $found?->measure]);
        self::assertSame([], $brief($text('t', $nine, 7000)));
        self::assertSame([], $brief($text('t', ['en' => 'one two three four five', 'pt' => 'um']), $text('u', ['en' => 'six', 'pt' => 'dois'])));
        $both = $brief($text('t', ['en' => 'one two three four five', 'pt' => 'um']), $text('u', ['en' => 'six seven eight nine', 'pt' => 'dois']));
        self::assertSame([[['t', 'u'], 9]], array_map(static fn (Finding $one): array => [$one->elements, $one->measure['words']], $both));
        $in = Make::layout([$text('t', $nine)], id: 'inner');
        $item = $brief(Make::zone('z', 0, 0, 1920, 1080, [['id' => 'i', 'layout' => $in, 'duration_ms' => 12_000]]));
        self::assertSame([['z'], 'i', 'en'], [$item[0]->elements, $item[0]->measure['item'], $item[0]->measure['language']]);
    }

    /** @param array<string, mixed> $fields */
    #[DataProvider('wrong')]
    public function testWhatIsWrong(string $path, array $fields): void
    {
        $this->assertRefused($path, $fields);
    }

    /** @return iterable<string, array{string, array<string, mixed>}> */
    public static function wrong(): iterable
    {
        yield 'no text at all' => ['/elements/0/texts', ['texts' => []]];
        yield 'no language' => ['/elements/0/texts/english please', ['texts' => ['english please' => 'x']]];
        yield 'no text' => ['/elements/0/texts/pt', ['texts' => ['en' => 'x', 'pt' => 5]]];
        yield 'a message that cannot be read' => ['/elements/0/texts/pt', ['message' => true, 'texts' => ['en' => 'x', 'pt' => '{']]];
        yield 'too quick' => ['/elements/0/turn_ms', ['texts' => ['en' => 'x'], 'turn_ms' => 499]];
        yield 'a code that holds no more' => ['/elements/0/texts/pt', ['kind' => 'code', 'texts' => ['en' => 'x', 'pt' => str_repeat('x', 5000)]]];
        $part = ['id' => 'p', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'text' => 'x', 'texts' => ['en' => 'x'], 'style' => ['family' => 'Inter', 'size_px' => 9]];
        yield 'in a part of a board' => ['/elements/0/pattern/elements/0/texts', ['pattern' => ['size' => ['width' => 600, 'height' => 100], 'elements' => [$part]]] + Make::board()];
    }

    /** @param array<string, mixed> $fields */
    private function assertRefused(string $path, array $fields): void
    {
        try {
            $text = Make::told('t', 'x', message: false);
            $without = ['code' => ['style' => 1, 'message' => 1], 'board' => ['style' => 1, 'message' => 1, 'text' => 1]][$fields['kind'] ?? ''] ?? [];
            Layout::fromArray(Make::layout([$fields + array_diff_key($text, $without)]));
            self::fail("$path is taken");
        } catch (Refused $e) {
            self::assertSame($path, $e->path, $e->getMessage());
        }
    }

    /** @param array<string, mixed> $fields of a text */
    private static function shown(array $fields, Speaking $speaking, int $ms): string
    {
        $around = (new Surroundings('UTC', new Typewriter()))->fed(Make::fed([['n' => 1234.5]]))->speaking($speaking);

        return self::said(Make::shownAt(Make::composed(Make::layout([$fields + Make::told('t', 'x', message: false)]), null, $around), 0, $around)->at($ms)->things)[0];
    }

    /**
     * @param list<ShownPart> $things
     * @return list<string>
     */
    private static function said(array $things): array
    {
        return array_values(array_filter(array_map(static fn (ShownPart $thing): ?string => $thing->part->look['text'] ?? null, $things), is_string(...)));
    }
}
