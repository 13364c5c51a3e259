<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Document;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;

/** What cannot be drawn is refused with the place of the fault (RFC 6901). */
final class RefusalTest extends TestCase
{
    /**
     * @param list<string|int> $at
     */
    #[DataProvider('faults')]
    public function testSaysWhereTheFaultStands(string $what, array $at, mixed $value, string $code, string $path): void
    {
        $document = $what === 'display' ? Make::display() : Make::harbour();
        $place = &$document;
        $last = array_pop($at);
        foreach ($at as $step) {
            $place = &$place[$step];
        }
        if ($last === null) {
            $place = $value;
        } elseif ($value === 'gone') {
            unset($place[$last]);
        } else {
            $place[$last] = $value;
        }
        unset($place);

        try {
            $what === 'display' ? Display::fromArray($document) : Make::composed($document);
            self::fail('It was read.');
        } catch (Refused $e) {
            self::assertSame([$code, $path], [$e->reason->value, $e->path], $e->getMessage());
            self::assertStringContainsString($path, $e->getMessage());
        }
    }

    /** @return iterable<string, array{string, list<string|int>, mixed, string, string}> */
    public static function faults(): iterable
    {
        $main = ['elements', 0];
        $item = [...$main, 'playlist', 'items', 0];
        yield 'no canvas' => ['layout', ['canvas'], 'gone', 'field.missing', '/canvas'];
        yield 'another format' => ['layout', ['format'], 'upper-pane/layout@9', 'format.unknown', '/format'];
        yield 'an unknown field' => ['layout', [...$main, 'colour'], 'red', 'field.unknown', '/elements/0/colour'];
        yield 'a name with a slash' => ['layout', ['a/b~c'], 1, 'field.unknown', '/a~1b~0c'];
        yield 'a negative size' => ['layout', [...$main, 'rect', 'width'], -5, 'value.range', '/elements/0/rect/width'];
        yield 'half a pixel' => ['layout', [...$main, 'rect', 'x'], 0.5, 'type.wrong', '/elements/0/rect/x'];
        yield 'an unknown kind' => ['layout', [...$main, 'kind'], 'hologram', 'value.unknown', '/elements/0/kind'];
        yield 'a kind not built yet' => ['layout', [...$main, 'kind'], 'live', 'kind.unbuilt', '/elements/0/kind'];
        yield 'the same id twice' => ['layout', ['elements', 1, 'id'], 'main', 'id.twice', '/elements/1/id'];
        yield 'a picture that never ends by itself' => ['layout', [...$item, 'duration_ms'], 'gone', 'field.missing', '/elements/0/playlist/items/0/duration_ms'];
        yield 'a duration of nothing' => ['layout', [...$item, 'duration_ms'], 0, 'value.range', '/elements/0/playlist/items/0/duration_ms'];
        $fade = ['kind' => 'fade', 'ms' => 10_001];
        yield 'a fade longer than the item' => ['layout', [...$item, 'transition'], $fade, 'value.range', '/elements/0/playlist/items/0/transition/ms'];
        yield 'the leader of nobody' => ['layout', [...$item, 'lasts'], 'endlessly', 'value.unknown', '/elements/0/playlist/items/0/lasts'];
        yield 'a playlist that is not given' => ['layout', [...$main, 'playlist'], ['ref' => 'offers'], 'ref.unknown', '/elements/0/playlist/ref'];
        yield 'a zone that follows itself' => ['layout', [...$main, 'follows'], 'main', 'ref.unknown', '/elements/0/follows'];
        yield 'a colour that is none' => ['layout', ['background'], ['color' => 'teal'], 'value.range', '/background/color'];
        yield 'elements that are no list' => ['layout', ['elements'], ['a' => 1], 'type.wrong', '/elements'];
        yield 'a time zone that is none' => ['display', ['timezone'], 'Europe/Saltgate', 'value.unknown', '/timezone'];
        yield 'a panel turned a little' => ['display', ['panels', 0, 'rotation'], 45, 'value.unknown', '/panels/0/rotation'];
        yield 'a panel of no width' => ['display', ['panels', 0, 'active_mm', 'width'], 0, 'value.range', '/panels/0/active_mm/width'];
        yield 'a farthest viewer nearer than the nearest' => ['display', ['viewing', 'farthest_mm'], 10, 'value.range', '/viewing/farthest_mm'];
        yield 'no panel' => ['display', ['panels'], [], 'value.range', '/panels'];
        yield 'two panels of one name' => ['display', ['panels', 1], Make::display()['panels'][0], 'id.twice', '/panels/1/id'];
        yield 'a free panel beside one on the grid' => ['display', ['panels', 1], ['id' => 'p2'] + Make::freeWall(['f' => []])['panels'][0], 'value.range', '/panels/1'];
        yield 'a panel on the grid and free' => ['display', ['panels', 0, 'origin_mm'], ['x' => 0, 'y' => 0], 'field.unknown', '/panels/0/column'];
        $turned = ['id' => 'p2', 'column' => 1, 'rotation' => 90] + Make::display()['panels'][0];
        yield 'butted panels of mixed sizes' => ['display', [], ['bezels' => 'butt', 'panels' => [Make::display()['panels'][0], $turned]] + Make::display(), 'value.range', '/bezels'];
        yield 'a bezel under nothing' => ['display', ['panels', 0, 'bezel_mm', 'left'], -0.1, 'value.range', '/panels/0/bezel_mm/left'];
        yield 'bands that fall' => ['display', ['sensors'], [['id' => 's', 'kind' => 'presence', 'bands_mm' => [900, 500]]], 'value.range', '/sensors/0/bands_mm/1'];
        $processor = ['player' => 'a', 'output' => 1, 'raster' => ['width' => 9, 'height' => 9]];
        yield 'a player that is not there' => ['display', [], ['players' => [['id' => 'b']], 'processor' => $processor] + Make::display(), 'ref.unknown', '/processor/player'];
        $outputs = [['number' => 1, 'link' => 'hdmi-2.0'], ['number' => 1, 'link' => 'hdmi-2.0']];
        yield 'an output listed twice' => ['display', ['players'], [['id' => 'a', 'outputs' => $outputs]], 'id.twice', '/players/0/outputs/1/number'];
    }

