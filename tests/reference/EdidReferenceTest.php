<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Blanking;
use UpperPane\Core\Display\CustomEdid;
use UpperPane\Core\Display\Edid;
use UpperPane\Core\Display\Millimetres;
use UpperPane\Core\Display\Timing;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Size;
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

    /** 125 EDIDs of real panels, from the sources of edid-decode (MIT-style licence), as bin/test fetches them from Debian. */
    public function testRealEdidsAreReadAsEdidDecodeReadsThem(): void
    {
        $files = glob(__DIR__ . '/../../var/edids/*') ?: [];
        self::assertGreaterThanOrEqual(120, count($files), 'bin/test fetches them');
        $read = 0;
        foreach ($files as $file) {
            $bytes = (string) file_get_contents($file);
            try {
                $this->compare($bytes, basename($file));
                $read++;
            } catch (Refused $e) {
                self::assertContains($e->reason->value, ['edid.checksum', 'edid.length'], basename($file) . ': ' . $e->getMessage());
            }
        }
        self::assertGreaterThanOrEqual(100, $read);
    }

    public function testEdidDecodePassesWhatIsWritten(): void
    {
        $random = Make::random(22);
        for ($i = 0; $i < 40; $i++) {
            $raster = Size::px($random->getInt(600, 4095), $random->getInt(400, 2160));
            $mm = Millimetres::of($random->getInt(100, 2500), $random->getInt(60, 1500));
            $timing = Timing::cvt($raster, $random->getInt(24, 60), Blanking::Reduced);
            $bytes = CustomEdid::bytes($timing, $mm, "Strip $i", 2026, [6, 8, 10, 12][$i % 4]);

            self::assertStringContainsString('EDID conformity: PASS', self::said($bytes, '--check'), "$raster on $mm->width x $mm->height mm");
            $this->compare($bytes);
            self::assertEquals($timing->raster, Edid::fromBytes($bytes)->native());
            self::assertSame($mm->toArray(), Edid::fromBytes($bytes)->sizeMm);
        }
    }

    private function compare(string $bytes, string $what = ''): void
    {
        $edid = Edid::fromBytes($bytes);
        $said = self::said($bytes);

        self::assertSame([$edid->manufacturer, (string) $edid->product, trim($edid->name ?? 'nothing')], [
            self::found('/Manufacturer: (\S+)/', $said),
            self::found('/Model: (\d+)/', $said),
            trim(self::found("/Display Product Name: '([^']*)'/", $said)),
        ], $what);
        preg_match_all(
            '/^ +DTD +\d+: +(\d+)x(\d+) +([\d.]+) Hz.*?([\d.]+) MHz(?: \((\d+) mm x (\d+) mm.*?\))?.*?Hfront +(-?\d+) Hsync +(-?\d+) Hback +(-?\d+).*?Vfront +(-?\d+) Vsync +(-?\d+) Vback +(-?\d+)/ms',
            $said,
            $all,
            PREG_SET_ORDER,
        );
        // What no player sends is left out: interlaced pictures and those with borders.
        $all = array_values(array_filter($all, static fn (array $m): bool => preg_match('/border/', self::lines($said, $m[0])) === 0));
        self::assertSame(
            array_map(static fn (array $m): array => [(int) $m[1], (int) $m[2], (int) round((float) $m[4] * 1000), ...array_map(intval(...), array_slice($m, 7))], $all),
            array_map(
                static fn (Timing $t): array => [$t->raster->width, $t->raster->height, $t->clockKhz, $t->hFront, $t->hSync, $t->hBack, $t->vFront, $t->vSync, $t->vBack],
                $edid->timings,
            ),
            "$what\n$said",
        );
        if ($all !== [] && (int) $all[0][5] > 0 && !str_contains((string) strstr($said, 'DTD 1:'), 'i   ')) {
            self::assertSame(['width' => (float) $all[0][5], 'height' => (float) $all[0][6]], $edid->sizeMm, $what);
        }
        preg_match_all('/^  Video Data Block:\n((?: {4,}.*\n)+)/m', $said, $blocks);
        preg_match_all('/^ +(?:Unknown \(|)VIC +(\d+)/m', implode('', $blocks[1]), $vics);
        self::assertSame(array_map(intval(...), $vics[1]), $edid->vics, $what);
    }

    /** The whole of the three lines of a timing. */
    private static function lines(string $said, string $timing): string
    {
        return substr($said, (int) strpos($said, $timing), (int) strpos($said . "\n", "\n", strpos($said, $timing) + strlen($timing)) - (int) strpos($said, $timing));
    }

    private static function said(string $bytes, string $option = ''): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'edid');
        file_put_contents($file, $bytes);
        $said = (string) shell_exec("edid-decode $option " . escapeshellarg($file) . ' 2>/dev/null');
        unlink($file);

        return $said;
    }

    private static function found(string $pattern, string $text): string
    {
        return preg_match($pattern, $text, $m) === 1 ? $m[1] : 'nothing';
    }
}
