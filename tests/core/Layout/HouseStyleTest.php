<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Arrange\Arrangement;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Style\HouseStyle;
use UpperPane\Core\Layout\Style\StyleNames;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Time\Playlist;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/**
 * A layout that names colours, faces, sizes and marks of the house style is drawn as one that states them.
 *
 * @phpstan-import-type Doc from Make
 */
final class HouseStyleTest extends TestCase
{
    private const LOGO = ['id' => 'm1', 'name' => 'logo.svg', 'width' => 400, 'height' => 120];

    /** Whatever takes a value takes a name, in every kind of element and wherever it lies: the run sheets are the same to the last byte. */
    public function testNamesAreDrawnAsWhatTheyMean(): void
    {
        $plain = self::dressed();
        $style = ['colours' => [], 'faces' => [], 'sizes' => [], 'marks' => []];
        $named = self::inNames($plain, $style);
        self::assertSame([26, 2, 11, 5], array_map(count(...), array_values($style)), 'nothing was left out');

        $around = (new Surroundings('UTC', new Typewriter()))->fed(Make::fed([['to' => 'Tolm', 'n' => 1], ['to' => 'Vennick', 'n' => 2]]));
        $styled = $around->styled(Styles::of(HouseStyle::fromArray(['format' => HouseStyle::FORMAT, 'id' => 's', 'name' => 'S'] + $style)));
        self::assertSame(Make::runSheet(Make::composed($plain, null, $around), 0, $around), Make::runSheet(Make::composed($named, null, $styled), 0, $styled));
        self::assertEquals($named, Layout::fromArray($named)->toArray(), 'it is written as it was read');

        $found = array_merge(...array_map(static fn (array $element): array => StyleNames::in(Kinds::fieldsOf($element['kind']), $element), $named['elements']));
        self::assertCount(25 - 1 + 10 + 10 + 5, $found, 'all but those of the background and of the layout within it; both faces ten times');
        self::assertContains(['sort' => 'marks', 'name' => 'mark-0', 'path' => '/playlist/items/0/media/mark'], $found);
    }

    /**
     * The px of a size follow from the canvas, the display and the face of its text. Arc minutes worked by hand: 2 x 10,000 mm x tan(10') = 58.1776 mm.
     *
     * @param array<string, float|int> $size
     */
    #[DataProvider('sizes')]
    public function testSizesAreWorkedOutForCanvasAndViewer(array $size, int $px, ?Display $display = null, int $height = 1080): void
    {
        $styles = Styles::of(self::style(['sizes' => ['it' => $size]]));
        $around = (new Surroundings('UTC', new Typewriter(), display: $display))->styled($styles);
        $layout = Make::composed(Make::layout([self::text('@it')], 1920, $height), null, $around);

        self::assertSame((float) $px, self::typeOf($layout)->sizePx);
    }

    /** @return iterable<string, array{0: array<string, float|int>, 1: int, 2?: ?Display, 3?: int}> */
    public static function sizes(): iterable
    {
        yield 'px' => [['px' => 96], 96];
        yield 'px, half up' => [['px' => 47.5], 48];
        yield 'a share of the height' => [['share' => 0.05], 54];
        yield 'a share of another canvas, half up' => [['share' => 0.05], 51, null, 1010];
        yield 'never under 1' => [['share' => 0.0001], 1];
        yield '20 minutes without a display: 1 mm a px at 10 m, 58.18 / 0.7' => [['arcmin' => 20], 84];
        $display = Display::fromArray(Make::display());
        yield 'on one of 0.4902 mm a px at 10 m: 58.18 / 0.4902 / 0.7' => [['arcmin' => 20], 170, $display];
        yield 'on the same a canvas twice as high is drawn half as large' => [['arcmin' => 20], 340, $display, 2160];
    }

