<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Display;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Matching;
use UpperPane\Tests\Core\Make;

final class DisplayTest extends TestCase
{
    #[TestWith([0, '1920 x 1080', 941.2])]
    #[TestWith([90, '1080 x 1920', 529.4])]
    #[TestWith([180, '1920 x 1080', 941.2])]
    #[TestWith([270, '1080 x 1920', 529.4])]
    public function testATurnedPanelHasARasterAndMillimetresOfSwappedSides(int $rotation, string $raster, float $widthMm): void
    {
        $display = Display::fromArray(Make::display(1920, 1080, $rotation));

        self::assertSame($raster, (string) $display->raster());
        self::assertSame($widthMm, $display->active()->width);
    }

    public function testACanvasPixelIsAsLargeAsItsScaleMakesItOnTheDisplay(): void
    {
        $display = Display::fromArray(Make::display(1920, 1080, 90));
        $half = Matching::of(Size::px(2160, 3840), $display->raster());

        self::assertEqualsWithDelta(1080 / 529.4, $display->pxPerMm(), 1e-9);
        // Two px of the canvas share one of the display, so each is half as large.
        self::assertEqualsWithDelta(529.4 / 2160, $half->mmPerCanvasPx($display->pxPerMm()), 1e-9);
    }

    public function testTheWholeOfTheFormatIsReadOrRefusedByName(): void
    {
        $whole = Make::display();
        $whole['technology'] = 'lcd';
        $whole['bezels'] = 'hide';
        $whole['refresh_hz'] = 59.94;
        $whole['bits'] = 8;
        $whole['players'] = [['id' => 'a', 'outputs' => [['number' => 1, 'link' => 'hdmi-2.0']], 'films_at_once' => 2,
            'largest_film' => ['width' => 3840, 'height' => 2160, 'fps' => 60], 'codecs' => ['h264'], 'kinds' => ['zone']]];
        self::assertSame('Check-in 1', Display::fromArray($whole)->name);

        $whole['gap_mm'] = ['x' => 1, 'y' => 0];
        $whole['inputs'] = [['id' => 'in1', 'name' => 'Camera', 'raster' => ['width' => 1920, 'height' => 1080]]];
        $whole['sensors'] = [['id' => 's1', 'kind' => 'presence', 'bands_mm' => [500, 1000]]];
        $whole['processor'] = ['player' => 'a', 'output' => 1, 'raster' => ['width' => 1920, 'height' => 1080]];
        $display = Display::fromArray($whole);
        self::assertSame(['Camera', [500.0, 1000.0], 'a'], [$display->inputs[0]->name, $display->sensors[0]->bandsMm, $display->processor?->player]);

        $whole['players'][] = $whole['players'][0];
        $this->expectExceptionMessage('/players/1/id is "a", which /players/0/id has already.');
        Display::fromArray($whole);
    }

    public function testAPanelMayHangFreely(): void
    {
        $free = Make::display();
        unset($free['panels'][0]['column'], $free['panels'][0]['row']);
        $free['panels'][0]['origin_mm'] = ['x' => 12.5, 'y' => 0];
        self::assertSame('1920 x 1080', (string) Display::fromArray($free)->raster());

        unset($free['panels'][0]['origin_mm']);
        $this->expectExceptionMessage('/panels/0/column is missing.');
        Display::fromArray($free);
    }

    public function testASizeHasAtLeastOnePixelEachWay(): void
    {
        $this->expectExceptionMessage('The height is 0 px; 1 to 1000000 px are right.');
        Size::px(1, 0);
    }
}
