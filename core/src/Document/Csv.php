<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/**
 * A table as RFC 4180 writes it, for other programs; lines end with a line feed.
 *
 * What a program of tables would take for a formula is written as text: with an apostrophe before it (OWASP, CSV injection).
 */
final readonly class Csv
{
    /**
     * @param list<string> $head
     * @param iterable<list<string>> $rows
     */
    public static function text(array $head, iterable $rows): string
    {
        $lines = [self::line($head)];
        foreach ($rows as $row) {
            $lines[] = self::line($row);
        }

        return implode("\n", $lines) . "\n";
    }

    /** @param list<string> $fields */
    private static function line(array $fields): string
    {
        return implode(',', array_map(self::field(...), $fields));
    }

    private static function field(string $field): string
    {
        $harmless = preg_match('/^[=+\-@\t\r]/', $field) === 1 && !is_numeric($field) ? "'$field" : $field;

        return preg_match('/[",\s]/', $harmless) === 1 ? '"' . strtr($harmless, ['"' => '""']) . '"' : $harmless;
    }
}
