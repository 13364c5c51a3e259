<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use Random\Randomizer;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
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
use UpperPane\Core\Trigger\Carrying;
use UpperPane\Core\Trigger\Compiled;
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

/** A map that runs on a player (web/src/player/answers.ts) comes to what the core says, and shows it. */
final class AnswersTest extends TestCase
{
    private const UNTIL_MS = 60_000;

    public function testAPlayerComesToTheSameStatesAndDrawsThem(): void
    {
        $random = Make::random(171_717);
        [$cases, $want] = [[], []];
        for ($round = 0; $round < Make::rounds(60); $round++) {
            [$cases[], $want[]] = self::random($random);
        }
        foreach ((array) Scene::of('answers', 'played', $cases) as $round => $played) {
            foreach (['low', 'high'] as $map) {
                $entered = array_values(array_filter($played['entered'], static fn (array $one): bool => $one[0] === $map));
                self::assertSame($want[$round]['entered'][$map], array_map(static fn (array $one): string => "$one[1] $one[2] $one[3]", $entered), "round $round, $map");
            }
            self::assertSame($want[$round]['shown'], $played['shown'], "round $round");
        }
    }

    public function testWhatLingersIsNoShorterOrLongerForAClockThatIsSet(): void
    {
        $map = Docs::map([Docs::state('a', 5000)], [Docs::operator('go')], [Docs::way('idle', 'go', 'a')]);
        self::assertSame(['set' => [[6000, 'idle']], 'renewed' => [[6000, 'idle']], 'gone' => 'idle'], Scene::of('answers', 'setAndRenewed', self::compiled($map)));
    }

    public function testWhatSensorsSendMayBeAnything(): void
    {
        $map = Docs::map([Docs::state('a', 5000)], [Docs::operator('go')], [Docs::way('idle', 'go', 'a')]);
        self::assertSame([
            null, null, '-5 is no distance', '"near" is no distance', 'it has no band 9', '"s1" has no buttons', 'the display has no sensor "s9"', '"b1" tells no distance', null,
            'one of mm, band and button is right', null, 'no map knows the signal "gone"', 'a touch has x and y', 'a key is called by its name', '"high" is no figure',
            'one of signal, sensor, touch, key and source is right', 'one of signal, sensor, touch, key and source is right',
        ], Scene::of('answers', 'refused', self::compiled($map)));
    }

    /** Strips squeeze what plays: whoever touches it there means the same place of it. */
    public function testTouchesAreTurnedBackToWhatPlays(): void
    {
        $map = Docs::map([Docs::state('a', 5000)], [['id' => 't', 'kind' => 'touch', 'rect' => Docs::rect(0, 0, 100, 100)]], [Docs::way('idle', 't', 'a')]);
        $composer = Composer::over(Library::of([['id' => 'a'] + Make::layout([Make::told('t', 'A', message: false)])]), (new Surroundings('UTC', new Typewriter()))->on(Docs::display()));
        $programme = Programme::endless($composer->layout(Layout::fromArray(Make::layout([Make::zone('main', 0, 0, 960, 1080, [Make::picture('i1', 960, 1080)])]))));
        $programme = $programme->reacting(Reactions::live([new Contents(TriggerMap::fromArray($map), $composer, $programme->own())], $programme->base));
        $style = ['family' => Typewriter::FAMILY, 'size_px' => 40, 'color' => '#ffffff'];
        $strip = static fn (string $when): Overlay => Overlay::fromArray(['room' => 'squeeze', 'edge' => 'left', 'thickness' => 0.5, 'style' => $style]
            + ($when === 'always' ? [] : ['when' => ['bookings' => [['start' => '2026-06-01T10:00:00Z', 'end' => '2026-06-01T11:00:00Z']]]]) + OverlayDocuments::strip());
        $at = Instant::parse('2026-06-01T10:30:00Z')->ms;
        $case = static fn (Programme $one, int $ms): array => [
            'sheet' => RunSheet::of($one, null, $at - 7_200_000, $at + 7_200_000), 'at' => $ms, 'points' => [[0, 0], [960, 540], [1920, 1080]],
        ];
        $under = static fn (string $when): Programme => Overlaid::of($programme, Overlays::of($strip($when)), $composer, $programme->canvas())->programme;
        [$plain, $always, $then, $later] = (array) Scene::of('answers', 'touchedWhere', [
            $case($programme, $at), $case($under('always'), $at), $case($under('then'), $at), $case($under('then'), $at + 3_600_000),
        ]);
        self::assertSame([[0, 0], [960, 540], [1920, 1080]], $plain);
        self::assertSame($always, $then, 'while it is squeezed');
        self::assertSame($plain, $later, 'and afterwards');
        self::assertSame([0, 540], $always[1], 'the middle of the canvas is the left edge of what plays');
        self::assertSame(1920, $always[2][0]);
    }

    public function testWhatIsHeardIsBoundedAndWhatLingersGoesOn(): void
    {
        $map = Docs::map(
            [Docs::state('a', 5000)],
            [Docs::operator('go'), ['id' => 'k', 'kind' => 'key', 'key' => 'F4'], ['id' => 'near', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [1]]],
            [Docs::way('idle', 'go', 'a'), Docs::way('idle', 'near', 'a')],
        );
        $sheet = ['canvas' => ['width' => 9, 'height' => 9], 'background' => '#000000', 'anchor_ms' => 0, 'layers' => [], 'triggers' => [self::compiled($map)]];
        self::assertSame([
            true, false, false, 'a', 3000, 'a', 1, 'a', 'never', 'idle', 'a', true, 'A sensor says more than 2000 things a second; 4800 were left out.',
            false, 1, false, 'What a sensor said is left out: "far" is no distance.', 2, null, false, 'What a sensor said is left out: -1 is no distance.',
        ], Scene::of('answers', 'heard', $sheet));
    }

