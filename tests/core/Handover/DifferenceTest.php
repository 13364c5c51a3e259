<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Handover;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Playback\Programme;
use UpperPane\Tests\Core\Make;

/** @phpstan-import-type Doc from Make */
final class DifferenceTest extends TestCase
{
    /**
     * @param \Closure(Doc): Doc $change
     * @param list<string> $words
     */
    #[DataProvider('changes')]
    public function testSaysWhatAViewerWouldSeeChange(\Closure $change, array $words): void
    {
        $old = self::design();

        self::assertSame($words, Programme::endless(Make::composed($change($old)))->changesFrom(Programme::endless(Make::composed($old))));
    }

    /** @return iterable<string, array{\Closure(Doc): Doc, list<string>}> */
    public static function changes(): iterable
    {
        $at = static function (string $path, mixed $value): \Closure {
            return static function (array $document) use ($path, $value): array {
                $place = &$document;
                foreach (explode('/', $path) as $step) {
                    $place = &$place[ctype_digit($step) ? (int) $step : $step];
                }
                $place = $value;

                return $document;
            };
        };
        $item = 'elements/0/playlist/items';
        yield 'nothing' => [static fn (array $d): array => $d, []];
        yield 'another name alone' => [$at('name', 'Evening'), []];
        yield 'another layout' => [$at('id', 'other'), ['"Layout test" takes the place of "Layout test".']];
        yield 'another canvas' => [$at('canvas/height', 540), ['Canvas: 1920 x 540 px, was 1920 x 1080 px.']];
        yield 'another ground' => [$at('background', ['color' => '#14665b']), ['Background: #14665b, was #000000.']];
        yield 'a moved zone' => [$at('elements/0/rect/x', 10), ['Moved: "main" to 10, 0 with 1344 x 864 px, was 0, 0 with 1344 x 864 px.']];
        yield 'a longer picture' => [$at("$item/0/duration_ms", 12_500), ['Retimed: i1.png in "main" lasts 12.5 s, was 10 s.']];
        yield 'a picture without end' => [
            static function (array $d): array {
                unset($d['elements'][0]['playlist']['items'][1]['duration_ms']);
                $d['elements'][0]['playlist']['items'][1]['lasts'] = 'endless';

                return $d;
            },
            ['Retimed: i2.png in "main" lasts without end, was 20 s.'],
        ];
        yield 'a picture switched off' => [$at("$item/0/enabled", false), ['"main" no longer plays i1.png.']];
        yield 'a picture more' => [$at("$item/2", Make::picture('i3')), ['"main" plays i3.png too.']];
        yield 'another order' => [
            static function (array $d): array {
                $d['elements'][0]['playlist']['items'] = array_reverse($d['elements'][0]['playlist']['items']);

                return $d;
            },
            ['"main" plays in another order or way.'],
        ];
        yield 'another fit' => [$at("$item/0/fit", 'cover'), ['"main" plays in another order or way.']];
        yield 'a fade' => [$at("$item/0/transition", ['kind' => 'fade']), ['"main" plays in another order or way.']];
        yield 'hours at which it plays' => [$at("$item/0/valid", ['hours' => [['08:00', '09:00']]]), ['"main" plays in another order or way.']];
        yield 'louder at noon' => [$at("$item/0/levels", [['hours' => ['12:00', '13:00'], 'volume' => 30]]), ['"main" plays in another order or way.']];
        yield 'other words' => [$at('elements/1/text', 'Closed'), ['"head" says "Closed", was "Welcome aboard".']];
        yield 'another size of type' => [$at('elements/1/style/size_px', 80), ['"head" is set in another style.']];
        yield 'another colour of a shape' => [$at('elements/2/fill', '#ffffff'), ['"band" looks different.']];
        yield 'another picture' => [$at('elements/3/media/name', 'mark2.png'), ['"mark" shows mark2.png, was mark.png.']];
        yield 'an element more' => [$at('elements/4', Make::zone('foot', 0, 864, 1920, 216)), ['Added: zone "foot".']];
        yield 'an element less' => [
            static function (array $d): array {
                array_splice($d['elements'], 2, 1);

                return $d;
            },
            ['Removed: shape "band".'],
        ];
        yield 'another stack' => [
            static function (array $d): array {
                $d['elements'] = array_reverse($d['elements']);

                return $d;
            },
            ['The stacking order changes.'],
        ];
        yield 'another kind under the same id' => [
            $at('elements/2', ['id' => 'band', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'text' => '', 'style' => ['size_px' => 9]]),
            ['Added: text "band".', 'Removed: shape "band".'],
        ];
    }

    public function testTheFirstIsSaidToBeTheFirst(): void
    {
        self::assertSame(['"Layout test" is the first to be handed over.'], Programme::endless(Make::composed(self::design()))->changesFrom(null));
    }

    public function testANestedLayoutIsNamed(): void
    {
        $library = Library::of([Make::layout([Make::zone('z', 0, 0, 10, 10)], 10, 10, 'tides')]);
        $with = self::design();
        $with['elements'][0]['playlist']['items'][] = ['id' => 'n', 'layout' => ['ref' => 'tides'], 'duration_ms' => 1000];

        self::assertSame(['"main" plays Layout tides too.'], Programme::endless(Make::composed($with, $library))->changesFrom(Programme::endless(Make::composed(self::design()))));
    }

    /** @return Doc */
    private static function design(): array
    {
        $rect = ['x' => 40, 'y' => 40, 'width' => 400, 'height' => 100];

        return Make::layout([
            Make::zone('main', 0, 0, 1344, 864, [Make::picture('i1'), Make::picture('i2', durationMs: 20_000)]),
            ['id' => 'head', 'kind' => 'text', 'rect' => $rect, 'text' => 'Welcome aboard', 'style' => ['size_px' => 72]],
            ['id' => 'band', 'kind' => 'shape', 'rect' => $rect, 'fill' => '#14665b'],
            ['id' => 'mark', 'kind' => 'picture', 'rect' => $rect, 'media' => ['name' => 'mark.png', 'width' => 400, 'height' => 100]],
        ]);
    }
}
