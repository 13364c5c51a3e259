<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Tests\Core\Make;

/** Portrait and landscape of one layout: the same content, an arrangement each. */
final class VariantsTest extends TestCase
{
    #[TestWith([1920, 1080, 1920])]
    #[TestWith([1080, 1920, 1080], 'the portrait one')]
    #[TestWith([3840, 2160, 1920], 'scaled')]
    #[TestWith([720, 1280, 1080], 'scaled, upright')]
    #[TestWith([1200, 1920, 1080], 'padded is better than crossed')]
    #[TestWith([1000, 1000, 1920], 'a square is crossed by neither; the first of two alike')]
    public function testTheMatchChoosesTheVariant(int $width, int $height, int $canvas): void
    {
        self::assertSame($canvas, Make::composed(self::both())->for(Size::px($width, $height))->canvas->width);
    }

    public function testAVariantSharesTheContentAndHasItsOwnPlaces(): void
    {
        $portrait = Make::composed(self::both())->for(Size::px(1080, 1920));

        self::assertSame(['main', 'foot', 'head'], array_map(static fn ($element): string => $element->id(), $portrait->elements), 'side is left out');
        self::assertSame([1080, 1536], [$portrait->zones['main']->rect()->width, $portrait->zones['main']->rect()->height]);
        self::assertSame('4fr 1fr', $portrait->recipe?->rows->written());
        self::assertNull($portrait->zones['foot']->follows, 'its leader is not here');
        $head = $portrait->element('head');
        self::assertInstanceOf(Text::class, $head);
        self::assertSame([40.0, 'Welcome'], [$head->style->sizePx, $head->text]);
    }

    public function testALayoutInAZoneShowsTheVariantThatSuitsTheZone(): void
    {
        $outer = Make::layout([Make::zone('z', 0, 0, 540, 960, [['id' => 'i', 'layout' => ['id' => 'inner'] + self::both(), 'duration_ms' => 5000]])], 540, 960, 'outer');

        self::assertSame(1080, Make::composed($outer)->zones['z']->layouts['i']->canvas->width);
    }

    public function testWhatIsTakenOutIsTakenOutOfItsVariantsToo(): void
    {
        $joined = Make::arranged(self::both())->joined(['side', 'main']);

        self::assertSame(['foot', 'head'], array_keys($joined->layout->toArray()['variants'][0]['places']));
    }

    /** @param array<string, mixed> $change */
    #[TestWith([['places' => ['nowhere' => ['rect' => ['x' => 0, 'y' => 0, 'width' => 1, 'height' => 1]]]], '/variants/0/places/nowhere', 'ref.unknown'])]
    #[TestWith([['places' => ['main' => ['rect' => ['x' => 0, 'y' => 0, 'width' => 0, 'height' => 1]]]], '/variants/0/places/main/rect/width', 'value.range'])]
    #[TestWith([['canvas' => ['width' => 10]], '/variants/0/canvas/height', 'field.missing'])]
    #[TestWith([['recipe' => ['rows' => 'auto']], '/variants/0/recipe/rows', 'tracks.syntax'])]
    #[TestWith([['elements' => []], '/variants/0/elements', 'field.unknown'])]
    public function testAWrongVariantSaysWhere(array $change, string $path, string $code): void
    {
        $document = self::both();
        $document['variants'][0] = array_replace($document['variants'][0], $change);
        try {
            Make::composed($document);
            self::fail('read');
        } catch (Refused $e) {
            self::assertSame([$path, $code], [$e->path, $e->reason->value]);
        }
    }

    /** @return array<string, mixed> */
    private static function both(): array
    {
        $document = Make::harbour();
        $document['elements'][2]['follows'] = 'side';
        $document['elements'][] = ['id' => 'head', 'kind' => 'text', 'rect' => ['x' => 40, 'y' => 40, 'width' => 900, 'height' => 100], 'text' => 'Welcome', 'style' => ['size_px' => 72]];
        $rect = static fn (int $x, int $y, int $width, int $height): array => ['x' => $x, 'y' => $y, 'width' => $width, 'height' => $height];
        $document['variants'] = [[
            'id' => 'portrait', 'canvas' => ['width' => 1080, 'height' => 1920], 'recipe' => ['rows' => '4fr 1fr', 'areas' => ['main', 'foot']],
            'places' => [
                'main' => ['rect' => $rect(0, 0, 1080, 1536)], 'foot' => ['rect' => $rect(0, 1536, 1080, 384)],
                'head' => ['rect' => $rect(40, 40, 1000, 80), 'size_px' => 40],
            ],
        ]];

        return $document;
    }
}