    /**
     * Two maps on one display, and what happens before it.
     *
     * @return array{array<string, mixed>, array{entered: array<string, array<string>>, shown: array<array<string>>}}
     */
    private static function random(Randomizer $random): array
    {
        $from = Instant::parse('2026-06-01T10:00:00Z')->ms;
        $display = Docs::display(['id' => 'd', 'sensors' => [...Docs::SENSORS, ['id' => 'k1', 'kind' => 'keys', 'names' => ['z' => 'F4']]]]);
        $around = (new Surroundings())->on($display)->fed(Make::randomFeeds($random, $from));
        $library = Library::of([['id' => 'a'] + Make::layout([Make::told('t', '{to}')]), ['id' => 'b'] + Make::layout([Make::told('t', 'B', message: false)])]);
        $composer = Composer::over($library, $around);
        $below = Make::layout([Make::zone('main', 0, 0, 960, 1080, [Make::picture('i1', 960, 1080)]), Make::told('top', 'Above', message: false)]);
        $programme = Programme::endless($composer->layout(Layout::fromArray($below)));
        $maps = [];
        foreach (['low', 'high'] as $id) {
            $map = RandomMaps::ofAllKinds($random, $from);
            foreach ($map['states'] as $place => $state) {
                $map['states'][$place] += $state['id'] === 'idle' ? [] : ['zone' => 'main'];
                $map['states'][$place] = ($random->getInt(0, 3) === 0 ? array_diff_key($map['states'][$place], ['zone' => 1]) : $map['states'][$place]);
                if ($state['id'] !== 'idle' || $random->getInt(0, 2) === 0) {
                    $map['states'][$place]['plays'] = ['layout' => $random->getInt(0, 1) === 0 ? 'a' : 'b'];
                }
            }
            $maps[] = new Contents(TriggerMap::fromArray(['id' => $id] + $map), $composer, $programme->own());
        }
        $entries = RandomMaps::readings($random);
        $looks = [];
        for ($n = 0; $n < 12; $n++) {
            $looks[] = $from + $random->getInt(0, self::UNTIL_MS - 1);
        }
        sort($looks);
        $looks = array_values(array_unique($looks));
        [$runs, $entered] = [[], []];
        foreach ($maps as $contents) {
            $told = array_map(static fn (array $one): array => ['at_ms' => $one['at_ms'], 'signal' => $one['signal'], 'value' => $one['value']], self::table($contents, $from)['told']);
            $run = self::entered($contents, $display, $entries, $told, $from);
            $runs[] = [$contents, $run];
            $entered[$contents->map->id] = array_map(static fn ($one): string => ($one->atMs - $from) . " $one->state $one->why", $run);
        }
        $shown = ShownAt::of($programme->reacting(Reactions::of($runs, $programme->base)), $around);
        $sheet = RunSheet::of($programme->reacting(Reactions::live($maps, $programme->base)), $around, $from, $from + self::UNTIL_MS);
        $case = ['sheet' => $sheet, 'from' => $from, 'to' => $from + self::UNTIL_MS, 'looks' => $looks, 'entries' => array_map(
            static fn (array $one): array => ['at' => $from + $one['at']] + $one,
            $entries,
        )];

        return [$case, ['entered' => $entered, 'shown' => array_map(static fn (int $at): array => array_map(
            static fn (array $one): string => "$one[element] " . ($one['text'] ?? ''),
            $shown->at($at)->toArray()['things'],
        ), $looks)]];
    }

    /**
     * @param list<array<string, mixed>> $entries
     * @param array<array<string, mixed>> $told what sources say by themselves
     * @return list<\UpperPane\Core\Trigger\Entered>
     */
    private static function entered(Contents $contents, Display $display, array $entries, array $told, int $from): array
    {
        $said = [];
        foreach ($entries as $one) {
            $said[] = ['at' => (string) Instant::ofMs($from + $one['at'])] + $one;
        }
        foreach ($told as $one) {
            $said[] = ['at' => (string) Instant::ofMs($one['at_ms']), 'source' => 's', 'field' => 'n', 'value' => $one['value']];
        }
        usort($said, static fn (array $a, array $b): int => Instant::parse($a['at'])->ms <=> Instant::parse($b['at'])->ms);
        $trace = Trace::fromNode(Node::root($said), $contents->map, $display, $from);

        return (new Machine($contents->map, WallClock::in('UTC')))->run($trace, $from, $from + self::UNTIL_MS);
    }

    /** @return array<string, mixed> */
    private static function table(Contents $contents, int $from): array
    {
        return Compiled::of($contents, Carrying::of($contents), WallClock::in('UTC'), $from, $from + self::UNTIL_MS);
    }

    /**
     * @param array<string, mixed> $map
     * @return array<string, mixed>
     */
    private static function compiled(array $map): array
    {
        $library = Library::of([['id' => 'a'] + Make::layout([Make::told('t', 'A', message: false)])]);

        return self::table(new Contents(TriggerMap::fromArray($map), Composer::over($library, (new Surroundings())->on(Docs::display())), Docs::display()->raster()), 0);
    }
}
