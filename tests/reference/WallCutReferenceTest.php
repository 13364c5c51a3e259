<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\PlacedPanel;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Tests\Core\Make;

/** Walls cut with ImageMagick (Debian's package, `convert` and `compare -metric AE`) and put together again: not one pixel may differ. */
final class WallCutReferenceTest extends TestCase
{
    /**
     * @param array<string, mixed> $document
     */
    #[DataProvider('walls')]
    public function testPanelsAndWhatIsHiddenPutTogetherAreThePicture(array $document): void
    {
        $wall = Display::fromArray($document)->wall;
        $folder = sys_get_temp_dir() . '/upper-pane-wall-' . getmypid();
        self::assertTrue(mkdir($folder));
        $size = "{$wall->canvas->width}x{$wall->canvas->height}";
        $this->ran("convert -size $size -seed 7 plasma:teal-orange PNG24:$folder/whole.png");
        $parts = [...array_map(static fn (PlacedPanel $panel): Rect => $panel->source, $wall->panels), ...$wall->strips, ...$wall->voids];
        $together = "convert -size $size xc:black";
        foreach ($parts as $index => $part) {
            $this->ran("convert $folder/whole.png -crop {$part->width}x{$part->height}+{$part->x}+{$part->y} +repage PNG24:$folder/$index.png");
            $together .= " $folder/$index.png -geometry +{$part->x}+{$part->y} -composite";
        }
        $this->ran("$together PNG24:$folder/together.png");
        self::assertSame('0', $this->ran("compare -metric AE $folder/whole.png $folder/together.png null:"));
        self::assertGreaterThan(0, (int) $this->ran("compare -metric AE $folder/whole.png -size $size xc:black null:"), 'the picture is not black itself');
        array_map(unlink(...), glob("$folder/*") ?: []);
        rmdir($folder);
    }

    /** @return iterable<string, array{array<string, mixed>}> */
    public static function walls(): iterable
    {
        yield 'bezels hidden' => [Make::wall(3, 2, 0, 192, 108)];
        yield 'butted' => [Make::wall(2, 2, 0, 192, 108, bezels: 'butt')];
        yield 'turned' => [Make::wall(4, 1, 90, 192, 108, gap_mm: ['x' => 3.3, 'y' => 0])];
        $hole = Make::wall(3, 3, 0, 96, 54);
        array_splice($hole['panels'], 4, 1);
        yield 'a hole' => [$hole];
        yield 'free' => [Make::freeWall([
            'one' => ['native' => ['width' => 192, 'height' => 108], 'active_mm' => ['width' => 121, 'height' => 68]],
            'two' => ['native' => ['width' => 192, 'height' => 108], 'active_mm' => ['width' => 95, 'height' => 53.4], 'origin_mm' => ['x' => 140, 'y' => -33.3], 'rotation' => 90],
            'three' => ['native' => ['width' => 128, 'height' => 72], 'active_mm' => ['width' => 121, 'height' => 68], 'origin_mm' => ['x' => 5, 'y' => 90]],
        ])];
    }

    private function ran(string $command): string
    {
        exec("/usr/bin/$command 2>&1", $lines, $code);
        self::assertLessThan(2, $code, implode("\n", $lines));

        return implode("\n", $lines);
    }
}
