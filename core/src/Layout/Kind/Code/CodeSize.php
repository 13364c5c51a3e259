<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Code;

/**
 * How many modules a QR code has. Source: ISO/IEC 18004 (table 7, number of data codewords, from memory); held against BaconQrCode for every version and level.
 */
final readonly class CodeSize
{
    private const DATA_CODEWORDS = [
        'L' => [19, 34, 55, 80, 108, 136, 156, 194, 232, 274, 324, 370, 428, 461, 523, 589, 647, 721, 795, 861,
            932, 1006, 1094, 1174, 1276, 1370, 1468, 1531, 1631, 1735, 1843, 1955, 2071, 2191, 2306, 2434, 2566, 2702, 2812, 2956],
        'M' => [16, 28, 44, 64, 86, 108, 124, 154, 182, 216, 254, 290, 334, 365, 415, 453, 507, 563, 627, 669,
            714, 782, 860, 914, 1000, 1062, 1128, 1193, 1267, 1373, 1455, 1541, 1631, 1725, 1812, 1914, 1992, 2102, 2216, 2334],
        'Q' => [13, 22, 34, 48, 62, 76, 88, 110, 132, 154, 180, 206, 244, 261, 295, 325, 367, 397, 445, 485,
            512, 568, 614, 664, 718, 754, 808, 871, 911, 985, 1033, 1115, 1171, 1231, 1286, 1354, 1426, 1502, 1582, 1666],
        'H' => [9, 16, 26, 36, 46, 60, 66, 86, 100, 122, 140, 158, 180, 197, 223, 253, 283, 313, 341, 385,
            406, 442, 464, 514, 538, 596, 628, 661, 701, 745, 793, 845, 901, 961, 986, 1054, 1096, 1142, 1222, 1276],
    ];
    /** Bits that say how long the text is, for versions 1 to 9, 10 to 26, 27 to 40. */
    private const COUNT_BITS = ['numeric' => [10, 12, 14], 'alphanumeric' => [9, 11, 13], 'byte' => [8, 16, 16]];
    private const MODE_BITS = 4;
    /** What says that bytes are UTF-8 (an ECI header): only where they are not ASCII. */
    private const ECI_BITS = 12;

    /**
     * The least version that holds a text.
     *
     * @param 'L'|'M'|'Q'|'H' $level of error correction
     * @return ?int 1 to 40; null where it is too long for any
     */
    public static function version(string $text, string $level): ?int
    {
        $length = strlen($text);
        [$mode, $bits] = match (true) {
            preg_match('/^\d+$/D', $text) === 1 => ['numeric', 10 * intdiv($length, 3) + [0, 4, 7][$length % 3]],
            preg_match('~^[0-9A-Z $%*+\-./:]+$~D', $text) === 1 => ['alphanumeric', 11 * intdiv($length, 2) + 6 * ($length % 2)],
            default => ['byte', 8 * $length + (preg_match('/[^\x00-\x7f]/', $text) === 1 ? self::ECI_BITS : 0)],
        };
        foreach (self::DATA_CODEWORDS[$level] as $index => $codewords) {
            $count = self::COUNT_BITS[$mode][$index < 9 ? 0 : ($index < 26 ? 1 : 2)];
            // The library that draws codes leaves a bit free, and has no version 4 at level Q: such a text gets the next one.
            if (($index !== 3 || $level !== 'Q') && self::MODE_BITS + $count + $bits < 8 * $codewords) {
                return $index + 1;
            }
        }

        return null;
    }

    /** @return int modules on each side: 17 + 4 x version, quiet zone left out */
    public static function modules(int $version): int
    {
        return 17 + 4 * $version;
    }
}
