<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Playback\Overlaid;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\Reactions;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Trigger\Contents;
use UpperPane\Core\Trigger\Machine;
use UpperPane\Core\Trigger\Trace;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Overlay\OverlayDocuments;
use UpperPane\Tests\Core\Trigger\RandomMaps;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;
use UpperPane\Tests\Core\Typewriter;

/** What a display shows because something happened before it. */
final class ReactionsTest extends TestCase
{
    private const FROM = '2026-06-01T10:00:00Z';

    public function testAStateLiesAboveItsZoneAndTheProgrammeGoesOn(): void
    {
        $map = Docs::map([Docs::state('a', 3000, ['zone' => 'main'])], [Docs::operator('go')], [Docs::way('idle', 'go', 'a')]);
        $programme = self::programme($map, [['at' => 1000, 'signal' => 'go']]);
        self::assertSame(['main', 'top'], self::elements($programme, 999));
        self::assertSame(['main', 'a', 'a/t', 'top'], self::elements($programme, 1000), 'above its zone, below what lies above that');
        self::assertSame(['main', 'a', 'a/t', 'top'], self::elements($programme, 3999));
        self::assertSame(['main', 'top'], self::elements($programme, 4000));
        [, $ground] = ShownAt::of($programme)->at(self::ms(1000))->toArray()['things'];
        self::assertEquals(['x' => 0, 'y' => 270, 'width' => 960, 'height' => 540], $ground['rect'], 'fitted into the zone');
    }

    public function testAStateWithoutAZoneLiesAboveAllThatPlaysAndBelowAllThatIsLaidOver(): void
    {
        $map = Docs::map([Docs::state('a', 3000)], [Docs::operator('go')], [Docs::way('idle', 'go', 'a')]);
        $programme = self::programme($map, [['at' => 1000, 'signal' => 'go']]);
        self::assertSame(['main', 'top', 'a', 'a/t'], self::elements($programme, 1000));
        $style = ['family' => Typewriter::FAMILY, 'size_px' => 40, 'color' => '#ffffff'];
        $strip = Overlay::fromArray(['room' => 'squeeze', 'edge' => 'bottom', 'thickness' => 0.1, 'style' => $style] + OverlayDocuments::strip());
        $things = Overlaid::of($programme, Overlays::of($strip), Composer::over(null, new Surroundings('UTC', new Typewriter())), $programme->canvas())->at(self::ms(1000))->toArray()['things'];
        self::assertSame(['a', 'a/t', $strip->id], array_slice(array_map(static fn (array $one): string => $one['element'] ?? $one['overlay'], $things), -3));
        self::assertEqualsWithDelta(972.0, $things[count($things) - 3]['rect']['height'], 1.0, 'squeezed with what plays');
    }

    public function testWhatAStatePlaysBeginsAsItIsEntered(): void
    {
        $film = Make::layout([Make::zone('z', 0, 0, 1920, 1080, [Make::film('f1', 8000), Make::film('f2', 4000)])]);
        $map = Docs::map([Docs::state('a', 60_000)], [Docs::operator('go')], [['from' => ['*'], 'on' => 'go', 'to' => 'a']]);
        $programme = self::programme($map, [['at' => 1000, 'signal' => 'go'], ['at' => 4000, 'signal' => 'go']], ['id' => 'a'] + $film);
        $offset = static fn (int $ms): array => array_intersect_key(array_slice(ShownAt::of($programme)->at(self::ms($ms))->toArray()['things'], -1)[0], ['item' => 1, 'offset_ms' => 1]);
        self::assertEquals(['item' => 'f1', 'offset_ms' => 2500], $offset(3500));
        self::assertEquals(['item' => 'f1', 'offset_ms' => 500], $offset(4500), 'again');
        self::assertEquals(['item' => 'f2', 'offset_ms' => 1000], $offset(13_000));
    }

