<?php

declare(strict_types=1);

namespace UpperPane\Core\Text;

/** What the file of a type face says of its letters: OpenType 1.9, tables `head` and `OS/2`. */
final readonly class FaceFile
{
    /** @param float $capShare height of a capital over the size of the type */
    private function __construct(public float $capShare)
    {
    }

    /** Null where the bytes are no TrueType or OpenType face, or where it does not say how high its capitals are. */
    public static function fromBytes(string $bytes): ?self
    {
        $head = self::table($bytes, 'head');
        $metrics = self::table($bytes, 'OS/2');
        if ($head === null || $metrics === null || strlen($head) < 20 || strlen($metrics) < 90 || self::u16($metrics, 0) < 2) {
            return null;
        }
        $unitsPerEm = self::u16($head, 18);
        $capHeight = self::u16($metrics, 88);

        return $unitsPerEm === 0 || $capHeight === 0 ? null : new self($capHeight / $unitsPerEm);
    }

    private static function table(string $bytes, string $tag): ?string
    {
        if (strlen($bytes) < 12 || !in_array(substr($bytes, 0, 4), ["\x00\x01\x00\x00", 'OTTO'], true)) {
            return null;
        }
        for ($i = 0, $count = self::u16($bytes, 4); $i < $count && strlen($bytes) >= 28 + 16 * $i; $i++) {
            $record = substr($bytes, 12 + 16 * $i, 16);
            if (str_starts_with($record, $tag)) {
                return substr($bytes, self::u16($record, 8) << 16 | self::u16($record, 10), self::u16($record, 12) << 16 | self::u16($record, 14));
            }
        }

        return null;
    }

    private static function u16(string $bytes, int $at): int
    {
        return ord($bytes[$at]) << 8 | ord($bytes[$at + 1]);
    }
}
