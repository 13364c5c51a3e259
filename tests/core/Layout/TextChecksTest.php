<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Type\AsSeen;
use UpperPane\Core\Layout\Type\ReadingTime;
use UpperPane\Core\Layout\Type\TextContrasts;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Media\Swatch;
use UpperPane\Core\Media\Swatches;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/** What is seen by the viewer: size, room, contrast, time to read. On a face on which one can count. */
final class TextChecksTest extends TestCase
{
    public function testWordsThatNeedMoreRoomAreToldWithTheLargestTypeThatFits(): void
    {
        $tight = self::text('Berth 2 is closed', 0, 0, 200, 48, ['size_px' => 40]);
        [$finding] = self::findings([$tight], 'text.overflow');
        self::assertSame('"t" needs 200 x 96 px for 2 lines, its box has 200 x 48.', $finding->message);
        self::assertSame([23, 'Make its box 96 px high'], [$finding->measure['fits_px'], $finding->cure()?->label], 'much smaller is no repair while there is room below');
        self::assertSame([], self::findings([self::cured([$tight], $finding)], 'text.overflow'));
        self::assertSame([], self::findings([self::text('Berth 2', 0, 0, 200, 48, ['size_px' => 40])], 'text.overflow'), 'just as large as the box');

        [$finding] = self::findings([$tight, self::text('x', 0, 60, 100, 100, [], 'u')], 'text.overflow');
        self::assertSame('Make its type 23 px', $finding->cure()?->label, 'other words stand below');
        self::assertSame([], self::findings([self::cured([$tight], $finding)], 'text.overflow'));
        $nearly = self::text('Berth 2 is', 0, 0, 190, 48, ['size_px' => 40]);
        self::assertSame('Make its type 38 px', self::findings([$nearly], 'text.overflow')[0]->cure()?->label, 'a little smaller is');
    }

    /** On one fill all points are alike: what is told without looking at any is what looking at all of them tells. */
    public function testOneFillNeedsNoLookingAtPoints(): void
    {
        $random = Make::random(23);
        $plain = 0;
        for ($i = 0; $i < Make::rounds(60); $i++) {
            $shape = static fn (string $id): array => [
                'id' => $id, 'kind' => 'shape', 'shape' => ['rectangle', 'rectangle', 'ellipse'][$random->getInt(0, 2)], 'fill' => '#' . bin2hex($random->getBytes($random->getInt(3, 4))),
                'rect' => ['x' => $random->getInt(0, 200), 'y' => $random->getInt(0, 200), 'width' => $random->getInt(100, 900), 'height' => $random->getInt(60, 500)],
            ];
            $text = self::text('Berth 2', $random->getInt(0, 300), $random->getInt(0, 300), 200, 60, ['size_px' => 40, 'color' => '#' . bin2hex($random->getBytes(3))]);
            $shapes = array_map($shape, array_slice(['a', 'b'], 0, $random->getInt(0, 2)));
            $layout = Make::composed(['background' => ['color' => '#' . bin2hex($random->getBytes(3))]] + Make::layout([...$shapes, $text]));
            $words = $layout->element('t');
            assert($words instanceof Text);
            $told = TextContrasts::worstOf($words, $layout, new Typewriter(), null);
            self::assertSame(TextContrasts::worst($words, $layout, new Typewriter(), null)['ratio'] ?? null, $told['ratio'] ?? null, "round $i");
            $plain += isset($told['cells']) ? 0 : 1;
        }
        self::assertGreaterThan(15, $plain);
    }

    public function testAPlateTakesRoomOfItsOwn(): void
    {
        $text = self::text('Berth 2 is', 0, 0, 200, 48, ['size_px' => 40]);
        self::assertSame([], self::findings([$text], 'text.overflow'));
        $text['style']['plate'] = ['px' => 10, 'color' => '#000000'];
        self::assertCount(1, self::findings([$text], 'text.overflow'));
    }

    /** 43 inch class at 10 m: 1 px is 0.49 mm; a capital of 0.7 of 100 px is 34.3 mm, 11.8 arc minutes. */
    public function testCapitalsThatTheFarthestViewerCannotReadAreTold(): void
    {
        $small = self::text('Welcome', 0, 0, 1900, 300, ['size_px' => 100]);
        [$finding] = self::findings([$small], 'text.small', Make::display());
        self::assertSame('"t": capitals are 34.3 mm on Check-in 1, 11.8′ at 10 m; 16′ are needed, type of 136 px.', $finding->message);
        self::assertSame(['comfortable' => 170, 'limit' => 136], $finding->measure['size_px']);
        self::assertSame('Make its type 170 px', $finding->cure()?->label, 'the comfortable size has room');
        self::assertSame([], self::findings([self::cured([$small], $finding)], 'text.small', Make::display()));
        self::assertSame([], self::findings([self::text('Welcome', 0, 0, 1900, 300, ['size_px' => 136])], 'text.small', Make::display()));
        self::assertSame([], self::findings([$small], 'text.small'), 'nobody is known to look');

        [$finding] = self::findings([self::text('Welcome', 0, 0, 400, 130, ['size_px' => 100])], 'text.small', Make::display());
        self::assertSame('Make its type 170 px and its box 595 x 204', $finding->cure()?->label, 'the box grows where it must');
        [$finding] = self::findings([self::text('Welcome', 1600, 1000, 300, 50, ['size_px' => 30])], 'text.small', Make::display());
        self::assertNull($finding->cure());
        self::assertStringEndsWith('On this canvas it has no room there.', $finding->message);
    }

