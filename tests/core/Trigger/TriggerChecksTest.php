<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Trigger;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Trigger\Contents;
use UpperPane\Core\Trigger\TriggerChecks;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;
use UpperPane\Tests\Core\Typewriter;

/** What is found in a map before anybody stands before it; each beside one that is right. */
final class TriggerChecksTest extends TestCase
{
    public function testAStateToWhichNoWayLeads(): void
    {
        $signals = [Docs::operator('x'), Docs::operator('back')];
        $states = [Docs::state('a'), Docs::state('b')];
        $back = ['from' => ['*'], 'on' => 'back', 'to' => 'idle'];
        self::assertSame(['trigger.unreachable b'], self::found(Docs::map($states, $signals, [Docs::way('idle', 'x', 'a'), $back]), 'trigger.unreachable'));
        self::assertSame([], self::found(Docs::map([Docs::state('a', more: ['then' => 'b']), $states[1]], $signals, [Docs::way('idle', 'x', 'a'), $back]), 'trigger.unreachable'), 'by its end');
        $behind = [Docs::way('idle', 'x', 'a'), Docs::way('idle', 'x', 'b'), $back];
        self::assertSame(['trigger.unreachable b'], self::found(Docs::map($states, $signals, $behind), 'trigger.unreachable'), 'behind one that is always taken');
        $cooling = [Docs::way('idle', 'x', 'a', ['cooldown_ms' => 5]), Docs::way('idle', 'x', 'b'), $back];
        self::assertSame([], self::found(Docs::map($states, $signals, $cooling), 'trigger.unreachable'));
    }

    public function testAStateFromWhichNoWayLeadsToRest(): void
    {
        $endless = Docs::state('a', more: ['linger' => 'endless']);
        $signals = [Docs::operator('x'), Docs::operator('y')];
        self::assertSame(['trigger.stuck a'], self::found(Docs::map([$endless], $signals, [Docs::way('idle', 'x', 'a')]), 'trigger.stuck'));
        self::assertSame([], self::found(Docs::map([$endless], $signals, [Docs::way('idle', 'x', 'a'), Docs::way('a', 'y', 'idle')]), 'trigger.stuck'));
        $round = [Docs::state('a', more: ['then' => 'b']), Docs::state('b', more: ['then' => 'a'])];
        self::assertSame(['trigger.stuck a', 'trigger.stuck b'], self::found(Docs::map($round, $signals, [Docs::way('idle', 'x', 'a')]), 'trigger.stuck'));
        self::assertSame([], self::found(Docs::map($round, $signals, [Docs::way('idle', 'x', 'a'), Docs::way('b', 'y', 'idle')]), 'trigger.stuck'), 'by whatever steps');
    }

    public function testWhatIsAnsweredTwice(): void
    {
        $state = [Docs::state('a')];
        $twice = [Docs::way('idle', 'x', 'a'), Docs::way('idle', 'x', 'idle')];
        self::assertSame(['trigger.ambiguous idle x'], self::found(Docs::map($state, [Docs::operator('x')], $twice), 'trigger.ambiguous'));
        self::assertSame([], self::found(Docs::map($state, [Docs::operator('x')], [['cooldown_ms' => 5] + $twice[0], $twice[1]]), 'trigger.ambiguous'));
        $pairs = [
            'bands' => [['kind' => 'presence', 'sensor' => 's1', 'bands' => [1, 2]], ['bands' => [2, 3]], ['bands' => [3]]],
            'dwell' => [['kind' => 'presence', 'sensor' => 's1', 'bands' => [1], 'dwell_ms' => 5], ['dwell_ms' => 5], ['dwell_ms' => 6]],
            'buttons' => [['kind' => 'press', 'sensor' => 'b1', 'button' => '1'], [], ['button' => '2']],
            'keys' => [['kind' => 'key', 'key' => 'a'], [], ['key' => 'b']],
            'areas' => [['kind' => 'touch', 'rect' => Docs::rect(0, 0, 100, 100)], ['rect' => Docs::rect(99, 99, 100, 100)], ['rect' => Docs::rect(100, 0, 100, 100)]],
            'figures' => [['kind' => 'value', 'rows' => ['source' => 's'], 'field' => 'f', 'rises_to' => 5], ['rises_to' => 9], ['rises_to' => null, 'falls_below' => 3]],
        ];
        foreach ($pairs as $name => [$one, $both, $apart]) {
            foreach ([[$both, ['trigger.ambiguous idle x y']], [$apart, []]] as [$other, $wanted]) {
                $signals = [['id' => 'x'] + $one, array_filter(['id' => 'y'] + $other + $one, static fn (mixed $field): bool => $field !== null)];
                self::assertSame($wanted, self::found(Docs::map($state, $signals, [Docs::way('idle', 'x', 'a'), Docs::way('idle', 'y', 'a')]), 'trigger.ambiguous'), $name);
                self::assertSame([], self::found(Docs::map($state, $signals, [Docs::way('idle', 'x', 'a'), Docs::way('a', 'y', 'a')]), 'trigger.ambiguous'), "$name, in two states");
            }
        }
    }

