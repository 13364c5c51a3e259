<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\App\Text\HarfBuzz;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Style\HouseStyle;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Tests\Core\Make;

/**
 * Sizes that a house style states in arc minutes, on random canvases, displays and faces, against the formula of a visual angle (a capital of height h
 * is seen under 2 atan(h / 2d)) worked by a second hand in Node, which reads sCapHeight out of the OS/2 tables (OpenType 1.9) itself.
 */
final class TypeSizeReferenceTest extends TestCase
{
    private const SCRIPT = <<<'JS'
        const cap = (file) => {
          const bytes = readFileSync(file)
          const table = (tag) => {
            for (let i = 0; i < bytes.readUInt16BE(4); i++)
              if (bytes.toString('latin1', 12 + 16 * i, 16 + 16 * i) === tag) return bytes.readUInt32BE(20 + 16 * i)
          }
          return bytes.readInt16BE(table('OS/2') + 88) / bytes.readUInt16BE(table('head') + 18)
        }
        console.log(JSON.stringify(asked.map(({ arcmin, canvas, raster, size_mm, floor_mm, rise_mm, file }) => {
          const eye = Math.hypot(floor_mm, rise_mm)
          const px = Math.sqrt((raster[0] * raster[1]) / (size_mm[0] * size_mm[1]))
          const scale = Math.min(raster[0] / canvas[0], raster[1] / canvas[1])
          const capMm = 2 * eye * Math.tan((arcmin / 60 / 180) * Math.PI / 2)
          return (capMm * px) / scale / cap(file)
        })))
        JS;
    private const FACES = [
        ['Inter', 400, 'inter/400Regular/Inter_400Regular'], ['Barlow Condensed', 700, 'barlow-condensed/700Bold/BarlowCondensed_700Bold'],
        ['Zilla Slab', 600, 'zilla-slab/600SemiBold/ZillaSlab_600SemiBold'],
    ];

    public function testArcMinutesBecomeThePxOfASecondHand(): void
    {
        $random = Make::random(15);
        $faces = HarfBuzz::ofTheHouse(dirname(__DIR__, 2));
        [$questions, $found] = [[], []];
        for ($i = 0; $i < 300; $i++) {
            [$family, $weight, $file] = self::FACES[$i % 3];
            $arcmin = $random->getInt(5, 400) / 10;
            [$width, $height, $eye] = [$random->getInt(300, 4000), $random->getInt(300, 4000), $random->getInt(0, 3000)];
            $canvas = Size::px($random->getInt(100, 4000), $random->getInt(100, 4000));
            $farthest = $random->getInt(2000, 60_000);
            $mmPerPx = $random->getInt(200, 12_000) / 1000;
            $display = Display::fromArray(array_replace_recursive(Make::display($width, $height), [
                'viewing' => ['nearest_mm' => 1000, 'farthest_mm' => $farthest, 'centre_height_mm' => 1600 + $eye, 'eye_height_mm' => 1600],
                'panels' => [['active_mm' => ['width' => $width * $mmPerPx, 'height' => $height * $mmPerPx]]],
            ]));
            $styles = Styles::of(HouseStyle::fromArray(['format' => HouseStyle::FORMAT, 'id' => 's', 'name' => 'S', 'sizes' => ['it' => ['arcmin' => $arcmin]]]));
            $found[] = Styling::on($canvas, (new Surroundings('UTC', $faces, display: $display))->styled($styles))->sizePx('it', $family, $weight, '');
            $questions[] = [
                'arcmin' => $arcmin, 'canvas' => [$canvas->width, $canvas->height], 'raster' => [$width, $height], 'size_mm' => [$width * $mmPerPx, $height * $mmPerPx],
                'floor_mm' => $farthest, 'rise_mm' => $eye, 'file' => "node_modules/@expo-google-fonts/$file.ttf",
            ];
        }
        foreach ((array) InNode::asked(self::SCRIPT, $questions) as $place => $px) {
            self::assertIsNumeric($px);
            self::assertSame((int) ceil(round((float) $px, 6)), $found[$place], (string) json_encode($questions[$place]));
        }
    }
}
