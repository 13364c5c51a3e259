<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\EdidRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Size;

/** What a panel says of itself: E-EDID 1.4 (VESA), base block, and detailed timings and VICs of CTA-861 extensions. */
final readonly class Edid
{
    private const HEADER = "\x00\xFF\xFF\xFF\xFF\xFF\xFF\x00";
    private const BLOCK = 128;
    private const CTA = 0x02;

    /**
     * @param string $manufacturer three letters
     * @param int $product the manufacturer's number of the product
     * @param ?string $name as the panel writes it; null where it does not
     * @param list<Timing> $timings detailed ones, the preferred first
     * @param list<int> $vics codes of CTA-861 video formats, in the panel's order
     * @param ?array{width: float, height: float} $sizeMm of the first detailed timing, else of the base block; null where neither says it
     */
    private function __construct(
        public string $manufacturer,
        public int $product,
        public ?string $name,
        public array $timings,
        public array $vics,
        public ?array $sizeMm,
    ) {
    }

    /** @throws EdidRefused where a block is cut short, is none, or has a wrong checksum */
    public static function fromBytes(string $bytes): self
    {
        if (strlen($bytes) < self::BLOCK || strlen($bytes) % self::BLOCK !== 0) {
            throw self::refused(Reason::EdidLength, sprintf('It has %d bytes; an EDID has 128, and 128 more for each extension.', strlen($bytes)));
        }
        if (!str_starts_with($bytes, self::HEADER)) {
            throw self::refused(Reason::EdidHeader, sprintf('It begins with %s; an EDID begins with %s.', bin2hex(substr($bytes, 0, 8)), bin2hex(self::HEADER)));
        }
        $blocks = str_split($bytes, self::BLOCK);
        if (ord($bytes[126]) !== count($blocks) - 1) {
            throw self::refused(Reason::EdidLength, sprintf('It says that %d extensions follow, and %d do.', ord($bytes[126]), count($blocks) - 1), '/blocks/0');
        }
        foreach ($blocks as $index => $block) {
            self::checkSum($block, $index);
        }
        [$timings, $vics, $sizes] = [[], [], []];
        $name = null;
        foreach (self::descriptors($blocks[0], 54, 126) as $descriptor) {
            if (str_starts_with($descriptor, "\x00\x00\x00\xFC")) {
                $name ??= self::name(substr($descriptor, 5));
            } elseif (self::u16($descriptor, 0) > 0) {
                $timings[] = self::timing($descriptor);
                $sizes[] = self::size($descriptor);
            }
        }
        foreach (array_slice($blocks, 1) as $block) {
            if (ord($block[0]) === self::CTA) {
                [$more, $codes] = self::extension($block);
                array_push($timings, ...$more);
                array_push($vics, ...$codes);
            }
        }

        return new self(
            self::letters($bytes),
            self::u16($bytes, 10),
            $name,
            array_values(array_filter($timings)),
            $vics,
            ($sizes[0] ?? null) ?? self::sizeOfBase($bytes),
        );
    }

    /** Letters of ASCII up to a line feed (E-EDID 1.4, 3.10.3.4); what a panel writes beside them is told as U+FFFD. */
    private static function name(string $bytes): ?string
    {
        $name = (string) preg_replace('/[^\x20-\x7E]/', "\u{FFFD}", trim(explode("\n", $bytes)[0], " \t\r\0"));

        return $name === '' ? null : $name;
    }

    /** The raster that it shows pixel by pixel: that of its first detailed timing; null where it has none. */
    public function native(): ?Size
    {
        return $this->timings === [] ? null : $this->timings[0]->raster;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'manufacturer' => $this->manufacturer,
            'product' => $this->product,
            'name' => $this->name,
            'native' => $this->native()?->toArray(),
            'size_mm' => $this->sizeMm,
            'timings' => array_map(static fn (Timing $timing): array => $timing->raster->toArray() + $timing->toArray(), $this->timings),
            'vics' => $this->vics,
        ];
    }

    /** @return array{list<?Timing>, list<int>} */
    private static function extension(string $block): array
    {
        [$vics, $begin] = [[], ord($block[2])];
        if ($begin === 0) {
            return [[], []];
        }
        for ($at = 4; $at < $begin && $at < self::BLOCK - 1; $at += 1 + $length) {
            [$tag, $length] = [ord($block[$at]) >> 5, ord($block[$at]) & 0x1F];
            foreach ($tag === 2 ? str_split(substr($block, $at + 1, min($length, self::BLOCK - 2 - $at))) : [] as $byte) {
                $vics[] = self::vic(ord($byte));
            }
        }
        $timings = [];
        foreach (self::descriptors($block, $begin, self::BLOCK - 1) as $descriptor) {
            if (self::u16($descriptor, 0) === 0) {
                break;
            }
            $timings[] = self::timing($descriptor);
        }

        return [$timings, array_values(array_filter($vics))];
    }

    /** CTA-861: 129 to 192 are the codes 1 to 64, called native; 0 where the byte says nothing. */
    private static function vic(int $byte): int
    {
        return match (true) {
            $byte > 128 && $byte <= 192 => $byte - 128,
            $byte === 128, $byte > 253 => 0,
            default => $byte,
        };
    }

    /** @return list<string> of 18 bytes each */
    private static function descriptors(string $block, int $begin, int $end): array
    {
        $descriptors = [];
        for ($at = $begin; $at + 18 <= $end; $at += 18) {
            $descriptors[] = substr($block, $at, 18);
        }

        return $descriptors;
    }

    /** E-EDID 1.4, table 3.21; null where it says no picture, or one that no player sends: interlaced, or with borders. */
    private static function timing(string $d): ?Timing
    {
        $with = static fn (int $low, int $high, int $shift, int $mask): int => ord($d[$low]) | ((ord($d[$high]) >> $shift) & $mask) << 8;
        [$width, $hBlank] = [$with(2, 4, 4, 15), $with(3, 4, 0, 15)];
        [$height, $vBlank] = [$with(5, 7, 4, 15), $with(6, 7, 0, 15)];
        [$hFront, $hSync] = [$with(8, 11, 6, 3), $with(9, 11, 4, 3)];
        $vFront = ord($d[10]) >> 4 | (ord($d[11]) >> 2 & 3) << 4;
        $vSync = (ord($d[10]) & 15) | (ord($d[11]) & 3) << 4;
        if ($width === 0 || $height === 0 || (ord($d[17]) & 0x80) !== 0 || ord($d[15]) + ord($d[16]) > 0) {
            return null;
        }

        return Timing::of(Size::px($width, $height), self::u16($d, 0) * 10, $hFront, $hSync, $hBlank - $hFront - $hSync, $vFront, $vSync, $vBlank - $vFront - $vSync);
    }

    /** @return ?array{width: float, height: float} */
    private static function size(string $d): ?array
    {
        [$width, $height] = [ord($d[12]) | (ord($d[14]) >> 4) << 8, ord($d[13]) | (ord($d[14]) & 15) << 8];

        return $width === 0 || $height === 0 ? null : ['width' => (float) $width, 'height' => (float) $height];
    }

    /** @return ?array{width: float, height: float} */
    private static function sizeOfBase(string $bytes): ?array
    {
        [$width, $height] = [ord($bytes[21]), ord($bytes[22])];

        return $width === 0 || $height === 0 ? null : ['width' => 10.0 * $width, 'height' => 10.0 * $height];
    }

    private static function letters(string $bytes): string
    {
        $code = ord($bytes[8]) << 8 | ord($bytes[9]);

        return implode('', array_map(static fn (int $shift): string => chr(64 + ($code >> $shift & 31)), [10, 5, 0]));
    }

    private static function u16(string $bytes, int $at): int
    {
        return ord($bytes[$at]) | ord($bytes[$at + 1]) << 8;
    }

    /** @throws EdidRefused unless all bytes of the block add up to 0 modulo 256 */
    private static function checkSum(string $block, int $index): void
    {
        $found = ord($block[self::BLOCK - 1]);
        $right = -array_sum(array_map(ord(...), str_split(substr($block, 0, self::BLOCK - 1)))) & 0xFF;
        if ($found !== $right) {
            throw self::refused(Reason::EdidChecksum, sprintf('The checksum of block %d is 0x%02x; 0x%02x would be right. The data are damaged.', $index, $found, $right), "/blocks/$index");
        }
    }

    private static function refused(Reason $reason, string $message, string $path = ''): EdidRefused
    {
        return EdidRefused::because($reason, $message, $path);
    }
}