    public function testAFaceBringsItsWeightUnlessTheTextSaysOne(): void
    {
        $style = self::style(['faces' => ['head' => ['family' => 'Typewriter', 'weight' => 600], 'plain' => ['family' => 'Typewriter']]]);
        $around = (new Surroundings())->styled(Styles::of($style));
        $weights = static fn (string $face, array $more): int => self::typeOf(Make::composed(Make::layout([self::text(20, ['family' => $face] + $more)]), null, $around))->weight;

        self::assertSame([600, 300, 400], [$weights('@head', []), $weights('@head', ['weight' => 300]), $weights('@plain', [])]);
    }

    public function testAStyleSaysWhatTheOneItExtendsDoesNot(): void
    {
        $night = self::style(['extends' => 'house', 'colours' => ['sea' => '#000011'], 'faces' => ['head' => ['family' => 'Inter']]], 'night');
        $house = self::style(['extends' => 'root', 'colours' => ['sea' => '#14665b', 'sand' => '#f5e6b8'], 'faces' => ['head' => ['family' => 'Inter', 'weight' => 700]]], 'house');
        $root = self::style(['extends' => null, 'colours' => ['ink' => '#111111']], 'root');
        $styles = Styles::of($night, $root, $house);

        self::assertSame(['#000011', '#f5e6b8', '#111111', null], array_map(static fn (string $name): ?string => $styles->colour($name)?->hex, ['sea', 'sand', 'ink', 'rust']));
        self::assertNull($styles->face('head')?->weight, 'an entry holds as a whole');
        self::assertSame(['house', ['sea', 'sand', 'ink']], [$styles->from('colours', 'sand')?->id, $styles->names('colours')]);
    }

    /** A variant works sizes out for its own canvas, a layout within another for its own. */
    public function testEveryCanvasHasItsOwnSizes(): void
    {
        $around = (new Surroundings())->styled(Styles::of(self::style(['sizes' => ['line' => ['share' => 0.05], 'title' => ['px' => 96]]])));
        $within = Make::layout([self::text('@line')], 500, 200, 'within');
        $zone = Make::zone('z', 0, 0, 500, 200, [['id' => 'i', 'layout' => ['ref' => 'within'], 'lasts' => 'endless']]);
        $layout = Make::layout([self::text('@line'), ['id' => 'u'] + self::text(10), $zone]) + ['variants' => [['id' => 'tall', 'canvas' => ['width' => 1080, 'height' => 1920], 'places' => [
            't' => ['rect' => ['x' => 0, 'y' => 0, 'width' => 100, 'height' => 100]], 'u' => ['rect' => ['x' => 0, 'y' => 100, 'width' => 100, 'height' => 100], 'size_px' => '@title'],
        ]]]];
        $composed = Make::composed($layout, Library::of([$within]), $around);

        self::assertSame([54.0, 10.0], [self::typeOf($composed)->sizePx, self::typeOf($composed, 'u')->sizePx]);
        $tall = $composed->for(Size::px(1080, 1920));
        self::assertSame([96.0, 96.0], [self::typeOf($tall)->sizePx, self::typeOf($tall, 'u')->sizePx]);
        self::assertSame(10.0, self::typeOf($composed->layouts()[1])->sizePx);
    }

    /** Named sizes stay as they are when a canvas is scaled, and in a variant that is begun from a layout. */
    public function testWhatHandsDoLeavesNamesAlone(): void
    {
        $layout = Layout::fromArray(Make::layout([self::text('@line', ['family' => '@head'])]));
        $scaled = Arrangement::of($layout)->scaledTo(Size::px(960, 540))->layout->toArray()['elements'][0]['style'];
        self::assertSame(['@line', '@head'], [$scaled['size_px'], $scaled['family']]);
        $varied = $layout->withVariant('half', Arrangement::of($layout)->scaledTo(Size::px(960, 540))->layout);
        self::assertSame('@line', $varied->variants['half']->places['t']['size_px']);
        self::assertSame('@line', $varied->seenAs('half')->toArray()['elements'][0]['style']['size_px']);
    }

    /** @param Doc $document */
    #[DataProvider('wrong')]
    public function testWhatNamesNothingIsRefusedWhereItStands(array $document, string $reason, string $path): void
    {
        $style = Styles::of(self::style(['colours' => ['sea' => '#14665b']]));
        try {
            $around = (new Surroundings())->styled($style);
            ($document['format'] ?? null) === Playlist::FORMAT ? Make::list($document) : Make::composed($document, null, $around);
            self::fail('It was taken.');
        } catch (Refused $e) {
            self::assertSame([$reason, $path], [$e->reason->value, $e->path], $e->getMessage());
        }
    }