    public function testOnAnLedRasterACapitalNeedsPxOfItsOwn(): void
    {
        $led = ['technology' => 'led', 'viewing' => ['nearest_mm' => 300, 'farthest_mm' => 500]] + Make::display();
        [$finding] = self::findings([self::text('Open', 0, 0, 300, 60, ['size_px' => 9.5])], 'text.small', $led);
        self::assertSame('"t": capitals have 6.7 px on this LED display; 7 are needed.', $finding->message);
        self::assertSame([], self::findings([self::text('Open', 0, 0, 300, 60, ['size_px' => 10])], 'text.small', $led));
    }

    public function testWhatNoFaceHasIsTold(): void
    {
        self::assertSame('Typewriter has no letter for Ω in "t": players draw it in whatever they have.', self::findings([self::text('5 Ω Ω')], 'text.face')[0]->message);
        $other = self::text('x', ...['style' => ['family' => 'Somewhere']]);
        self::assertStringContainsString('is no face of the house', self::findings([$other], 'text.face')[0]->message);
    }

    /** WCAG 2.2: #777777 on white is 4.48, just under what normal type needs, and enough for large type. */
    #[TestWith(['#777777', '#ffffff', 20, true])]
    #[TestWith(['#767676', '#ffffff', 20, false])]
    #[TestWith(['#777777', '#ffffff', 24, false])]
    #[TestWith(['#ffffff80', '#808080', 24, true], 'see-through letters are mixed with their ground')]
    public function testLettersAreHeldAgainstTheirGround(string $color, string $ground, int $size, bool $told): void
    {
        $plate = ['id' => 's', 'kind' => 'shape', 'rect' => ['x' => 0, 'y' => 0, 'width' => 800, 'height' => 400], 'fill' => $ground];
        $found = self::findings([$plate, self::text('Words', 10, 10, 600, 100, ['size_px' => $size, 'color' => $color])], 'text.contrast');
        self::assertCount($told ? 1 : 0, $found);
    }

    public function testASmallTextSeenFromFarNeedsMoreThanOneSeenFromNear(): void
    {
        $grey = [self::text('Words', 10, 10, 1600, 400, ['size_px' => 200, 'color' => '#666666'])];
        $near = ['viewing' => ['nearest_mm' => 500, 'farthest_mm' => 2000]] + Make::display();
        self::assertSame([], self::findings($grey, 'text.contrast', $near), '3.7 to 1 on black is enough for large type');
        $far = ['viewing' => ['nearest_mm' => 500, 'farthest_mm' => 30_000]] + Make::display();
        self::assertSame('"t": 3.6 to 1 against its ground; 4.5 to 1 is needed for type of this size.', self::findings($grey, 'text.contrast', $far)[0]->message);
    }

    public function testOverAPictureTheWorstTwentiethCountsAndAnOutlineCures(): void
    {
        $zone = Make::zone('z', 0, 0, 1600, 900, [self::picture('dark'), self::picture('half')]);
        $text = self::text('Welcome aboard', 0, 0, 1600, 200, ['size_px' => 100, 'color' => '#ffffff', 'align' => 'center']);
        [$finding] = self::findings([$zone, $text], 'text.contrast');
        self::assertSame(['z', 'half', 1.0], [$finding->measure['zone'], $finding->measure['item'], $finding->measure['ratio']], 'white on the white half');
        self::assertStringContainsString('against "half.png"', $finding->message);
        self::assertSame('Outline it in black, 4 px', $finding->cure()?->label);
        self::assertSame([], self::findings([$zone, self::cured([$text], $finding)], 'text.contrast'));

        self::assertSame([], self::findings([$zone, ['rect' => ['x' => 0, 'y' => 0, 'width' => 780, 'height' => 200]] + $text], 'text.contrast'), 'it stands on the dark half');
        self::assertSame([], self::findings([Make::zone('z', 0, 0, 1600, 900, [self::picture('unseen')]), $text], 'text.contrast'), 'what nobody looked at is not judged');
        $small = ['style' => ['size_px' => 16] + $text['style']] + $text;
        self::assertSame('Put it on a black plate', self::findings([$zone, $small], 'text.contrast')[0]->cure()?->label);
    }

