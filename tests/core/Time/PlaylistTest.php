<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Time\Playlist;
use UpperPane\Tests\Core\Make;

/** @phpstan-import-type Doc from Make */
final class PlaylistTest extends TestCase
{
    /**
     * @param list<Doc> $items
     * @param list<int> $lengths ms of each slot
     */
    #[DataProvider('lists')]
    public function testLasts(array $items, array $lengths, ?int $period): void
    {
        $loop = Make::composed(Make::layout([Make::zone('z', 0, 0, 100, 100, $items)]))->loops['z'];

        self::assertSame($lengths, $loop->lengths);
        self::assertSame($period, $loop->periodMs);
    }

    /** @return iterable<string, array{list<Doc>, list<int>, ?int}> */
    public static function lists(): iterable
    {
        yield 'nothing' => [[], [], 0];
        yield 'a picture as long as it is told' => [[Make::picture(durationMs: 7000)], [7000], 7000];
        yield 'a film as long as it is' => [[Make::film(lengthMs: 15_000)], [15_000], 15_000];
        yield 'a film told to last its own length' => [[Make::film(lengthMs: 15_000, lasts: 'own')], [15_000], 15_000];
        yield 'a film held longer' => [[Make::film(lengthMs: 15_000, duration_ms: 20_000)], [20_000], 20_000];
        yield 'one that is switched off' => [[Make::picture('a'), Make::picture('b', enabled: false), Make::picture('c')], [10_000, 10_000], 20_000];
        yield 'a film without end' => [[Make::picture('a'), ['lasts' => 'endless'] + Make::film('b')], [10_000, 0], null];
        yield 'a nested layout until its loops meet' => [
            [['id' => 'n', 'layout' => Make::layout([
                Make::zone('x', 0, 0, 9, 9, [Make::picture(durationMs: 4000)]),
                Make::zone('y', 0, 0, 9, 9, [Make::picture(durationMs: 6000)]),
            ], id: 'inner')]],
            [12_000],
            12_000,
        ];
        yield 'a nested layout until its leader has gone round' => [
            [['id' => 'n', 'lasts' => 'leader', 'layout' => Make::layout([
                Make::zone('x', 0, 0, 9, 9, [Make::picture('a', durationMs: 4000), Make::picture('b', durationMs: 3000)]),
                Make::zone('y', 0, 0, 9, 9, [Make::picture('a'), Make::picture('b'), Make::picture('c')], follows: 'x'),
            ], id: 'inner')]],
            [7000],
            7000,
        ];
    }

    /** @param Doc $item */
    #[DataProvider('wrong')]
    public function testRefuses(array $item, string $path): void
    {
        try {
            Make::composed(Make::layout([Make::zone('z', 0, 0, 100, 100, [$item])]));
            self::fail('It was read.');
        } catch (Refused $e) {
            self::assertSame("/elements/0/playlist/items/0$path", $e->path, $e->getMessage());
        }
    }

