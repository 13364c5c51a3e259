<?php

declare(strict_types=1);

namespace UpperPane\Core\Text;

/** Texts compared by their letters alone: neither case nor accents count (primary strength of the root collation, UTS 10). */
final class PrimaryText
{
    private static ?\Collator $collator = null;

    /** @var array<string, string> by character */
    private static array $keys = [];

    public static function begins(string $text, string $with): bool
    {
        // A longer piece than what is sought: signs that count for nothing may stand in between.
        return str_starts_with(self::key(mb_substr($text, 0, self::piece($with))), self::key($with));
    }

    public static function contains(string $text, string $part): bool
    {
        $key = self::key($part);
        if ($key === '') {
            return true;
        }
        $characters = mb_str_split($text);
        $piece = self::piece($part);
        foreach ($characters as $at => $character) {
            $own = self::$keys[$character] ??= self::key($character);
            // A letter of ASCII never becomes another by what follows: most places are passed over.
            if ($own === '' || (strlen($character) === 1 && !str_starts_with($key, $own))) {
                continue;
            }
            if (str_starts_with(self::key(implode('', array_slice($characters, $at, $piece))), $key)) {
                return true;
            }
        }

        return false;
    }

    private static function piece(string $part): int
    {
        return 3 * mb_strlen($part) + 16;
    }

    private static function key(string $text): string
    {
        if (self::$collator === null) {
            self::$collator = new \Collator('root');
            self::$collator->setStrength(\Collator::PRIMARY);
        }
        if (count(self::$keys) > 10_000) {
            self::$keys = [];
        }

        return rtrim((string) self::$collator->getSortKey($text), "\0\1");
    }
}
