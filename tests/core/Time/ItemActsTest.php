<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\ItemActs;
use UpperPane\Tests\Core\Make;

/**
 * What hands do to the items of a list.
 *
 * @phpstan-import-type Doc from Make
 */
final class ItemActsTest extends TestCase
{
    /** @param array<string, mixed> $act */
    #[TestWith([['do' => 'move', 'item' => 'a', 'by' => 1], 'bcad'])]
    #[TestWith([['do' => 'move', 'item' => 'd', 'by' => -1], 'adbc'])]
    #[TestWith([['do' => 'move', 'item' => 'c', 'by' => -1], 'bcad'])]
    #[TestWith([['do' => 'move', 'item' => 'a', 'by' => -1], 'abcd'])]
    #[TestWith([['do' => 'put', 'item' => 'd', 'target' => 'a'], 'dabc'])]
    #[TestWith([['do' => 'put', 'item' => 'a', 'target' => 'd'], 'bcda'])]
    #[TestWith([['do' => 'put', 'item' => 'b', 'target' => 'c'], 'abcd'])]
    public function testWhatIsTiedMovesTogether(array $act, string $order): void
    {
        $list = array_map(static fn (string $id): array => Make::picture($id) + ($id === 'c' ? ['tied' => true] : []), ['a', 'b', 'c', 'd']);
        self::assertSame($order, implode('', array_column(self::done($list, $act), 'id')));
    }

    public function testAnItemLastsAsItIsTold(): void
    {
        $film = ['transition' => ['kind' => 'fade', 'ms' => 800], 'lasts' => 'endless'] + Make::film('f');
        self::assertSame(['transition' => ['kind' => 'fade', 'ms' => 800]], self::changed($film, ['ms' => 15_000]), 'as long as it is, nothing is stated');
        self::assertSame(['transition' => ['kind' => 'fade', 'ms' => 500], 'duration_ms' => 500], self::changed($film, ['ms' => 500]), 'a transition lies inside');
        self::assertSame(['transition' => ['kind' => 'fade', 'ms' => 800], 'duration_ms' => 15_000], self::changed($film, ['how' => 'stated']));
        self::assertSame(['transition' => ['kind' => 'fade', 'ms' => 800]], self::changed($film, ['how' => 'own']));
        self::assertSame(['lasts' => 'endless'], self::changed(Make::picture('p'), ['how' => 'endless']));
        self::assertSame(['duration_ms' => 10_000], self::changed(['id' => 'n', 'layout' => ['ref' => 'x'], 'lasts' => 'leader'], ['how' => 'stated']));
        self::assertSame(['lasts' => 'own'], self::changed(['id' => 'n', 'layout' => ['ref' => 'x'], 'duration_ms' => 10_000], ['how' => 'own']));
    }

    public function testATransitionLiesInsideWhatItLeadsTo(): void
    {
        $come = static fn (array $item, string $kind): mixed => self::done([$item], ['do' => 'come', 'item' => $item['id'], 'kind' => $kind])[0]['transition'] ?? null;
        self::assertSame(['kind' => 'fade', 'ms' => 600], $come(Make::picture('p'), 'fade'));
        self::assertSame(['kind' => 'push', 'ms' => 400], $come(Make::picture('p', 16, 9, 400), 'push'));
        self::assertSame(['kind' => 'wipe', 'ms' => 250], $come(['transition' => ['kind' => 'fade', 'ms' => 250]] + Make::film('f'), 'wipe'));
        self::assertNull($come(['transition' => ['kind' => 'fade', 'ms' => 250]] + Make::film('f'), 'cut'));
    }

    public function testWhatIsPutInGetsAnIdOfItsOwnAndStandsAsUsual(): void
    {
        $media = static fn (array $item): array => ['media' => $item['media']];
        $added = [$media(Make::picture()), $media(Make::film()), ['layout' => ['ref' => 'x']], ['lasts' => 'endless'] + $media(Make::picture())];
        $items = self::done([Make::picture('i2')], ['do' => 'add', 'items' => $added], ['i3', 'i4']);
        self::assertSame(['i2', 'i5', 'i6', 'i7', 'i8'], array_column($items, 'id'));
        $usual = array_map(static fn (array $item): array => [$item['duration_ms'] ?? null, $item['fit']], array_slice($items, 1));
        self::assertSame([[10_000, 'cover'], [null, 'cover'], [10_000, 'contain'], [null, 'cover']], $usual);
        foreach ($items as $item) {
            self::assertSame($item['id'], Item::fromNode(Node::root($item))->id, 'it can be read');
        }
    }

    public function testWhatAnItemMayLastFollowsFromWhatItIs(): void
    {
        $may = static fn (array $item, bool $follows): string => implode(' ', ItemActs::mayLast(Item::fromNode(Node::root($item)), $follows));
        self::assertSame('stated endless', $may(Make::picture(), false));
        self::assertSame('stated leader endless', $may(Make::picture(), true));
        self::assertSame('stated own endless', $may(Make::film(), false));
        self::assertSame('stated own leader endless', $may(['id' => 'n', 'layout' => ['ref' => 'x']], false));
        $playing = Make::composed(Make::layout([Make::zone('z', 0, 0, 9, 9, [Make::film()])]));
        self::assertSame([['stated', 'own', 'endless']], array_column($playing->zones['z']->playing($playing->loops['z'])['items'], 'may_last'));
    }

    public function testWhatCannotBeDoneIsRefused(): void
    {
        $acts = [
            'ref.unknown' => ['do' => 'move', 'item' => 'gone', 'by' => 1],
            'figure.syntax' => ['do' => 'last', 'item' => 'a', 'typed' => 'soon'],
            'value.unknown' => ['do' => 'last', 'item' => 'a', 'how' => 'long'],
            'value.range' => ['do' => 'last', 'item' => 'a', 'ms' => 0],
            'field.missing' => ['do' => 'put', 'item' => 'a'],
            'field.unknown' => ['do' => 'move', 'item' => 'a', 'by' => 1, 'to' => 2],
        ];
        foreach ($acts as $code => $act) {
            try {
                self::done([Make::picture('a')], $act);
                self::fail($code);
            } catch (Refused $e) {
                self::assertSame($code, $e->reason->value);
            }
        }
    }

    /**
     * @param list<Doc> $items
     * @param array<string, mixed> $act
     * @param list<string> $taken
     * @return list<Doc>
     */
    private static function done(array $items, array $act, array $taken = []): array
    {
        return ItemActs::done($items, $taken, Node::root($act));
    }

    /**
     * @param Doc $item
     * @param array<string, mixed> $how
     * @return Doc what it says of how long it lasts
     */
    private static function changed(array $item, array $how): array
    {
        return array_diff_key(self::done([$item], ['do' => 'last', 'item' => $item['id']] + $how)[0], ['id' => 1, 'media' => 1, 'layout' => 1]);
    }
}