    /** The row that came, else the first of the signal's rows, else the figure; it chooses the rows that are told, too. */
    public function testWhatComesIsCarriedToWhatIsShown(): void
    {
        $rows = ['source' => 's', 'where' => [['field' => 'name', 'is' => 'equals', 'value' => ['carried' => 'name']]]];
        $layout = ['id' => 'a'] + Make::layout([
            Make::told('t', 'To {name}'), Make::told('v', '{value}'),
            Make::told('r', '{name} at {berth}', rows: $rows), Make::told('o', '{name}', rows: ['where' => [['is' => 'differs'] + $rows['where'][0]]] + $rows),
        ]);
        $wind = ['id' => 'wind', 'kind' => 'value', 'rows' => ['source' => 'none'], 'field' => 'v', 'rises_to' => 5];
        $told = ['id' => 'told', 'kind' => 'value', 'rows' => ['source' => 's'], 'field' => 'v', 'rises_to' => 5];
        $map = Docs::map([Docs::state('a', 500)], [Docs::operator('go'), $wind, $told], array_map(
            static fn (string $on): array => Docs::way('idle', $on, 'a', ['carries' => true]),
            ['go', 'wind', 'told'],
        ));
        $texts = static function (array $entry) use ($map, $layout): array {
            $around = (new Surroundings())->fed(Make::fed([['name' => 'Tolm', 'berth' => 4], ['name' => 'Vennick', 'berth' => 2]], isStrict: true));
            $shown = ShownAt::of(self::programme($map, [['at' => 0] + $entry], $layout, $around), $around)->at(self::ms(100))->toArray()['things'];

            return array_column(array_filter($shown, static fn (array $one): bool => str_starts_with($one['element'], 'a/')), 'text', 'element');
        };
        self::assertSame(['a/t' => 'To Vennick', 'a/v' => '–', 'a/r' => 'Vennick at 2', 'a/o' => 'Tolm'], $texts(['signal' => 'go', 'row' => ['name' => 'Vennick']]));
        self::assertSame('To Tolm', $texts(['source' => 's', 'value' => 6])['a/t'], 'the first of its rows');
        self::assertSame('6', $texts(['source' => 'none', 'value' => 6])['a/v'], 'of a source that nobody knows the figure itself');
        $nothing = $texts(['signal' => 'go']);
        self::assertSame(['To –', 'Tolm'], [$nothing['a/t'], $nothing['a/o']], 'nothing carried: what is to differ does');
        self::assertStringNotContainsString('Tolm', $nothing['a/r'] ?? '');
    }

    public function testWhatIsNotThereIsRefusedWhereItIsNamed(): void
    {
        $map = Docs::map([Docs::state('gone')], [Docs::operator('go')], [Docs::way('idle', 'go', 'gone')]);
        try {
            self::programme($map, [['at' => 0, 'signal' => 'go']]);
            self::fail('It was taken.');
        } catch (Refused $e) {
            self::assertSame('/states/1/plays/layout', $e->path);
        }
    }

    /** What a player looks up is what is shown at every instant. */
    public function testTheRunSheetTellsTheSame(): void
    {
        $random = Make::random(4242);
        for ($round = 0; $round < Make::rounds(20); $round++) {
            $map = RandomMaps::one($random);
            foreach ($map['states'] as $place => $state) {
                $map['states'][$place] = $state + ($random->getInt(0, 1) === 1 ? ['zone' => 'main'] : []);
                $map['states'][$place]['plays'] = ['layout' => 'a'];
            }
            $programme = self::programme($map, RandomMaps::entries($random, $map));
            $sheet = RunSheet::of($programme, null, self::ms(0), self::ms(60_000));
            $shown = ShownAt::of($programme);
            for ($n = 0; $n < 40; $n++) {
                $at = self::ms($random->getInt(0, 59_999));
                ShownAtTest::assertSameThings($shown->at($at)->toArray()['things'], SheetReader::things($sheet, $at), "round $round at " . Instant::ofMs($at));
            }
        }
    }

    /**
     * A zone with a picture, and words above it.
     *
     * @param array<string, mixed> $map
     * @param list<array<string, mixed>> $entries with `at` in ms
     * @param ?array<string, mixed> $layout of its states; null for words
     */
    private static function programme(array $map, array $entries, ?array $layout = null, ?Surroundings $around = null): Programme
    {
        $map = TriggerMap::fromArray($map);
        $library = Library::of([$layout ?? ['id' => 'a'] + Make::layout([Make::told('t', 'Hello', message: false)])]);
        $composer = Composer::over($library, $around);
        $below = Make::layout([Make::zone('main', 0, 0, 960, 1080, [Make::picture('i1', 960, 1080)]), Make::told('top', 'Above', message: false)]);
        $programme = Programme::endless($composer->layout(Layout::fromArray($below)));
        $contents = new Contents($map, $composer, $programme->own());
        $at = static fn (array $one): array => ['at' => (string) Instant::ofMs(self::ms($one['at']))] + $one;
        $trace = Trace::fromNode(Node::root(array_map($at, $entries)), $map, null);
        $entered = (new Machine($map, WallClock::in('UTC')))->run($trace, self::ms(0), self::ms(60_000));

        return $programme->reacting(Reactions::of([[$contents, $entered]], $programme->base));
    }

    /** @return list<string> */
    private static function elements(Programme $programme, int $ms): array
    {
        return array_column(ShownAt::of($programme)->at(self::ms($ms))->toArray()['things'], 'element');
    }

    private static function ms(int $ms): int
    {
        return Instant::parse(self::FROM)->ms + $ms;
    }
}
