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
        $tables = OpenType::fromBytes($bytes)->tables ?? [];
        [$head, $metrics] = [$tables['head'] ?? '', $tables['OS/2'] ?? ''];
        if (strlen($head) < 20 || strlen($metrics) < 90 || OpenType::u16($metrics, 0) < 2) {
            return null;
        }
        $unitsPerEm = OpenType::u16($head, 18);
        $capHeight = OpenType::u16($metrics, 88);

        return $unitsPerEm === 0 || $capHeight === 0 ? null : new self($capHeight / $unitsPerEm);
    }
}
