<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Reason;

/** Comma-separated values (RFC 4180) with any of four delimiters: a list of objects whose values are texts. */
final readonly class CsvTree implements TreeReader
{
    /** By so many records the delimiter is found. */
    private const LOOKED_AT = 20;

    /** What Windows-1252 has in place of the controls of Latin-1; the five bytes that it leaves undefined become U+FFFD. */
    private const WINDOWS_1252 = [
        "\x80" => '€', "\x81" => "\u{FFFD}", "\x82" => '‚', "\x83" => 'ƒ', "\x84" => '„', "\x85" => '…', "\x86" => '†', "\x87" => '‡',
        "\x88" => 'ˆ', "\x89" => '‰', "\x8A" => 'Š', "\x8B" => '‹', "\x8C" => 'Œ', "\x8D" => "\u{FFFD}", "\x8E" => 'Ž', "\x8F" => "\u{FFFD}",
        "\x90" => "\u{FFFD}", "\x91" => '‘', "\x92" => '’', "\x93" => '“', "\x94" => '”', "\x95" => '•', "\x96" => '–', "\x97" => '—',
        "\x98" => '˜', "\x99" => '™', "\x9A" => 'š', "\x9B" => '›', "\x9C" => 'œ', "\x9D" => "\u{FFFD}", "\x9E" => 'ž', "\x9F" => 'Ÿ',
    ];

    public static function read(string $bytes, ReadOptions $options): mixed
    {
        $text = self::decoded($bytes);
        $delimiter = $options->delimiter ?? self::delimiterOf($text);
        $names = null;
        $rows = [];
        foreach (self::records($text, $delimiter) as $record) {
            if ($names === null) {
                $names = $options->hasHeader ? self::named($record) : [];
                if ($options->hasHeader) {
                    continue;
                }
            }
            $rows[] = self::row($names, $record);
            if (count($rows) > Trees::MOST_ROWS) {
                Trees::holdRows(count($rows), 'records');
            }
        }

        return $rows;
    }

    /**
     * The names of columns by what stands in their first row: one that is in use gets the first free of ` 2`, ` 3`, an empty one is `column N`.
     *
     * @param list<?string> $header
     * @return list<string>
     */
    public static function named(array $header): array
    {
        $used = [];
        $next = [];
        foreach ($header as $place => $written) {
            $base = $written === null || $written === '' ? 'column ' . ($place + 1) : $written;
            $name = $base;
            while (isset($used["_$name"])) {
                $next["_$base"] = ($next["_$base"] ?? 1) + 1;
                $name = "$base {$next["_$base"]}";
            }
            $used["_$name"] = $name;
        }

        return array_values($used);
    }

    /**
     * One record as an object: what is missing is null, what goes beyond the names goes on as `column N`.
     *
     * @param list<string> $names
     * @param list<mixed> $record
     */
    public static function row(array $names, array $record): \stdClass
    {
        $row = new \stdClass();
        foreach ($names as $place => $name) {
            $row->{$name} = $record[$place] ?? null;
        }
        if (count($record) > count($names)) {
            $longer = self::named([...$names, ...array_fill(0, count($record) - count($names), '')]);
            for ($place = count($names); $place < count($record); $place++) {
                $row->{$longer[$place]} = $record[$place];
            }
        }

        return $row;
    }

    private static function decoded(string $bytes): string
    {
        return mb_check_encoding($bytes, 'UTF-8') ? $bytes : (string) preg_replace_callback(
            '/[\x80-\xFF]+/',
            static fn (array $m): string => implode('', array_map(
                static fn (string $byte): string => self::WINDOWS_1252[$byte] ?? mb_convert_encoding($byte, 'UTF-8', 'ISO-8859-1'),
                str_split($m[0]),
            )),
            $bytes,
        );
    }

    /** The delimiter under which the most of the first records have one and the same number of fields. */
    private static function delimiterOf(string $text): string
    {
        $best = [0, 0, ','];
        foreach (ReadOptions::DELIMITERS as $delimiter) {
            $widths = [];
            try {
                foreach (self::records($text, $delimiter) as $record) {
                    $widths[] = count($record);
                    if (count($widths) === self::LOOKED_AT) {
                        break;
                    }
                }
            } catch (DataRefused) {
                // What was read until there tells: under another delimiter quotes stand where they may not.
            }
            $counts = array_count_values(array_filter($widths, static fn (int $width): bool => $width > 1));
            foreach ($counts as $width => $count) {
                if (2 * $count > count($widths) && [$count, $width] > [$best[0], $best[1]]) {
                    $best = [$count, $width, $delimiter];
                }
            }
        }

        return $best[2];
    }

    /**
     * @return \Generator<list<string>>
     * @throws DataRefused
     */
    private static function records(string $text, string $delimiter): \Generator
    {
        $end = strlen($text);
        $ends = "$delimiter\r\n";
        $record = [];
        for ($at = 0; $at < $end;) {
            $isQuoted = $text[$at] === '"';
            if ($isQuoted) {
                [$field, $at] = self::quoted($text, $at, $delimiter);
            } else {
                $length = strcspn($text, $ends, $at);
                $field = substr($text, $at, $length);
                $at += $length;
            }
            $sign = $text[$at] ?? '';
            if ($sign === $delimiter) {
                $record[] = $field;
                $at++;
                if ($at < $end) {
                    continue;
                }
                $field = '';
            }
            // An empty line is no record.
            if ($record !== [] || $field !== '' || $isQuoted) {
                $record[] = $field;

                yield $record;

                $record = [];
            }
            $at += $sign === "\r" && ($text[$at + 1] ?? '') === "\n" ? 2 : 1;
        }
    }

    /**
     * @return array{string, int} the field, and where it ends
     * @throws DataRefused
     */
    private static function quoted(string $text, int $begin, string $delimiter): array
    {
        $field = '';
        for ($at = $begin + 1; true; $at += 2) {
            $close = strpos($text, '"', $at);
            if ($close === false) {
                throw DataRefused::inText(Reason::DataSyntax, 'a quoted field begins here and is never closed.', $text, $begin);
            }
            $field .= substr($text, $at, $close - $at);
            if (($text[$close + 1] ?? '') !== '"') {
                break;
            }
            $field .= '"';
            $at = $close;
        }
        if ($close + 1 < strlen($text) && strpos("$delimiter\r\n", $text[$close + 1]) === false) {
            throw DataRefused::inText(Reason::DataSyntax, 'something stands between the closing quote of a field and the end of it.', $text, $close + 1);
        }

        return [$field, $close + 1];
    }
}
