<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\EdidRefused;
use UpperPane\Core\Document\Reason;

/**
 * An EDID of our own for a panel whose own one is missing or wrong, such as a stretched bar: base block of E-EDID 1.4 with one detailed timing.
 *
 * Its colours are those of sRGB (IEC 61966-2-1), its manufacturer is UPX, which stands for no maker.
 */
final readonly class CustomEdid
{
    private const MOST_SIDE = 4095;
    /** Below it edid-decode takes the bytes for something else. */
    private const LEAST_CLOCK_KHZ = 10_000;
    private const MOST_CLOCK_KHZ = 655_350;

    /**
     * @param Timing $timing of the panel unturned
     * @param Millimetres $size active area of the panel unturned
     * @param string $name as a player lists it: at most 13 characters of ASCII
     * @param int $year of making, 1990 to 2245
     * @param int $bits for each colour
     * @return string of 128 bytes
     * @throws EdidRefused where the timing or the size is beyond what a detailed timing can say
     */
    public static function bytes(Timing $timing, Millimetres $size, string $name, int $year, int $bits = 8): string
    {
        $raster = $timing->raster;
        if (max($raster->width, $raster->height) > self::MOST_SIDE || $timing->clockKhz > self::MOST_CLOCK_KHZ || $timing->clockKhz < self::LEAST_CLOCK_KHZ) {
            throw EdidRefused::because(Reason::EdidRange, sprintf(
                'A detailed timing says at most %d px each way and %s to %s MHz; %s px at %s MHz are asked.',
                self::MOST_SIDE,
                self::LEAST_CLOCK_KHZ / 1000,
                self::MOST_CLOCK_KHZ / 1000,
                $raster,
                $timing->clockKhz / 1000,
            ), '/panels');
        }
        if (max($size->width, $size->height) > self::MOST_SIDE) {
            throw EdidRefused::because(Reason::EdidRange, sprintf('A detailed timing says at most %d mm each way; %s x %s mm are asked.', self::MOST_SIDE, $size->width, $size->height), '/panels');
        }
        if (preg_match('/^[\x20-\x7E]{1,13}$/D', $name) !== 1) {
            throw EdidRefused::because(Reason::EdidRange, sprintf('A name in an EDID has 1 to 13 characters of ASCII; "%s" is given.', $name), '/name');
        }
        $cm = static fn (float $mm): int => min(255, max(1, (int) round($mm / 10)));
        $depth = [6 => 1, 8 => 2, 10 => 3, 12 => 4, 14 => 5, 16 => 6][$bits] ?? 0;
        $base = "\x00\xFF\xFF\xFF\xFF\xFF\xFF\x00"
            . pack('nvVCCCC', self::letters('UPX'), 1, 0, 0, max(0, min(255, $year - 1990)), 1, 4)
            // Digital, of this depth, its interface not said; size in cm; gamma 2.2; RGB 4:4:4, sRGB, the first timing is the native one.
            . pack('CCCCC', 0x80 | $depth << 4, $cm($size->width), $cm($size->height), 120, 0x06)
            . (string) hex2bin('ee91a3544c99260f5054')
            . "\x00\x00\x00" . str_repeat("\x01\x01", 8)
            . self::timing($timing, (int) round($size->width), (int) round($size->height))
            . "\x00\x00\x00\xFC\x00" . str_pad(strlen($name) < 13 ? "$name\n" : $name, 13)
            . str_repeat("\x00\x00\x00\x10" . str_repeat("\x00", 14), 2)
            . "\x00";

        return $base . chr(-array_sum(array_map(ord(...), str_split($base))) & 0xFF);
    }

    /** E-EDID 1.4, table 3.21: separate syncs, both positive as HDMI sinks take them. */
    private static function timing(Timing $timing, int $widthMm, int $heightMm): string
    {
        [$width, $height] = [$timing->raster->width, $timing->raster->height];
        [$hBlank, $vBlank] = [$timing->hTotal() - $width, $timing->vTotal() - $height];

        return pack('v', (int) round($timing->clockKhz / 10)) . pack(
            'C16',
            $width & 255,
            $hBlank & 255,
            ($width >> 8) << 4 | $hBlank >> 8,
            $height & 255,
            $vBlank & 255,
            ($height >> 8) << 4 | $vBlank >> 8,
            $timing->hFront & 255,
            $timing->hSync & 255,
            ($timing->vFront & 15) << 4 | ($timing->vSync & 15),
            ($timing->hFront >> 8) << 6 | ($timing->hSync >> 8) << 4 | ($timing->vFront >> 4) << 2 | $timing->vSync >> 4,
            $widthMm & 255,
            $heightMm & 255,
            ($widthMm >> 8) << 4 | $heightMm >> 8,
            0,
            0,
            0x1E,
        );
    }

    private static function letters(string $letters): int
    {
        $code = 0;
        foreach (str_split($letters) as $letter) {
            $code = $code << 5 | ord($letter) - 64;
        }

        return $code;
    }
}
