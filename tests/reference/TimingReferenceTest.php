<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Blanking;
use UpperPane\Core\Display\StandardTimings;
use UpperPane\Core\Display\Timing;
use UpperPane\Core\Geometry\Size;
use UpperPane\Tests\Core\Make;

/** Timings against `edid-decode --cvt` (Debian's package), every field. */
final class TimingReferenceTest extends TestCase
{
    private const RASTERS = [
        [640, 480], [800, 600], [853, 480], [1024, 768], [1080, 1920], [1200, 1920], [1280, 720], [1280, 768], [1280, 1024], [1360, 768], [1366, 768], [1440, 900],
        [1600, 1200], [1680, 1050], [1920, 540], [1920, 1080], [1920, 1200], [2160, 3840], [2560, 1080], [2560, 1440], [3440, 1440], [3840, 1080], [3840, 2160], [5120, 1440],
    ];

    public function testEveryFieldIsAsEdidDecodeCalculatesIt(): void
    {
        $cases = [];
        foreach (self::RASTERS as [$width, $height]) {
            foreach ([24, 30, 50, 59.94, 60, 75, 120] as $hz) {
                $cases[] = [$width, $height, $hz];
            }
        }
        $random = Make::random(11);
        for ($i = 0; $i < 60; $i++) {
            $cases[] = [$random->getInt(100, 8000), $random->getInt(100, 4400), $random->getInt(20, 150)];
        }
        foreach ($cases as [$width, $height, $hz]) {
            foreach (Blanking::cases() as $reduced => $blanking) {
                $said = (string) shell_exec("edid-decode --cvt w=$width,h=$height,fps=$hz,rb=$reduced");
                self::assertSame(1, preg_match('/([\d.]+) Hz.* ([\d.]+) MHz.*Hfront\s+(-?\d+) Hsync\s+(\d+) Hback\s+(\d+).*Vfront\s+(\d+) Vsync\s+(\d+) Vback\s+(\d+)/s', $said, $m), $said);
                $timing = Timing::cvt(Size::px($width, $height), $hz, $blanking)->toArray();

                self::assertSame([
                    'pixel_clock_khz' => (int) round((float) $m[2] * 1000),
                    'h_front' => (int) $m[3], 'h_sync' => (int) $m[4], 'h_back' => (int) $m[5],
                    'v_front' => (int) $m[6], 'v_sync' => (int) $m[7], 'v_back' => (int) $m[8],
                ], array_diff_key($timing, ['h_total' => 1, 'v_total' => 1, 'refresh_hz' => 1]), "$width x $height at $hz Hz, $blanking->value");
                self::assertSame($m[1], sprintf('%.6f', $timing['refresh_hz']));
            }
        }
    }

    /** Every code that edid-decode lists: the progressive ones field by field, the interlaced ones as unknown. */
    public function testVicsAndDmtsAreThoseThatEdidDecodeLists(): void
    {
        foreach (['vic' => StandardTimings::vic(...), 'dmt' => StandardTimings::dmt(...)] as $table => $timing) {
            preg_match_all($table === 'vic' ? '/^VIC +(\d+):/m' : '/^DMT (0x[0-9a-f]+):/m', (string) shell_exec("edid-decode --list-{$table}s"), $codes);
            self::assertGreaterThan(80, count($codes[1]));
            foreach ($codes[1] as $code) {
                $said = (string) shell_exec("edid-decode --$table $code");
                $found = $timing(intval($code, 0));
                if (preg_match('/\d+x\d+i/', $said) === 1) {
                    self::assertNull($found, $said);
                    continue;
                }
                self::assertSame(1, preg_match('/(\d+)x(\d+) .* ([\d.]+) MHz.*Hfront\s+(-?\d+) Hsync\s+(\d+) Hback\s+(\d+).*Vfront\s+(\d+) Vsync\s+(\d+) Vback\s+(\d+)/s', $said, $m), $said);
                self::assertNotNull($found, $said);
                self::assertSame(
                    [(int) $m[1], (int) $m[2], (int) round((float) $m[3] * 1000), ...array_map(intval(...), array_slice($m, 4))],
                    [$found->raster->width, $found->raster->height, $found->clockKhz, $found->hFront, $found->hSync, $found->hBack, $found->vFront, $found->vSync, $found->vBack],
                );
            }
            self::assertNull($timing(0));
        }
    }
}