    /** @return iterable<string, array{Doc, string, string}> */
    public static function wrong(): iterable
    {
        $text = static fn (array $style): array => Make::layout([Make::zone('z', 0, 0, 10, 10), self::text(20, $style)]);
        yield 'a colour' => [$text(['color' => '@see']), 'ref.unknown', '/elements/1/style/color'];
        yield 'a face' => [$text(['family' => '@sea']), 'ref.unknown', '/elements/1/style/family'];
        yield 'a size' => [$text(['size_px' => '@sea']), 'ref.unknown', '/elements/1/style/size_px'];
        yield 'a plate' => [$text(['plate' => ['px' => 1, 'color' => '@see']]), 'ref.unknown', '/elements/1/style/plate/color'];
        yield 'a background' => [Make::layout([]) + ['background' => ['color' => '@see']], 'ref.unknown', '/background/color'];
        $mark = Make::layout([['id' => 'p', 'kind' => 'picture', 'rect' => ['x' => 0, 'y' => 0, 'width' => 10, 'height' => 10], 'media' => ['mark' => 'logo']]]);
        yield 'a mark' => [$mark, 'ref.unknown', '/elements/0/media/mark'];
        $within = Make::layout([self::text(20, ['color' => '@see'])], id: 'within');
        $zone = Make::zone('z', 0, 0, 10, 10, [['id' => 'i', 'layout' => $within, 'duration_ms' => 1000]]);
        yield 'in a layout within it' => [Make::layout([$zone]), 'ref.unknown', '/elements/0/playlist/items/0/layout/elements/0/style/color'];
        $places = ['t' => ['rect' => ['x' => 0, 'y' => 0, 'width' => 1, 'height' => 1], 'size_px' => '@no']];
        $varied = Make::layout([self::text(20)]) + ['variants' => [['id' => 'v', 'canvas' => ['width' => 9, 'height' => 9], 'places' => $places]]];
        yield 'in a variant' => [$varied, 'ref.unknown', '/variants/0/places/t/size_px'];
        yield 'no name at all' => [$text(['color' => '@Sea']), 'value.range', '/elements/1/style/color'];
        yield 'a size that is no name' => [$text(['size_px' => 'large']), 'type.wrong', '/elements/1/style/size_px'];
        yield 'an outline has no named width' => [$text(['outline' => ['px' => '@sea', 'color' => '@sea']]), 'type.wrong', '/elements/1/style/outline/px'];
        yield 'a mark without a style' => [['format' => Playlist::FORMAT, 'id' => 'l', 'name' => 'L', 'items' => [['id' => 'i', 'media' => ['mark' => 'logo']]]], 'ref.unknown', '/items/0/media/mark'];
    }

    /** @param list<Doc> $styles */
    #[DataProvider('wrongStyles')]
    public function testAStyleThatCannotBeReadIsRefused(array $styles, string $reason, string $path): void
    {
        try {
            Styles::of(...array_map(HouseStyle::fromArray(...), $styles));
            self::fail('It was taken.');
        } catch (Refused $e) {
            self::assertSame([$reason, $path], [$e->reason->value, $e->path], $e->getMessage());
        }
    }

