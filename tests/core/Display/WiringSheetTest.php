<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Display;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\SizeClasses;
use UpperPane\Core\Display\WiringSheet;
use UpperPane\Tests\Core\Make;

/** What an installer reads: mirrored from behind, cable by cable, one panel after the other. */
final class WiringSheetTest extends TestCase
{
    public function testFromBehindLeftIsRight(): void
    {
        $sheet = WiringSheet::of(Display::fromArray(Make::wall(3, 1)));
        $x = ['front' => [], 'behind' => []];
        foreach ($sheet->panels as $panel) {
            $x['front'][] = round($panel['front']->x, 6);
            $x['behind'][] = round($panel['behind']->x, 6);
        }

        // 3 x 1209.6 + 2 x 2.7 mm of seams, and the outermost frames of 1.8 and 0.9 mm.
        self::assertEqualsWithDelta(3636.9, $sheet->width, 1e-9);
        self::assertSame([0.0, 1212.3, 2424.6], $x['front']);
        self::assertSame(array_reverse($x['front']), $x['behind']);
        foreach ($sheet->panels as $panel) {
            self::assertEqualsWithDelta($sheet->width, $panel['front']->x + $panel['front']->width + $panel['behind']->x, 1e-9);
            self::assertEqualsWithDelta(1.8, $panel['inner']->x - $panel['front']->x, 1e-9);
        }
    }

    public function testEachOutputIsACableAndAProcessorHasOneForEachPanel(): void
    {
        $players = [['id' => 'a', 'outputs' => [['number' => 1, 'link' => 'dp-1.2'], ['number' => 2, 'link' => 'dp-1.2']]]];
        $cables = WiringSheet::of(Display::fromArray(Make::wall(2, 1, players: $players)))->cables;
        self::assertSame(
            ['number' => 2, 'from' => 'player a, output 2', 'to' => 'panel A2', 'link' => 'dp-1.2', 'signal' => '1920 x 1080 px, 60 Hz, 138.5 MHz'],
            $cables[1],
        );
        $processor = ['player' => 'a', 'output' => 1, 'raster' => ['width' => 3840, 'height' => 2160]];
        $processed = WiringSheet::of(Display::fromArray(Make::wall(2, 1, players: $players, processor: $processor)));
        self::assertSame(['wall processor, in', 'panel A1', 'panel A2'], array_column($processed->cables, 'to'));
        self::assertContains(['at_s' => 6, 'what' => 'wall processor'], $processed->switching);
    }

    public function testPlayersAreSwitchedOnWhenThePanelsAreUp(): void
    {
        $sheet = WiringSheet::of(Display::fromArray(Make::wall(2, 2, 90, players: [['id' => 'a']])));

        self::assertSame([['at_s' => 0, 'what' => 'panel A1'], ['at_s' => 3, 'what' => 'panel A2']], array_slice($sheet->switching, 0, 2));
        self::assertSame(['at_s' => 4 * 3 + 30, 'what' => 'player a'], $sheet->switching[4]);
        self::assertContains('4 panels are turned as the arrows show', $sheet->checks);
        self::assertNotContains('Gaps between frames are as drawn', WiringSheet::of(Display::fromArray(Make::display()))->checks);
    }

    public function testClassesOfSizesHaveTheirDiagonalAndWholePixels(): void
    {
        foreach (SizeClasses::all() as $class) {
            $display = Make::display();
            $display['panels'][0] = ['native' => $class['native'], 'active_mm' => $class['active_mm']] + $display['panels'][0];
            $density = Display::fromArray($display)->pxPerMm();
            self::assertEqualsWithDelta($density, $class['native']['height'] / $class['active_mm']['height'], $density * 0.005, $class['id']);
            if (preg_match('/^\D+-(\d+)$/', $class['id'], $m) === 1 && $class['technology'] === 'lcd') {
                self::assertEqualsWithDelta(25.4 * (int) $m[1], hypot(...array_values($class['active_mm'])), 0.2, $class['id']);
            }
        }
        self::assertSame([32, 43, 49, 55, 65, 75, 86, 98], array_map(
            static fn (array $class): int => (int) substr($class['id'], 5),
            array_values(array_filter(SizeClasses::all(), static fn (array $class): bool => str_starts_with($class['id'], 'wide-'))),
        ));
    }
}