    public function testAStateThatNoLongerHearsWhatTheOneBeforeDid(): void
    {
        $signals = [Docs::operator('x'), Docs::operator('y'), Docs::operator('z')];
        $ways = [Docs::way('idle', 'x', 'a'), Docs::way('idle', 'y', 'a'), Docs::way('idle', 'z', 'idle')];
        self::assertSame(['trigger.deaf a x y z'], self::found(Docs::map([Docs::state('a')], $signals, $ways), 'trigger.deaf'), 'each of two that led there is heard before the other');
        $heard = [...$ways, Docs::way('a', 'y', 'a'), Docs::way('a', 'x', 'a'), Docs::way('a', 'z', 'a')];
        self::assertSame([], self::found(Docs::map([Docs::state('a')], $signals, $heard), 'trigger.deaf'));
        self::assertSame([], self::found(Docs::map([Docs::state('a')], $signals, [$ways[0]]), 'trigger.deaf'), 'the one that led there is another matter');
    }

    public function testSignals(): void
    {
        $near = ['id' => 'near', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [1, 2]];
        $map = static fn (array $signal, array $ways = []): array => Docs::map([Docs::state('a')], [$signal], $ways);
        self::assertSame(['trigger.unused near'], self::found($map($near), 'trigger.unused'));
        self::assertSame([], self::found($map($near, [Docs::way('idle', 'near', 'a')]), 'trigger.unused'));
        self::assertSame(['trigger.flutter near'], self::found($map($near), 'trigger.flutter'), 'nobody says that the sensor has a hysteresis');
        self::assertSame([], self::found($map($near), 'trigger.flutter', Docs::display()));
        self::assertSame([], self::found($map(['dwell_ms' => 1] + $near), 'trigger.flutter'));
        $bare = Docs::display(['sensors' => [array_diff_key(Docs::SENSORS[0], ['hysteresis_mm' => 1])]]);
        self::assertSame(['trigger.flutter near'], self::found($map($near), 'trigger.flutter', $bare));

        $lacks = static fn (array $signal): array => self::found($map(['id' => 'x'] + $signal), 'trigger.sensor', Docs::display());
        self::assertSame([], $lacks($near));
        self::assertSame(['trigger.sensor x'], $lacks(['sensor' => 's9'] + $near));
        self::assertSame(['trigger.sensor x'], $lacks(['sensor' => 'b1'] + $near), 'of another kind');
        self::assertSame([], $lacks(['kind' => 'press', 'sensor' => 'b1', 'button' => '2']));
        self::assertSame(['trigger.sensor x'], $lacks(['kind' => 'press', 'sensor' => 'b1', 'button' => '3']));
        self::assertSame(['trigger.sensor x'], $lacks(['kind' => 'key', 'key' => 'F2']));
        self::assertSame(['trigger.sensor x'], $lacks(['kind' => 'touch', 'rect' => Docs::rect(0, 0, 100, 100)]));
        $whole = Docs::display(['sensors' => [['id' => 't', 'kind' => 'touch'], ['id' => 'k', 'kind' => 'key'], ['id' => 'b1', 'kind' => 'press']]]);
        foreach ([['kind' => 'key', 'key' => 'F2'], ['kind' => 'touch', 'rect' => Docs::rect(0, 0, 100, 100)], ['kind' => 'press', 'sensor' => 'b1', 'button' => '3']] as $signal) {
            self::assertSame([], self::found($map(['id' => 'x'] + $signal), 'trigger.sensor', $whole), 'as they were called before');
        }
    }

