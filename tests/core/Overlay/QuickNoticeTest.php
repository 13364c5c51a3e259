<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Overlay;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Colour\Contrast;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Overlay\Elsewhere;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\QuickNotice;
use UpperPane\Core\Text\SetText;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/** Words in a hurry are as large as their farthest reader needs, as long as that leaves room for what plays. */
final class QuickNoticeTest extends TestCase
{
    private const FAMILY_SHARE = 0.7;

    public function testCapitalsAreOfTwentyTwoArcMinutesForTheFarthestViewer(): void
    {
        $display = self::display(['nearest_mm' => 1000, 'farthest_mm' => 6000]);
        $notice = self::on($display, 'Lift out of order');
        $capMm = $notice['style']['size_px'] * self::FAMILY_SHARE / $display->pxPerMm();
        $arcmin = Legibility::arcmin($capMm, $display->viewing->farthestEyeMm());
        self::assertGreaterThanOrEqual(22.0, $arcmin);
        self::assertLessThan(22.6, $arcmin, 'and no more than the next whole px');
        self::assertSame('comfortable', Legibility::verdict($arcmin));
    }

    /** @return iterable<string, array{int, int, string}> */
    public static function screens(): iterable
    {
        yield 'a wall from afar' => [5768, 2164, 'The lift is out of order. Please take the stairs at the end of the hall.'];
        yield 'upright' => [1080, 1920, str_repeat('The lift is out of order. ', 6)];
        yield 'a strip' => [1920, 540, 'The lift is out of order'];
        yield 'an LED sign' => [192, 96, 'Lane closed'];
        yield 'far too much' => [1920, 1080, str_repeat('All sailings are late today. ', 60)];
        yield 'one long word' => [1080, 1920, 'Donaudampfschifffahrtsgesellschaftskapitän'];
        yield 'no letter of any alphabet' => [1920, 1080, '🚢⚓🌊'];
        yield 'from right to left' => [1920, 1080, 'المصعد خارج الخدمة'];
    }

    #[DataProvider('screens')]
    public function testItStaysOnTheScreenAndLeavesRoom(int $width, int $height, string $text): void
    {
        $notice = self::on(self::display(['nearest_mm' => 2000, 'farthest_mm' => 40_000], $width, $height), $text);
        $shorter = min($width, $height);
        self::assertLessThanOrEqual($shorter / 7, $notice['style']['size_px']);
        self::assertGreaterThanOrEqual($shorter / 30, $notice['style']['size_px']);
        $line = $notice['width'] * $width - 2 * $notice['padding'] * $shorter;
        $set = SetText::of($text, new Typewriter(), Typewriter::FAMILY, 700, $notice['style']['size_px'], 1.2, $line);
        $isLeast = $notice['style']['size_px'] <= ceil($shorter / 30);
        self::assertTrue($isLeast || ($set->heightPx <= 0.45 * $height && $set->widthPx <= $line), "{$notice['style']['size_px']} px");
        $document = ['format' => Overlay::FORMAT, 'id' => 'n', 'name' => 'N', 'created' => '2026-06-01T00:00:00Z', 'when' => 'always'] + $notice;
        self::assertSame('notice', Overlay::fromArray($document)->kind, 'it is a document as any other');
    }

    /** Whatever plays below it: its plate is opaque, and its words are plain on that. Outside figure: WCAG 2.2, 1.4.3. */
    public function testItsWordsCanBeReadOnAnyPicture(): void
    {
        $notice = self::on(self::display(['nearest_mm' => 1000, 'farthest_mm' => 6000]), 'Lift');
        self::assertSame(7, strlen($notice['plate']));
        self::assertGreaterThan(7.0, Contrast::of(Colour::of($notice['style']['color']), Colour::of($notice['plate']))->ratio);
    }

    public function testElsewhereAreOtherPlacesOfItsKind(): void
    {
        $of = static fn (array $document): array => Overlay::fromArray($document)->lies->elsewhere();
        $says = static fn (array $document): array => array_map(static fn (Elsewhere $one): string => $one->says, $of($document));
        self::assertSame(['top left', 'bottom left', 'bottom right'], $says(OverlayDocuments::mark('top-right')));
        self::assertSame(['beside what plays, not above it', 'top'], $says(OverlayDocuments::strip('bottom')));
        self::assertSame(['right'], $says(OverlayDocuments::strip('left', room: 'squeeze')), 'a line that runs up is not laid down');
        self::assertCount(8, $of(OverlayDocuments::notice('middle-left')));
        self::assertSame([[], []], [$says(OverlayDocuments::window()), $says(OverlayDocuments::takeover())]);
        foreach ($of(OverlayDocuments::notice('middle')) as $one) {
            self::assertSame($one->fields['place'], strtr($one->says, ' ', '-'));
            Overlay::fromArray($one->fields + OverlayDocuments::notice());
        }
    }

    /** @param array{nearest_mm: int, farthest_mm: int} $viewing */
    private static function display(array $viewing, int $width = 1920, int $height = 1080): Display
    {
        return Display::fromArray(['viewing' => $viewing] + Make::display($width, $height));
    }

    /** @return array<string, mixed> */
    private static function on(Display $display, string $text): array
    {
        return QuickNotice::on($display->raster(), (new Surroundings('UTC', new Typewriter()))->on($display), $text, 'bottom');
    }
}