    /** @return iterable<string, array{list<Doc>, string, string}> */
    public static function wrongStyles(): iterable
    {
        $style = static fn (array $more, string $id = 'a'): array => $more + ['format' => HouseStyle::FORMAT, 'id' => $id, 'name' => $id];
        yield 'a circle' => [[$style(['extends' => 'b']), $style(['extends' => 'c'], 'b'), $style(['extends' => 'b'], 'c')], 'ref.cycle', '/extends'];
        yield 'a circle that the first has no part in' => [[$style([]), $style(['extends' => 'c'], 'b'), $style(['extends' => 'b'], 'c')], 'ref.cycle', '/extends'];
        yield 'itself' => [[$style(['extends' => 'a'])], 'ref.cycle', '/extends'];
        yield 'one that is not there' => [[$style(['extends' => 'b'])], 'ref.unknown', '/extends'];
        yield 'one id twice' => [[$style([]), $style([])], 'id.twice', '/id'];
        yield 'a colour by a name' => [[$style(['colours' => ['a' => '@b']])], 'value.range', '/colours/a'];
        yield 'a name in capitals' => [[$style(['colours' => ['Sea' => '#123456']])], 'value.range', '/colours/Sea'];
        yield 'two sizes in one' => [[$style(['sizes' => ['a' => ['px' => 1, 'share' => 0.1]]])], 'field.unknown', '/sizes/a'];
        yield 'a size without any' => [[$style(['sizes' => ['a' => []]])], 'field.missing', '/sizes/a/px'];
        yield 'a share of nothing' => [[$style(['sizes' => ['a' => ['share' => 0]]])], 'value.range', '/sizes/a/share'];
        yield 'a mark by a mark' => [[$style(['marks' => ['a' => ['mark' => 'b']]])], 'field.unknown', '/marks/a/mark'];
        yield 'a face by a name' => [[$style(['faces' => ['a' => ['family' => '@b']]])], 'value.range', '/faces/a/family'];
        yield 'another format' => [[['format' => Layout::FORMAT] + $style([])], 'format.unknown', '/format'];
    }

    private static function typeOf(Composed $layout, string $id = 't'): TextStyle
    {
        $element = $layout->element($id);
        self::assertInstanceOf(Text::class, $element);

        return $element->style;
    }

    /** @param array<string, mixed> $more */
    private static function style(array $more, string $id = 'house'): HouseStyle
    {
        return HouseStyle::fromArray($more + ['format' => HouseStyle::FORMAT, 'id' => $id, 'name' => ucfirst($id)]);
    }

    /**
     * @param array<string, mixed> $style
     * @return Doc
     */
    private static function text(int|string $size, array $style = []): array
    {
        $rect = ['x' => 0, 'y' => 0, 'width' => 100, 'height' => 100];

        return ['id' => 't', 'kind' => 'text', 'rect' => $rect, 'text' => 'Pier', 'style' => $style + ['family' => Typewriter::FAMILY, 'size_px' => $size]];
    }

