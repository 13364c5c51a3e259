<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Handover;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Handover\MeantFor;

final class MeantForTest extends TestCase
{
    /**
     * @param list<string> $expected
     * @param array<string, bool> $displays whether the layout stands there, by raster
     */
    #[DataProvider('works')]
    public function testWhoWorksOnAVariantMeansTheDisplaysThatItIsFor(array $expected, int $worked, array $displays, ?string $seen = null): void
    {
        $size = static fn (string $raster): Size => Size::px(...array_map(intval(...), explode('x', substr($raster, 1))));
        $rows = [];
        foreach ($displays as $id => $stands) {
            $rows[] = ['id' => $id, 'raster' => $size($id), 'stands' => $stands];
        }
        self::assertSame($expected, MeantFor::displays([Size::px(1920, 1080), Size::px(1080, 1920)], $worked, $rows, $seen));
    }

    /** @return iterable<string, list<mixed>> */
    public static function works(): iterable
    {
        $stands = ['a1920x1080' => true, 'b1080x1920' => true, 'c1080x1920' => true, 'd1080x1920' => false];
        yield 'the upright one stands on two' => [['b1080x1920', 'c1080x1920'], 1, $stands];
        yield 'the wide one on another' => [['a1920x1080'], 0, $stands];
        yield 'the upright one stands nowhere yet: where it is looked at' => [['d1080x1920'], 1, ['a1920x1080' => true, 'c1080x1920' => false, 'd1080x1920' => false], 'd1080x1920'];
        yield 'it is looked at on a wide one: the first that it fits' => [['c1080x1920'], 1, ['a1920x1080' => true, 'c1080x1920' => false, 'd1080x1920' => false], 'a1920x1080'];
        yield 'nothing stands upright' => [[], 1, ['a1920x1080' => true]];
        yield 'a smaller raster of the same shape' => [['b540x960'], 1, ['b540x960' => true]];
    }
}
