<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Data\Snapshot;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\LayoutChanges;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/**
 * Items that play row by row: one item a row, over which the messages of their layout are told.
 *
 * @phpstan-import-type Doc from Make
 */
final class RowByRowTest extends TestCase
{
    private const BOATS = [['to' => 'Tolm', 'n' => 2], ['to' => 'Vennick', 'n' => 5], ['to' => 'Hare Skerry', 'n' => null]];

    public function testEachRowIsAnItemOfItsOwnAndInterleaveCountsEach(): void
    {
        $zone = Make::zone('z', 0, 0, 400, 300, [self::each(), Make::picture('p', durationMs: 3000)]);
        $zone['playlist']['interleave'] = ['every' => 2, 'items' => [Make::picture('house', durationMs: 1000)]];
        $layout = self::composed([$zone], Make::fed(self::BOATS));
        self::assertSame([
            '00 each 0', '04 each 1', '08 house', '09 each 2', '13 p', '16 house', '17 each 0',
        ], self::slots($layout, 17_001));
        self::assertSame(17_000, $layout->loopMs());
        $playing = $layout->zones['z']->playing($layout->loops['z']);
        self::assertSame([['each', 3], ['p', 1], ['house', 2]], array_map(static fn (array $one): array => [$one['id'], $one['plays']], $playing['items']), 'rows count together');
        self::assertFalse($layout->isTurning(), 'these rows stay for ever');
        self::assertTrue($layout->tellsData());
    }

    /** Messages without rows of their own are told over the row, however deep; what has rows tells those. */
    public function testMessagesAreToldOverTheRow(): void
    {
        $inner = Make::layout([Make::told('deep', '{n, plural, one {# place} other {# places}}'), Make::told('own', 'first: {to}', rows: ['source' => 's'])], id: 'inner');
        $within = Make::zone('in', 0, 0, 90, 90, [['id' => 'i', 'layout' => $inner, 'lasts' => 'endless']]);
        $outer = Make::layout([Make::told('to', 'To {to}'), Make::told('plain', 'Boats', message: false), $within], id: 'offer');
        $layout = self::composed([Make::zone('z', 0, 0, 400, 300, [self::each($outer)])], Make::fed(self::BOATS));
        $shown = ShownAt::of(Programme::endless($layout), self::surroundings(Make::fed(self::BOATS)));
        $told = static fn (int $ms): array => array_column($shown->at($ms)->toArray()['things'], 'text');
        self::assertSame(['To Tolm', 'Boats', '2 places', 'first: Tolm'], $told(0));
        self::assertSame(['To Vennick', 'Boats', '5 places', 'first: Tolm'], $told(4000));
        self::assertSame(['To Hare Skerry', 'Boats', '– places', 'first: Tolm'], $told(11_999));
        self::assertSame(['To Tolm', 'Boats', '2 places', 'first: Tolm'], $told(12_000));
    }

    /** As items with hours do: the row that runs ends, then the next that is chosen by then. */
    public function testRowsComeAndGoAsItemsDo(): void
    {
        $rows = [['to' => 'Tolm', 'at' => '1970-01-01T00:00:02Z'], ['to' => 'Vennick', 'at' => '1970-01-01T00:00:30Z'], ['to' => 'Pellan', 'at' => '1970-01-01T00:00:30Z']];
        $where = [['field' => 'at', 'is' => 'upcoming', 'to_min' => 60]];
        $layout = self::composed([Make::zone('z', 0, 0, 400, 300, [self::each(rows: ['where' => $where]), Make::picture('p', durationMs: 3000)])], Make::fed($rows));
        self::assertSame([
            '00 each Tolm', '04 each Vennick', '08 each Pellan', '12 p', '15 each Vennick', '19 each Pellan', '23 p', '26 each Vennick', '30 p', '33 p',
        ], self::slots($layout, 33_001, true));
        $limited = self::composed([Make::zone('z', 0, 0, 400, 300, [self::each(rows: ['where' => $where, 'limit' => 1])])], Make::fed($rows));
        self::assertSame(['00 each Tolm', '04 each Vennick', '08 each Vennick'], self::slots($limited, 8001, true));
    }