    public function testBandsThatNobodyCoversOrHas(): void
    {
        $map = static fn (array ...$bands): array => Docs::map([], array_map(
            static fn (array $one, int|string $n): array => ['id' => "n$n", 'kind' => 'presence', 'sensor' => 's1', 'bands' => $one],
            $bands,
            array_keys($bands),
        ), []);
        self::assertSame([], self::found($map([1], [2, 3]), 'trigger.bands', Docs::display()));
        self::assertSame(['trigger.bands s1'], self::found($map([1], [3]), 'trigger.bands'));
        self::assertSame([], self::found($map([2]), 'trigger.bands', Docs::display()), 'beyond the outermost nobody is meant');
        self::assertSame(['trigger.bands s1'], self::found($map([3, 4, 5]), 'trigger.bands', Docs::display()));
        self::assertSame([], self::found($map([3, 4, 5]), 'trigger.bands'), 'how many it has nobody says');
    }

    public function testAreas(): void
    {
        $area = static fn (int $x, int $y, int $width, int $height, string $id = 't'): array => ['id' => $id, 'kind' => 'touch', 'rect' => Docs::rect($x, $y, $width, $height)];
        $found = static fn (array ...$areas): array => self::found(Docs::map([], array_values($areas), []), 'trigger.touch', Docs::display(), true);
        // 941.2 mm over 1080 px.
        self::assertSame([], $found($area(0, 0, 1080, 1920)));
        self::assertSame(['stop trigger.touch t'], $found($area(1000, 0, 100, 100)));
        self::assertSame(['stop trigger.touch t'], $found($area(-5000, 0, 100, 100)));
        self::assertSame(['warning trigger.touch t'], $found($area(0, 0, 1000, 2)));
        self::assertSame(['warning trigger.touch t u'], $found($area(0, 0, 200, 200), $area(199, 199, 200, 200, 'u')));
        self::assertSame([], $found($area(0, 0, 200, 200), $area(200, 0, 200, 200, 'u')));
    }

    public function testAZoneThatNoLayoutHas(): void
    {
        $map = Docs::map([Docs::state('a', more: ['zone' => 'main'])], [Docs::operator('x')], [Docs::way('idle', 'x', 'a')]);
        $below = static fn (string $zone): array => ['id' => 'below'] + Make::layout([Make::zone($zone, 0, 0, 1920, 1080, [Make::picture('i')])]);
        self::assertSame([], self::found($map, 'trigger.zone'));
        self::assertSame(['trigger.zone a'], self::found($map, 'trigger.zone', with: [$below('side')]));
        self::assertSame([], self::found($map, 'trigger.zone', with: [$below('side'), ['id' => 'other'] + $below('main')]));
    }