    public function testALayoutIsAsLargeAsItsViewersSeeIt(): void
    {
        $layout = Make::composed(Make::layout([self::text('Welcome', 0, 0, 1900, 300, ['size_px' => 136]), self::text('', 0, 400, 100, 100, [], 'empty')]));
        $seen = AsSeen::of($layout, (new Surroundings('UTC', new Typewriter()))->on(Display::fromArray(Make::display())));

        // 941 mm at 10 m are 5.389 degrees, a CSS px is 0.0213: CSS Values 4, 6.2.
        self::assertSame([10_000.0, 253.0, 142.3], array_values($seen['from'][0]));
        self::assertSame([6000.0, 2000.0], array_column(array_slice($seen['from'], 1), 'distance_mm'));
        self::assertCount(1, $seen['texts']);
        self::assertSame(['enough', 'enough'], [$seen['texts'][0]['level'], $seen['texts'][0]['cells'][0]['level']]);
        self::assertSame(['enough', 'nearly', 'nearly', 'lost'], array_map(static fn (float $r): string => TextContrasts::level($r, 3.0), [3.0, 2.99, 2.25, 2.24]));
        $cells = $seen['texts'][0]['cells'];
        self::assertSame([16.0, 'limit', 21.0], [$seen['texts'][0]['arcmin'], $seen['texts'][0]['verdict'], $seen['texts'][0]['ratio']]);
        self::assertEqualsWithDelta(476 * 136 * 1.2, array_sum(array_map(static fn (array $c): float => $c['width'] * $c['height'], $cells)), 476 * 2, 'the cells cover the line');
        self::assertSame([], AsSeen::of($layout, new Surroundings('UTC', new Typewriter()))['from'], 'nobody is known to look');
    }

    /** Common practice, no source: 12 words take 1 + 2 x 4 = 9 s. */
    public function testWordsNeedTimeToBeRead(): void
    {
        self::assertSame([0, 9000, 2000], [ReadingTime::neededMs(0), ReadingTime::neededMs(12), ReadingTime::neededMs(1)]);
        self::assertSame(7, ReadingTime::wordsOf("Berth 2 is closed: don't wait – go!"));
        $inner = Make::layout([self::text('Berth 2 is closed until noon. Sailings to Tolm leave from berth')], 800, 600, 'inner');
        $zone = static fn (int $ms): array => Make::zone('z', 0, 0, 800, 600, [['id' => 'i', 'layout' => $inner, 'duration_ms' => $ms], Make::picture('p')]);
        [$finding] = self::findings([$zone(5000)], 'duration.short');
        self::assertSame('"Layout inner" shows 12 words for 5 s in "z"; reading them takes 9 s.', $finding->message);
        self::assertSame(['duration_ms' => 9000], $finding->cure()?->toArray()['set'] ?? null);
        self::assertSame([], self::findings([$zone(9000)], 'duration.short'));
    }

    /**
     * @param array<string, mixed> $style
     * @return array<string, mixed>
     */
    private static function text(string $text, int $x = 0, int $y = 0, int $width = 1900, int $height = 300, array $style = [], string $id = 't'): array
    {
        return [
            'id' => $id, 'kind' => 'text', 'rect' => ['x' => $x, 'y' => $y, 'width' => $width, 'height' => $height], 'text' => $text,
            'style' => $style + ['family' => Typewriter::FAMILY, 'size_px' => 40, 'color' => '#ffffff'],
        ];
    }

    /** @return array<string, mixed> */
    private static function picture(string $id): array
    {
        return ['id' => $id, 'media' => ['id' => $id, 'name' => "$id.png", 'width' => 1600, 'height' => 900], 'duration_ms' => 1000, 'fit' => 'cover'];
    }

    /**
     * @param list<array<string, mixed>> $elements
     * @param ?array<string, mixed> $display
     * @return list<Finding>
     */
    private static function findings(array $elements, string $code, ?array $display = null): array
    {
        $swatches = new class implements Swatches {
            public function of(Media $media): ?Swatch
            {
                return match ($media->id) {
                    'dark' => Swatch::of(1, 1, "\x10\x10\x10\xff"),
                    'half' => Swatch::of(2, 1, "\x10\x10\x10\xff\xff\xff\xff\xff"),
                    default => null,
                };
            }
        };
        $found = Make::checked(Make::composed(Make::layout($elements)), $display === null ? null : Display::fromArray($display), new Typewriter(), $swatches)->all;

        return array_values(array_filter($found, static fn (Finding $finding): bool => $finding->code === $code));
    }

    /**
     * The text with its cure, as the desk puts it.
     *
     * @param list<array<string, mixed>> $elements
     * @return array<string, mixed>
     */
    private static function cured(array $elements, Finding $finding): array
    {
        $change = $finding->cure()?->toArray() ?? [];
        self::assertSame($elements[0]['id'], $change['element'] ?? null);

        return array_replace($elements[0], ['style' => array_replace($elements[0]['style'], $change['style'] ?? [])], isset($change['rect']) ? ['rect' => $change['rect']] : []);
    }
}
