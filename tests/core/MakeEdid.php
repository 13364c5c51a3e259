<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core;

/** Bytes of an EDID, written field by field as E-EDID 1.4 has them. */
final class MakeEdid
{
    /**
     * @param list<string> $descriptors of 18 bytes, at most four
     * @param list<string> $extensions of 127 bytes, without their checksums
     */
    public static function of(array $descriptors, array $extensions = [], string $letters = 'UPX', int $product = 0x1234, int $widthCm = 94, int $heightCm = 53): string
    {
        $code = 0;
        foreach (str_split($letters) as $letter) {
            $code = $code << 5 | ord($letter) - 64;
        }
        $base = "\x00\xFF\xFF\xFF\xFF\xFF\xFF\x00" . pack('nvVCCCC', $code, $product, 0, 1, 36, 1, 4)
            . pack('CCCCC', 0xA5, $widthCm, $heightCm, 120, 0x06)
            . hex2bin('ee91a3544c99260f5054') . "\x00\x00\x00" . str_repeat("\x01\x01", 8);
        while (count($descriptors) < 4) {
            $descriptors[] = "\x00\x00\x00\x10" . str_repeat("\x00", 14);
        }
        $base .= implode('', $descriptors) . chr(count($extensions));

        return implode('', array_map(self::summed(...), [$base, ...$extensions]));
    }

    /** A detailed timing; all figures in px and lines, $mm as it stands unturned. */
    public static function timing(
        int $clockKhz,
        int $width,
        int $hFront,
        int $hSync,
        int $hBack,
        int $height,
        int $vFront,
        int $vSync,
        int $vBack,
        int $mmWidth = 941,
        int $mmHeight = 529,
        int $flags = 0x1E,
    ): string {
        [$hBlank, $vBlank] = [$hFront + $hSync + $hBack, $vFront + $vSync + $vBack];

        return pack('v', intdiv($clockKhz, 10)) . pack(
            'C16',
            $width & 255,
            $hBlank & 255,
            ($width >> 8) << 4 | $hBlank >> 8,
            $height & 255,
            $vBlank & 255,
            ($height >> 8) << 4 | $vBlank >> 8,
            $hFront & 255,
            $hSync & 255,
            ($vFront & 15) << 4 | ($vSync & 15),
            ($hFront >> 8) << 6 | ($hSync >> 8) << 4 | ($vFront >> 4) << 2 | $vSync >> 4,
            $mmWidth & 255,
            $mmHeight & 255,
            ($mmWidth >> 8) << 4 | $mmHeight >> 8,
            0,
            0,
            $flags,
        );
    }

    public static function fullHd(): string
    {
        return self::timing(148_500, 1920, 88, 44, 148, 1080, 4, 5, 36);
    }

    public static function name(string $name): string
    {
        return "\x00\x00\x00\xFC\x00" . str_pad(strlen($name) < 13 ? "$name\n" : $name, 13);
    }

    /**
     * A CTA-861 extension.
     *
     * @param list<int> $video bytes of its video data block
     * @param list<string> $timings of 18 bytes
     */
    public static function cta(array $video, array $timings = []): string
    {
        $blocks = $video === [] ? '' : chr(2 << 5 | count($video)) . pack('C*', ...$video);

        return str_pad(pack('CCCC', 2, 3, 4 + strlen($blocks), 0) . $blocks . implode('', $timings), 127, "\x00");
    }

    private static function summed(string $block): string
    {
        return $block . chr(-array_sum(array_map(ord(...), str_split($block))) & 0xFF);
    }
}
