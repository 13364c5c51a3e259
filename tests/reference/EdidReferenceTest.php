<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Edid;
use UpperPane\Core\Display\Timing;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\MakeEdid;

/** EDIDs read against `edid-decode` (Debian's package) on the same bytes. */
final class EdidReferenceTest extends TestCase
{
    public function testEdidDecodeReadsTheSameFromTheSameBytes(): void
    {
        $random = Make::random(21);
        for ($i = 0; $i < 60; $i++) {
            $timings = [];
            for ($n = 0; $n < 3; $n++) {
                $timings[] = MakeEdid::timing(
                    $random->getInt(1000, 65_000) * 10,
                    $random->getInt(64, 4095),
                    $random->getInt(1, 1000),
                    $random->getInt(1, 1000),
                    $random->getInt(1, 1000),
                    $random->getInt(64, 4095),
                    $random->getInt(1, 63),
                    $random->getInt(1, 63),
                    $random->getInt(1, 900),
                    $random->getInt(100, 4000),
                    $random->getInt(100, 4000),
                );
            }
            $video = array_map(static fn (): int => $random->getInt(1, 107), range(1, $random->getInt(1, 20)));
            $bytes = MakeEdid::of([$timings[0], MakeEdid::name("Panel $i"), $timings[1]], [MakeEdid::cta($video, [$timings[2]])], 'SQK', $random->getInt(0, 0xFFFF));
            $this->compare($bytes);
        }
    }

    private function compare(string $bytes): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'edid');
        file_put_contents($file, $bytes);
        $said = (string) shell_exec('edid-decode ' . escapeshellarg($file) . ' 2>/dev/null');
        unlink($file);
        $edid = Edid::fromBytes($bytes);

        self::assertSame([$edid->manufacturer, (string) $edid->product, $edid->name], [
            self::found('/Manufacturer: (\w+)/', $said),
            self::found('/Model: (\d+)/', $said),
            self::found("/Display Product Name: '([^']*)'/", $said),
        ]);
        $count = preg_match_all(
            '/DTD \d+:\s+(\d+)x(\d+)\s+([\d.]+) Hz.*?([\d.]+) MHz \((\d+) mm x (\d+) mm\).*?Hfront\s+(\d+) Hsync\s+(\d+) Hback\s+(\d+).*?Vfront\s+(\d+) Vsync\s+(\d+) Vback\s+(\d+)/s',
            $said,
            $all,
            PREG_SET_ORDER,
        );
        self::assertSame(3, $count, $said);
        self::assertSame(
            array_map(static fn (array $m): array => [(int) $m[1], (int) $m[2], (int) round((float) $m[4] * 1000), ...array_map(intval(...), array_slice($m, 7))], $all),
            array_map(
                static fn (Timing $t): array => [$t->raster->width, $t->raster->height, $t->clockKhz, $t->hFront, $t->hSync, $t->hBack, $t->vFront, $t->vSync, $t->vBack],
                $edid->timings,
            ),
        );
        self::assertSame(['width' => (float) $all[0][5], 'height' => (float) $all[0][6]], $edid->sizeMm);
        preg_match_all('/VIC\s+(\d+):/', $said, $vics);
        self::assertSame(array_map(intval(...), $vics[1]), $edid->vics);
    }

    private static function found(string $pattern, string $text): string
    {
        return preg_match($pattern, $text, $m) === 1 ? $m[1] : 'nothing';
    }
}
