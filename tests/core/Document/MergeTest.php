<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Document;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Merge;
use UpperPane\Tests\Core\Make;

/** Two designers on one layout at once: what each changed is told, and either's part can be taken. */
final class MergeTest extends TestCase
{
    public function testWhatOnlyOneChangedIsTakenFromThatOne(): void
    {
        $base = Make::harbour();
        [$mine, $theirs] = [$base, $base];
        $mine['elements'][0]['rect']['width'] = 1300;
        $mine['background'] = ['color' => '#123456'];
        $theirs['elements'][1]['playlist'] = ['ref' => 'offers'];
        $theirs['name'] = 'Harbour';
        $merge = Merge::of($base, $mine, $theirs);

        self::assertSame([
            ['elements/main', 'main', 'mine', 'place and size', 'as it was'],
            ['elements/side', 'side', 'theirs', 'as it was', 'what plays'],
        ], array_values(array_filter(array_map(array_values(...), $merge->differences()), static fn (array $d): bool => str_contains($d[0], '/'))));
        $both = $merge->document([]);
        self::assertSame([1300, ['ref' => 'offers'], 'Harbour', ['color' => '#123456']], [$both['elements'][0]['rect']['width'], $both['elements'][1]['playlist'], $both['name'], $both['background']]);
    }

    public function testWhatBothChangedIsMineUnlessTheOtherIsTaken(): void
    {
        $base = Make::harbour();
        [$mine, $theirs] = [['name' => 'Mine'] + $base, ['name' => 'Theirs'] + $base];
        $merge = Merge::of($base, $mine, $theirs);

        self::assertSame([['key' => 'name', 'name' => 'name', 'by' => 'both', 'mine' => 'Mine', 'theirs' => 'Theirs']], $merge->differences());
        self::assertSame(['Mine', 'Theirs'], [$merge->document([])['name'], $merge->document(['name' => 'theirs'])['name']]);
    }

    public function testWhatIsAnotherInALaterVersionIsToldPartByPart(): void
    {
        $old = Make::harbour();
        $new = ['name' => 'Noon'] + $old;
        [$main, , $foot] = $old['elements'];
        $new['elements'] = [$foot, ['name' => 'Left', 'rect' => ['x' => 4] + $main['rect']] + $main, Make::zone('top', 0, 0, 9, 9)];
        self::assertSame(['name: Noon', 'another order of the elements', 'Left: name, place and size', 'top: new', 'side: taken out'], Merge::changes($old, $new));
        self::assertSame([], Merge::changes($old, $old));
    }

    public function testWhatIsNewAndWhatIsTakenOutFindsItsPlace(): void
    {
        $zone = static fn (string $id): array => Make::zone($id, 0, 0, 10, 10);
        $base = Make::layout([$zone('a'), $zone('b'), $zone('c')]);
        $mine = Make::layout([$zone('a'), $zone('new'), $zone('b'), $zone('c')]);
        $theirs = Make::layout([$zone('a'), $zone('c'), $zone('top')]);
        $merge = Merge::of($base, $mine, $theirs);
        $ids = static fn (array $take): array => array_column($merge->document($take)['elements'], 'id');

        self::assertSame([['new', 'mine', 'new', 'as it was'], ['b', 'theirs', 'as it was', 'taken out'], ['top', 'theirs', 'as it was', 'new']], array_map(
            static fn (array $d): array => [$d['name'], $d['by'], $d['mine'], $d['theirs']],
            $merge->differences(),
        ));
        self::assertSame(['a', 'new', 'c', 'top'], $ids([]));
        self::assertSame(['a', 'new', 'b', 'c'], $ids(['elements/b' => 'mine', 'elements/top' => 'mine']));
        self::assertSame(['a', 'c', 'top'], $ids(['elements/new' => 'theirs']));
    }