    /** New data: rows that come again in the same order are the same items, so what runs goes on; what is new lies where it is told. */
    public function testNewDataGoOnWhereTheyAreTheSame(): void
    {
        $told = static fn (string ...$names): mixed => Make::tree(array_map(static fn (string $to): array => ['to' => $to], array_values($names)));
        $slots = static function (mixed $before, mixed $after, int $fromMs): array {
            $feeds = Feeds::of(['s' => [new Snapshot($before), new Snapshot($after, null, $fromMs)]]);

            $layout = self::composed([Make::zone('z', 0, 0, 400, 300, [self::each()])], $feeds);

            return array_map(static fn (string $slot): string => substr($slot, 8), self::slots($layout, 20_000, true));
        };
        self::assertSame(['A', 'B', 'C', 'A', 'B'], $slots($told('A', 'B', 'C'), $told('A', 'B', 'C'), 5000));
        self::assertSame(['A', 'B', 'N', 'C', 'A'], $slots($told('A', 'B', 'C'), $told('A', 'B', 'N', 'C'), 5000));
        self::assertSame(['A', 'B', 'C', 'B', 'C'], $slots($told('A', 'B', 'C'), $told('B', 'C'), 1000), 'what runs ends, though it is gone');
        self::assertSame(['A', 'B', 'C', 'A', 'C'], $slots($told('A', 'B', 'C'), $told('C', 'A'), 5000), 'told in another order');
        self::assertSame(['A', 'A', 'B', 'A', 'A'], $slots($told('A', 'A', 'B'), $told('A', 'A', 'B'), 5000), 'twice the same is twice an item');
        self::assertSame(['A', 'B', 'X', 'Y', 'X'], $slots($told('A', 'B'), $told('X', 'Y'), 5000));
    }

    public function testItIsCheckedOverTheLongestValuesAndToldWhatIsMissing(): void
    {
        $offer = Make::layout([['rect' => ['x' => 0, 'y' => 0, 'width' => 300, 'height' => 60]] + Make::told('to', '{to} {n}')], id: 'offer');
        $zone = Make::zone('z', 0, 0, 1920, 1080, [self::each($offer)]);
        $codes = static function (Feeds $feeds, array $zone): array {
            $surroundings = self::surroundings($feeds);

            return array_map(static fn (Finding $one): string => $one->code, Checks::run(self::composed([$zone], $feeds), $surroundings)->all);
        };
        $found = $codes(Make::fed(self::BOATS), $zone);
        self::assertContains('data.missing', $found);
        self::assertContains('data.unknown', $codes(Feeds::of([]), $zone));
        self::assertNotContains('zone.empty', $codes(Feeds::of([]), $zone));
        self::assertContains('zone.gap', $codes(Make::fed([]), $zone));
        // What data tell is no change of the design.
        $changes = LayoutChanges::between(self::composed([$zone], Make::fed(self::BOATS)), self::composed([$zone], Make::fed([])));
        self::assertSame([], $changes);
    }

    /** @param Doc $item */
    #[DataProvider('wrong')]
    public function testWhatCannotBeIsRefused(array $item, string $path): void
    {
        try {
            self::composed([Make::zone('z', 0, 0, 9, 9, [$item])], Make::fed(self::BOATS, isStrict: true));
            self::fail('It was not refused.');
        } catch (Refused $e) {
            self::assertSame("/elements/0/playlist/items/0/$path", $e->path);
        }
    }

    /** @return iterable<array{Doc, string}> */
    public static function wrong(): iterable
    {
        yield [['each' => ['source' => 's']] + Make::picture('a'), 'each'];
        yield [self::each(rows: ['source' => 'other']), 'each/source'];
        yield [self::each(rows: ['path' => '$[']), 'each/path'];
        yield [array_diff_key(self::each(), ['duration_ms' => 1]), 'duration_ms'];
    }

    /**
     * @param ?Doc $layout
     * @param array<string, mixed> $rows
     * @return Doc
     */
    private static function each(?array $layout = null, array $rows = []): array
    {
        return ['id' => 'each', 'layout' => $layout ?? Make::layout([Make::told('to', '{to}')], id: 'offer'), 'each' => $rows + ['source' => 's'], 'duration_ms' => 4000];
    }

    private static function surroundings(Feeds $feeds): Surroundings
    {
        return (new Surroundings('UTC', new Typewriter()))->fed($feeds);
    }

    /** @param list<Doc> $elements */
    private static function composed(array $elements, Feeds $feeds): Composed
    {
        return Make::composed(Make::layout($elements), null, self::surroundings($feeds));
    }

    /** @return list<string> of each slot its second, its item, and the row, or what that tells */
    private static function slots(Composed $layout, int $toMs, bool $tells = false): array
    {
        $shown = ShownAt::of(Programme::endless($layout), self::surroundings(Feeds::none()));

        return array_map(static function (array $slot) use ($shown, $tells): string {
            $at = (int) substr($slot['from'], 17, 2);
            $row = $tells ? $shown->at(1000 * $at)->toArray()['things'][1]['text'] ?? null : $slot['row'] ?? null;

            return trim(sprintf('%02d %s %s', $at, $slot['item'], $row));
        }, Timeline::of($layout, 0, $toMs)['zones'][0]['segments']);
    }
}
