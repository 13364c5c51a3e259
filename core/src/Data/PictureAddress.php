<?php

declare(strict_types=1);

namespace UpperPane\Core\Data;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Units\Instant;

/** Which fields of rows most likely mean pictures: those whose values are addresses that end as files of pictures do. Common practice, no source. */
final readonly class PictureAddress
{
    private const PATTERN = '~^(?:https?://|\.{0,2}/|[\w.-]+/)\S*\.(?:png|jpe?g|webp|svg)(?:\?\S*)?$~iD';

    public static function isLikely(mixed $value): bool
    {
        return is_string($value) && strlen($value) <= 2_000 && preg_match(self::PATTERN, $value) === 1;
    }

    /**
     * @param list<string> $names
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows
     * @return list<string> those of the names
     */
    public static function fields(array $names, array $rows): array
    {
        return array_values(array_filter($names, static function (string $name) use ($rows): bool {
            foreach ($rows as $row) {
                if (self::isLikely($row[$name] ?? null)) {
                    return true;
                }
            }

            return false;
        }));
    }
}
