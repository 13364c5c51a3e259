<?php

declare(strict_types=1);

namespace UpperPane\Core\Text;

/** The tables of a TrueType or OpenType file. Source: OpenType 1.9, "Organization of an OpenType font". */
final readonly class OpenType
{
    /** @param array<string, string> $tables bytes by tag */
    private function __construct(public array $tables)
    {
    }

    /** Null where the bytes are no such file. Tables that reach beyond its end are left out. */
    public static function fromBytes(string $bytes): ?self
    {
        if (strlen($bytes) < 12 || !in_array(substr($bytes, 0, 4), ["\x00\x01\x00\x00", 'OTTO', 'true'], true)) {
            return null;
        }
        $tables = [];
        for ($i = 0, $count = self::u16($bytes, 4); $i < $count && strlen($bytes) >= 28 + 16 * $i; $i++) {
            $record = substr($bytes, 12 + 16 * $i, 16);
            [$from, $length] = [self::u32($record, 8), self::u32($record, 12)];
            if ($from + $length <= strlen($bytes)) {
                $tables[substr($record, 0, 4)] = substr($bytes, $from, $length);
            }
        }

        return new self($tables);
    }

    /** A number of 16 bit; 0 beyond the end. */
    public static function u16(string $bytes, int $at): int
    {
        return ord($bytes[$at] ?? "\0") << 8 | ord($bytes[$at + 1] ?? "\0");
    }

    private static function u32(string $bytes, int $at): int
    {
        return self::u16($bytes, $at) << 16 | self::u16($bytes, $at + 2);
    }
}