    /** @return iterable<string, array{Doc, string}> */
    public static function wrong(): iterable
    {
        $without = static fn (string $field): array => array_diff_key(Make::picture(), [$field => 1]);
        yield 'neither media nor layout' => [$without('media'), '/media'];
        yield 'both' => [Make::picture(layout: ['ref' => 'x']), '/layout'];
        yield 'no id' => [$without('id'), '/id'];
        yield 'a picture that lasts its own length' => [['lasts' => 'own'] + $without('duration_ms'), '/lasts'];
        yield 'a picture that waits for a leader nobody has' => [['lasts' => 'leader'] + $without('duration_ms'), '/lasts'];
        yield 'a layout of words alone' => [['id' => 'n', 'layout' => Make::layout([], id: 'words')], '/duration_ms'];
        yield 'a focus beyond its box' => [Make::picture(focus: [50, 101]), '/focus/1'];
        yield 'half a focus' => [Make::picture(focus: [50]), '/focus'];
        yield 'an unknown fit' => [Make::picture(fit: 'stretch'), '/fit'];
        yield 'an unknown transition' => [Make::picture(transition: ['kind' => 'melt']), '/transition/kind'];
        yield 'a transition longer than its item' => [Make::picture(durationMs: 400, transition: ['kind' => 'wipe', 'ms' => 401]), '/transition/ms'];
        yield 'a fade that comes from a side' => [Make::picture(transition: ['kind' => 'fade', 'from' => 'left']), '/transition/from'];
        yield 'a push from nowhere' => [Make::picture(transition: ['kind' => 'push', 'from' => 'behind']), '/transition/from'];
        yield 'a duration of nothing' => [Make::picture(durationMs: 0), '/duration_ms'];
        yield 'a negative duration' => [Make::picture(durationMs: -5), '/duration_ms'];
        yield 'a weight of nothing' => [Make::picture(weight: 0), '/weight'];
        yield 'half a weight' => [Make::picture(weight: 1.5), '/weight'];
        yield 'louder than loud' => [Make::picture(volume: 101), '/volume'];
        yield 'louder than loud at night' => [Make::film(levels: [['hours' => ['22:00', '06:00'], 'volume' => 101]]), '/levels/0/volume'];
        yield 'hours that are none' => [Make::film(levels: [['hours' => ['22:00'], 'volume' => 1]]), '/levels/0/hours'];
        yield 'tied with a word' => [Make::picture(tied: 'yes'), '/tied'];
        yield 'valid from an instant' => [Make::picture(valid: ['from' => '2026-06-01T00:00:00Z']), '/valid/from'];
        yield 'valid until before it begins' => [Make::picture(valid: ['from' => '2026-06-01T00:00:00', 'until' => '2026-05-01T00:00:00']), '/valid/until'];
        yield 'valid on no day' => [Make::picture(valid: ['days' => ['XX']]), '/valid/days/0'];
        yield 'valid at no time' => [Make::picture(valid: ['hours' => [['17:00', '25:00']]]), '/valid/hours/0/1'];
        yield 'valid for no time' => [Make::picture(valid: ['hours' => [['17:00', '17:00']]]), '/valid/hours/0'];
        yield 'valid from one time' => [Make::picture(valid: ['hours' => [['17:00']]]), '/valid/hours/0'];
    }

    public function testAPlaylistOfItsOwnHasANameAndEachIdOnce(): void
    {
        $list = ['format' => 'upper-pane/playlist@1', 'id' => 'round', 'name' => 'Round', 'items' => [Make::picture(), Make::picture()]];
        foreach (
            [[$list, '/items/1/id'], [['items' => []] + array_diff_key($list, ['name' => 1]), '/name'],
            [['interleave' => []] + ['items' => []] + $list, '/interleave/every']] as [$document, $path]
        ) {
            try {
                Playlist::fromNode(Node::root($document));
                self::fail('It was read.');
            } catch (Refused $e) {
                self::assertSame($path, $e->path);
            }
        }
    }

    public function testFaultsBehindARefAreToldAtTheRef(): void
    {
        $list = ['format' => 'upper-pane/playlist@1', 'id' => 'round', 'name' => 'Round', 'items' => [['id' => 'x']]];
        $layout = Make::layout([['playlist' => ['ref' => 'round']] + Make::zone('z', 0, 0, 9, 9)]);
        try {
            Make::composed($layout, Library::of([$list]));
            self::fail('It was read.');
        } catch (Refused $e) {
            self::assertSame('/elements/0/playlist/ref', $e->path);
            self::assertStringContainsString('In playlist "round": /items/0/media is missing', $e->getMessage());
        }
    }

    public function testDocumentsOfOneIdAreNotBothTaken(): void
    {
        $this->expectExceptionMessage('is "a", which another document has already.');
        Library::of([Make::layout([], id: 'a'), Make::layout([], id: 'a')]);
    }

    public function testLayoutsAreNestedOnlySoDeep(): void
    {
        $documents = [];
        for ($i = 0; $i < 9; $i++) {
            $documents[] = Make::layout([Make::zone('z', 0, 0, 9, 9, [['id' => 'n', 'layout' => ['ref' => 'l' . ($i + 1)], 'duration_ms' => 1000]])], id: "l$i");
        }
        $documents[] = Make::layout([], id: 'l9');

        $this->expectExceptionMessage('layouts deep; 6 are the most');
        Make::composed($documents[0], Library::of(array_slice($documents, 1)));
    }
}