    /**
     * A layout with every kind of value that a house style may name, each another one.
     *
     * @return Doc
     */
    private static function dressed(): array
    {
        $n = 0;
        $colour = static function () use (&$n): string {
            return sprintf('#%06x', ++$n);
        };
        $style = static function (array $more = []) use (&$n, $colour): array {
            return $more + ['family' => Typewriter::FAMILY, 'size_px' => 20 + ++$n, 'weight' => 500, 'color' => $colour()];
        };
        $media = static function () use (&$n): array {
            return ['id' => 'm' . ++$n] + self::LOGO;
        };
        $rect = ['x' => 0, 'y' => 0, 'width' => 300, 'height' => 100];
        $part = static fn (string $id): array => ['id' => $id, 'kind' => 'text', 'rect' => $rect, 'text' => '{to}', 'message' => true, 'style' => $style()];
        $within = Make::layout([['id' => 'w', 'kind' => 'text', 'rect' => $rect, 'text' => 'W', 'style' => ['size_px' => 9, 'color' => '#777777']]], id: 'within');

        return Make::layout([
            Make::zone('z', 0, 0, 100, 50, [
                ['id' => 'a', 'media' => $media(), 'duration_ms' => 1000], ['id' => 'b', 'layout' => $within, 'duration_ms' => 1000],
            ], ground: $colour(), standby: ['media' => $media()]),
            ['id' => 'y', 'kind' => 'zone', 'rect' => $rect, 'playlist' => ['items' => [], 'interleave' => ['every' => 1, 'items' => [['id' => 'c', 'media' => $media(), 'duration_ms' => 1000]]]]],
            ['id' => 't', 'kind' => 'text', 'rect' => $rect, 'text' => '@Saltgate', 'style' => $style([
                'outline' => ['px' => 1, 'color' => $colour()], 'plate' => ['px' => 2, 'color' => $colour()],
                'shadow' => ['x_px' => 1, 'y_px' => 1, 'blur_px' => 1, 'color' => $colour()],
            ]),
                'marks' => [['from' => 0, 'to' => 2, 'color' => $colour()]]],
            ['id' => 'p', 'kind' => 'picture', 'rect' => $rect, 'media' => $media(), 'ground' => $colour(), 'crop' => ['x' => 10, 'y' => 10, 'width' => 100, 'height' => 50]],
            ['id' => 'q', 'kind' => 'picture', 'rect' => $rect, 'media' => ['field' => 'to', 'standby' => $media()], 'rows' => ['source' => 's', 'path' => '$[*]', 'fields' => ['to' => '$.to']]],
            ['id' => 's', 'kind' => 'shape', 'rect' => $rect, 'shape' => 'rectangle', 'fill' => $colour()],
            ['id' => 'd', 'kind' => 'clock', 'rect' => $rect, 'pattern' => 'HH:mm', 'style' => $style()],
            ['id' => 'e', 'kind' => 'clock', 'rect' => $rect, 'dial' => ['color' => $colour(), 'ground' => $colour()]],
            ['id' => 'k', 'kind' => 'code', 'rect' => ['height' => 300] + $rect, 'text' => 'QUAY 2', 'color' => $colour(), 'ground' => $colour(), 'caption' => ['text' => 'Scan', 'style' => $style()]],
            ['id' => 'l', 'kind' => 'ticker', 'rect' => $rect, 'text' => 'Boats back', 'speed_px_s' => 60, 'style' => $style()],
            ['id' => 'b'] + Make::board(
                '{to}',
                400,
                100,
                600,
                stripe: $colour(),
                highlight: [['where' => [['field' => 'to', 'is' => 'equals', 'value' => 'Tolm']], 'fill' => $colour()]],
                header: ['height' => 50, 'elements' => [$part('h')]],
                empty: ['elements' => [$part('o')]],
                continued: ['text' => '{page}', 'rect' => $rect, 'style' => $style()],
                stale: ['elements' => [$part('x')]]
            ),
            ['id' => 'v', 'kind' => 'chart', 'rect' => $rect, 'rows' => ['source' => 's', 'path' => '$[*]', 'fields' => ['n' => '$.n']],
                'type' => 'columns', 'value' => 'n', 'style' => $style(), 'colours' => [$colour(), $colour()]],
        ]) + ['background' => ['color' => $colour()]];
    }

    /**
     * The same with a name in the place of every value, and what each means.
     *
     * @param Doc $layout
     * @param array<string, array<string, mixed>> $style
     * @return Doc
     */
    private static function inNames(array $layout, array &$style): array
    {
        $name = static function (string $sort, mixed $value) use (&$style): string {
            $known = array_search($value, $style[$sort], true);
            $name = $known === false ? rtrim($sort, 's') . '-' . array_sum(array_map(count(...), $style)) : $known;
            $style[$sort][$name] = $value;

            return (string) $name;
        };
        $change = static function (mixed $value, Role $role) use ($name, &$change): mixed {
            return match (true) {
                $role === Role::Colour => '@' . $name('colours', $value),
                $role === Role::Type => array_replace(
                    array_diff_key($value, ['weight' => 1]),
                    ['size_px' => '@' . $name('sizes', ['px' => $value['size_px']])],
                    isset($value['family']) ? ['family' => '@' . $name('faces', ['family' => $value['family'], 'weight' => $value['weight'] ?? 400])] : [],
                ),
                $role === Role::Media => ['mark' => $name('marks', $value)],
                $role === Role::Layout => array_replace($value, [
                    'elements' => array_map(static fn (array $one): array => Kinds::fieldsOf($one['kind'])->mapped($one, $change), $value['elements']),
                ]),
                default => $value,
            };
        };

        return array_replace($change($layout, Role::Layout), ['background' => ['color' => '@' . $name('colours', $layout['background']['color'])]]);
    }
}