    public function testALingerThatIsTooShort(): void
    {
        $text = Make::told('t', 'eight words that somebody has to read here', message: false);
        $layout = ['id' => 'a'] + Make::layout([$text]);
        $found = static fn (int $ms, array $plays, array $media = []): array => self::found(
            Docs::map([['plays' => $plays] + Docs::state('a', $ms)], [Docs::operator('x')], [Docs::way('idle', 'x', 'a')]),
            'trigger.short',
            with: [$layout],
            media: $media,
        );
        // 1 s, and twice the time of eight words at 180 a minute, in whole seconds.
        self::assertSame([], $found(7000, ['layout' => 'a']));
        self::assertSame(['trigger.short a'], $found(6999, ['layout' => 'a']));
        $film = ['m' => Media::of('f.mp4', Size::px(1920, 1080), 8000, 'm')];
        self::assertSame(['trigger.short a'], $found(7999, ['media' => 'm'], $film), 'a film is cut');
        self::assertSame([], $found(8000, ['media' => 'm'], $film));
        self::assertSame([], $found(1, ['layout' => 'elsewhere']), 'what is not given is not looked at');
    }

    public function testAnAnswerThatNobodyCanReadFromWhereHeStands(): void
    {
        $found = static function (float $px, array $bands): array {
            $text = Make::told('t', 'Welcome', message: false, style: ['family' => Typewriter::FAMILY, 'size_px' => $px]);
            $near = ['id' => 'near', 'kind' => 'presence', 'sensor' => 's1', 'bands' => $bands, 'dwell_ms' => 5];

            return self::found(
                Docs::map([Docs::state('a')], [$near], [Docs::way('idle', 'near', 'a')]),
                'trigger.far',
                Docs::display(['viewing' => ['nearest_mm' => 300, 'farthest_mm' => 4000]]),
                with: [['canvas' => ['width' => 1080, 'height' => 1920], 'id' => 'a'] + Make::layout([$text])],
            );
        };
        // Capitals of 0.7 x 941.2 / 1080 mm for each px; 16′ are 9.31 mm at 2 m, 1.40 mm at 300 mm.
        self::assertSame(['trigger.far a near'], $found(15.2, [4]));
        self::assertSame([], $found(15.3, [4]));
        self::assertSame([], $found(15.2, [4, 3]), 'the nearest of its bands counts');
        self::assertSame(['trigger.far a near'], $found(2.2, [1]), 'and never a place nearer than anybody stands');
        self::assertSame([], $found(2.4, [1]));
    }

    public function testAllThatIsFoundIsExplained(): void
    {
        $codes = array_map(static fn ($one): string => $one->code, TriggerChecks::explained());
        self::assertCount(13, array_unique($codes));
    }

    /** While it is drawn, a state may play nothing yet; the rest state need play nothing ever. */
    public function testAStateThatPlaysNothingIsNotReady(): void
    {
        $map = TriggerMap::fromArray(Docs::map([Docs::state('a', more: ['plays' => null]), Docs::state('b')], [Docs::operator('go')], [Docs::way('idle', 'go', 'a'), Docs::way('a', 'go', 'b')]));
        self::assertSame([['trigger.nothing', Level::Stop, ['a']]], array_map(static fn (Finding $one): array => [$one->code, $one->level, $one->elements], TriggerChecks::unready($map)));
    }

    /**
     * @param array<string, mixed> $map
     * @param list<array<string, mixed>> $with
     * @param array<Media> $media
     * @return list<string> code and elements
     */
    private static function found(array $map, string $code, ?Display $display = null, bool $levels = false, array $with = [], array $media = []): array
    {
        $map = TriggerMap::fromArray($map);
        $library = Library::of($with, $media);
        $surroundings = (new Surroundings('UTC', new Typewriter()))->on($display);
        $contents = new Contents($map, Composer::over($library, $surroundings), $display?->raster() ?? Size::px(1920, 1080));
        $layouts = array_map(static fn (array $one): string => (string) $one['id'], $with);
        $findings = TriggerChecks::run($map, $display, $contents, static fn (string $zone): ?bool => $contents->hasZone($zone, ...$layouts));

        return array_values(array_map(
            static fn (Finding $one): string => ($levels ? $one->level->value . ' ' : '') . implode(' ', [$one->code, ...$one->elements]),
            array_filter($findings->all, static fn (Finding $one): bool => $one->code === $code),
        ));
    }
}