    public function testManyNewOnesStandBehindWhatTheyStoodBehind(): void
    {
        $zone = static fn (string $id): array => Make::zone($id, 0, 0, 10, 10);
        $base = Make::layout([$zone('a'), $zone('b')]);
        $mine = Make::layout([$zone('m1'), $zone('a'), $zone('m2'), $zone('m3'), $zone('b'), $zone('m4')]);
        $theirs = Make::layout([$zone('a'), $zone('t1'), $zone('b'), $zone('t2'), $zone('t3')]);
        self::assertSame(['m1', 'a', 'm2', 'm3', 't1', 'b', 'm4', 't2', 't3'], array_column(Merge::of($base, $mine, $theirs)->document([])['elements'], 'id'));
    }

    public function testOneChangedWhatTheOtherTookOut(): void
    {
        $base = Make::harbour();
        [$mine, $theirs] = [$base, $base];
        $mine['elements'][2]['rect']['height'] = 200;
        array_pop($theirs['elements']);
        $merge = Merge::of($base, $mine, $theirs);

        self::assertSame(['both', 'place and size', 'taken out'], array_values(array_intersect_key($merge->differences()[0], ['by' => 1, 'mine' => 1, 'theirs' => 1])));
        self::assertCount(3, $merge->document([])['elements']);
        self::assertCount(2, $merge->document(['elements/foot' => 'theirs'])['elements']);
    }

    public function testTheOrderOfTheStackIsAPartOfItsOwn(): void
    {
        $base = Make::harbour();
        [$mine, $theirs] = [$base, $base];
        $mine['elements'] = array_reverse($mine['elements']);
        $theirs['elements'][0]['name'] = 'Main';
        $merge = Merge::of($base, $mine, $theirs);

        self::assertSame(['order of the elements', 'Main'], [$merge->differences()[0]['name'], $merge->differences()[1]['theirs'] === 'name' ? 'Main' : '']);
        self::assertSame(['foot', 'side', 'main'], array_column($merge->document([])['elements'], 'id'));
        self::assertSame('Main', $merge->document([])['elements'][2]['name']);
        self::assertSame(['main', 'side', 'foot'], array_column($merge->document(['elements' => 'theirs'])['elements'], 'id'));
    }

    public function testTheSameWrittenOtherwiseIsNoDifference(): void
    {
        $base = Make::harbour();
        $theirs = array_reverse(json_decode((string) json_encode($base), true), true);
        $theirs['elements'][0]['rect'] = ['height' => 864.0, 'width' => 1344, 'y' => 0, 'x' => 0];
        self::assertSame([], Merge::of($base, $base, $theirs)->differences());
    }

    /** Taking all of one side gives that side, whatever happened. */
    public function testAllOfOneSideIsThatSide(): void
    {
        $random = Make::random(409);
        for ($i = 0; $i < Make::rounds(40); $i++) {
            $base = Make::randomLayout($random);
            [$mine, $theirs] = [self::changed($base, $random), self::changed($base, $random)];
            $merge = Merge::of($base, $mine, $theirs);
            $keys = array_column($merge->differences(), 'key');
            self::assertEquals($mine, $merge->document(array_fill_keys([...$keys, 'elements'], 'mine')));
            self::assertEquals($theirs, $merge->document(array_fill_keys($keys, 'theirs')));
            self::assertEquals($mine, Merge::of($base, $mine, $base)->document([]), 'where they did nothing');
        }
    }

    /**
     * @param array<string, mixed> $document
     * @return array<string, mixed>
     */
    private static function changed(array $document, \Random\Randomizer $random): array
    {
        $elements = $document['elements'];
        foreach (array_keys($elements) as $i) {
            if ($random->getInt(0, 2) === 0) {
                $elements[$i]['rect']['x'] = $random->getInt(0, 9);
            }
        }
        if ($random->getInt(0, 2) === 0) {
            unset($elements[$random->getInt(0, count($elements) - 1)]);
        }
        if ($random->getInt(0, 2) === 0) {
            $elements[] = Make::zone('new' . $random->getInt(0, 1), 0, 0, 9, 9);
        }

        return ['elements' => array_values($elements), 'name' => 'Name ' . $random->getInt(0, 1)] + $document;
    }
}
