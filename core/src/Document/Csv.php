<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** A table as RFC 4180 writes it, for other programs; lines end with a line feed. */
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
        return implode(',', array_map(
            static fn (string $field): string => preg_match('/[",\s]/', $field) === 1 ? '"' . strtr($field, ['"' => '""']) . '"' : $field,
            $fields,
        ));
    }
}