    public function testLayoutsThatContainEachOtherAreRefused(): void
    {
        $nest = static fn (string $id, string $ref): array => Make::layout(
            [Make::zone('z', 0, 0, 10, 10, [['id' => 'i1', 'layout' => ['ref' => $ref], 'duration_ms' => 1000]])],
            id: $id,
        );

        $this->expectExceptionMessage('closes a cycle: a > b > a.');
        Make::composed($nest('a', 'b'), Library::of([$nest('b', 'a')]));
    }

    public function testALayoutThatContainsItselfIsRefused(): void
    {
        $self = Make::layout([Make::zone('z', 0, 0, 10, 10, [['id' => 'i1', 'layout' => ['ref' => 'a'], 'duration_ms' => 1000]])], id: 'a');

        $this->expectExceptionMessage('closes a cycle: a > a.');
        Make::composed($self, Library::empty());
    }

    public function testTextsThatAreTooLongOrNoJsonAreRefused(): void
    {
        foreach (['[1,' => 'json.syntax', '"' . str_repeat('x', 10_000_000) . '"' => 'document.too-large'] as $json => $code) {
            try {
                Node::fromJson((string) $json);
                self::fail('It was read.');
            } catch (Refused $e) {
                self::assertSame($code, $e->reason->value);
            }
        }
    }

    public function testInstantsAreWrittenAsTheyAreRead(): void
    {
        foreach (['2026-06-01T10:00:00Z', '2026-06-01T10:00:00.250Z', '1970-01-01T00:00:00Z', '1969-12-31T23:59:59.999Z'] as $text) {
            self::assertSame($text, (string) Instant::parse($text));
        }
        foreach (['2026-06-01', '2026-02-30T00:00:00Z', '2026-06-01T24:00:00Z', '2026-06-01T10:00:00+01:00'] as $text) {
            try {
                Instant::parse($text, '/at');
                self::fail("$text was read.");
            } catch (Refused $e) {
                self::assertSame('/at', $e->path);
            }
        }
    }
}
