<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/**
 * Texts, running texts and codes that tell rows of data.
 *
 * @phpstan-import-type Doc from Make
 */
final class MessagesTest extends TestCase
{
    private const RECT = ['x' => 0, 'y' => 0, 'width' => 400, 'height' => 100];
    private const STYLE = ['family' => Typewriter::FAMILY, 'size_px' => 20];

    public function testATextTellsItsFirstRowInItsLanguageAndTheZoneOfTheDisplay(): void
    {
        $rows = ['source' => 's', 'fields' => ['n' => ['of' => '$.n', 'fallback' => 'no'], 'at' => '$.at'], 'language' => 'pt', 'sort' => [['by' => 'n']]];
        $text = Make::told('t', '{n, plural, one {# lugar} other {# lugares}}, {at, date, long}', rows: $rows);
        $feeds = Make::fed([['n' => 2000.5, 'at' => '2026-06-01T23:30:00Z'], ['n' => 1, 'at' => '2026-06-01T23:30:00Z']]);
        self::assertSame(['1 lugar, 2 de junho de 2026'], self::texts($text, $feeds, 0, 'Europe/Lisbon'));
        self::assertSame(['1 lugar, 1 de junho de 2026'], self::texts($text, $feeds, 0, 'Atlantic/Azores'));
        self::assertSame(['– –'], self::texts(Make::told('t', '{n} {at}', rows: ['source' => 's']), Make::fed([]), 0));
        self::assertSame(['no places'], self::texts(Make::told('t', '{n} places', rows: $rows), Make::fed([['at' => 'x']]), 0), 'as its field says');
        self::assertSame(['– {at}'], self::texts(Make::told('t', "{n} '{at}'"), Make::fed([]), 0), 'without rows nothing is known');
    }

    public function testATextChangesTheVeryMomentItsRowsDo(): void
    {
        $rows = ['source' => 's', 'where' => [['field' => 'departs', 'is' => 'upcoming']]];
        $feeds = Make::fed([['to' => 'Tolm', 'departs' => '1970-01-01T00:00:07.250Z'], ['to' => 'Vennick', 'departs' => '1970-01-01T00:01:00Z']]);
        $told = static fn (int $at): array => self::texts(Make::told('t', '{to}', rows: $rows), $feeds, $at);
        self::assertSame([['Tolm'], ['Vennick'], ['–']], [$told(7249), $told(7250), $told(60_000)]);
    }

    public function testRunningTextTellsAllRowsAndChangesAtTheEndOfAPass(): void
    {
        $rows = ['source' => 's', 'where' => [['field' => 'until', 'is' => 'upcoming']]];
        $ticker = ['id' => 't', 'kind' => 'ticker', 'rect' => self::RECT, 'message' => true, 'text' => '{to}!', 'rows' => $rows, 'speed_px_s' => 60, 'style' => self::STYLE];
        $feeds = Make::fed([['to' => 'Tolm', 'until' => '1970-01-01T00:00:05Z'], ['to' => 'Vennick', 'until' => '2030-01-01T00:00:00Z']]);
        // 16 letters of 10 px through a box of 400 px at 60 px a second: 9,333 ms.
        self::assertSame([['Tolm! · Vennick!'], ['Vennick!']], [self::texts($ticker, $feeds, 9332), self::texts($ticker, $feeds, 9333)]);
        self::assertSame(['Tolm! + Vennick!'], self::texts(['separator' => ' + '] + $ticker, $feeds, 0));
        self::assertSame([''], self::texts($ticker, Make::fed([]), 0));
    }

    public function testACodeTellsItsRowAndIsAsLargeAsThatNeeds(): void
    {
        $code = ['id' => 'c', 'kind' => 'code', 'rect' => self::RECT, 'message' => true, 'text' => 'https://quay.example/{id}', 'rows' => ['source' => 's']];
        $composed = Make::composed(Make::layout([$code]), null, self::surroundings(Make::fed([['id' => str_repeat('x', 5000)]])));
        $things = Make::shownAt($composed, 0, self::surroundings(Make::fed([])))->at(0)->toArray()['things'];
        self::assertSame('code', $things[0]['kind'], 'what no code holds is cut');
    }

    public function testWhatIsMissingIsFoundAndASourceThatIsNotThereIsRefused(): void
    {
        $find = static function (array $element, Feeds $feeds): array {
            $found = Checks::run(Make::composed(Make::layout([$element]), null, self::surroundings($feeds)), self::surroundings($feeds))->all;

            return array_values(array_filter($found, static fn (Finding $one): bool => str_starts_with($one->code, 'data.')));
        };
        $ticker = ['id' => 't', 'kind' => 'ticker', 'rect' => self::RECT, 'message' => true, 'text' => '{to} {berth}', 'rows' => ['source' => 's'], 'style' => self::STYLE];
        $rows = [['to' => 'Tolm', 'berth' => 1], ['to' => 'Vennick'], ['to' => 'Tolm']];
        self::assertSame(['arguments' => ['berth'], 'count' => 2, 'row' => 1], $find($ticker, Make::fed($rows))[0]->measure);
        self::assertSame([], $find(['text' => '{to} {berth}'] + Make::told('t', '', rows: ['source' => 's']), Make::fed($rows)), 'a text tells the first row');
        self::assertSame('data.unknown', $find($ticker, Feeds::none())[0]->code);

        $this->expectException(Refused::class);
        $this->expectExceptionMessage('/elements/0/rows/source is "s", and no data of that source are given.');
        Make::composed(Make::layout([$ticker]), null, self::surroundings(Feeds::of([], true)));
    }

    public function testRowsWithoutAMessageAreRefused(): void
    {
        $this->expectExceptionMessage('/elements/0/rows stands beside a text that is no message; "message": true makes it one.');
        Make::composed(Make::layout([['message' => false] + Make::told('t', 'x', rows: ['source' => 's'])]));
    }

    private static function surroundings(Feeds $feeds, string $timezone = 'UTC'): Surroundings
    {
        return (new Surroundings($timezone, new Typewriter()))->fed($feeds);
    }

    /**
     * @param Doc $element
     * @return list<string>
     */
    private static function texts(array $element, Feeds $feeds, int $at, string $timezone = 'UTC'): array
    {
        $surroundings = self::surroundings($feeds, $timezone);

        return array_column(Make::shownAt(Make::composed(Make::layout([$element]), null, $surroundings), 0, $surroundings)->at($at)->toArray()['things'], 'text');
    }
}
