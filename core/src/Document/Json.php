<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** JSON texts as they are kept in memory: objects are arrays by their names, and one without fields stays an object, since `{}` is no list. */
final readonly class Json
{
    public const DEEPEST = 64;

    /** @throws \JsonException where the text is no JSON, or nested deeper than it is read */
    public static function decode(string $text): mixed
    {
        $value = json_decode($text, true, self::DEEPEST, JSON_THROW_ON_ERROR);

        // Most documents have no empty object: reading them once is enough.
        return preg_match('/\{\s*\}/', $text) === 1 ? self::kept(json_decode($text, false, self::DEEPEST, JSON_THROW_ON_ERROR)) : $value;
    }

    private static function kept(mixed $value): mixed
    {
        if ($value instanceof \stdClass) {
            $fields = get_object_vars($value);

            return $fields === [] ? $value : array_map(self::kept(...), $fields);
        }

        return is_array($value) ? array_map(self::kept(...), $value) : $value;
    }
}
