<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\TableRefused;

/**
 * A survey of many displays as a table of text (CSV, RFC 4180): UTF-8 with or without a mark, or Windows-1252; commas, semicolons or tabs.
 *
 * One row a display. Where figures are parted by semicolons or tabs, a decimal comma is read too.
 */
final readonly class SurveyTable
{
    /** Columns, each with what it is; those in NEEDED must have a value for a new display. */
    public const COLUMNS = [
        'id', 'name', 'place', 'timezone', 'width_px', 'height_px', 'width_mm', 'height_mm', 'bezel_mm', 'rotation', 'nearest_m', 'farthest_m',
        'centre_height_m', 'eye_height_m', 'technology', 'refresh_hz', 'link',
    ];
    private const MOST_ROWS = 20_000;

    /**
     * @param list<array{line: int, cells: array<string, string>}> $rows by column
     * @param list<array{line: int, reason: string}> $bad rows that are no rows
     */
    private function __construct(public string $encoding, public string $separator, public array $rows, public array $bad)
    {
    }

    /** @throws TableRefused where it is no table, or has no column that is known */
    public static function read(string $bytes): self
    {
        $encoding = 'UTF-8';
        if (str_starts_with($bytes, "\xEF\xBB\xBF")) {
            [$encoding, $bytes] = ['UTF-8 with a mark', substr($bytes, 3)];
        } elseif (str_starts_with($bytes, "\xFF\xFE") || str_starts_with($bytes, "\xFE\xFF")) {
            $encoding = 'UTF-16';
            $bytes = mb_convert_encoding(substr($bytes, 2), 'UTF-8', $bytes[0] === "\xFF" ? 'UTF-16LE' : 'UTF-16BE');
        } elseif (!mb_check_encoding($bytes, 'UTF-8')) {
            [$encoding, $bytes] = ['Windows-1252 (Latin-1)', mb_convert_encoding($bytes, 'UTF-8', 'Windows-1252')];
        }
        $head = strtok($bytes, "\r\n");
        if (!is_string($head)) {
            throw self::refused(Reason::CsvEmpty, 'The table is empty. Its first line names its columns, such as name,place,width_px,height_px.');
        }
        $counts = array_map(static fn (string $mark): int => substr_count($head, $mark), [',' => ',', ';' => ';', "\t" => "\t"]);
        arsort($counts);
        $separator = (string) array_key_first($counts);
        $stream = fopen('php://temp', 'w+') ?: throw new \RuntimeException('No memory for a table.');
        fwrite($stream, $bytes);
        rewind($stream);
        $names = fgetcsv($stream, null, $separator, '"', '') ?: [];
        $columns = array_map(static fn (?string $name): string => str_replace([' ', '-'], '_', mb_strtolower(trim((string) $name))), $names);
        self::checkColumns($columns);
        [$rows, $bad, $line] = [[], [], 1];
        while (($cells = fgetcsv($stream, null, $separator, '"', '')) !== false) {
            $line++;
            if ($cells === [null]) {
                continue;
            }
            if (count($rows) + count($bad) >= self::MOST_ROWS) {
                throw self::refused(Reason::CsvLong, sprintf('The table has more than %d rows. Bring it in in parts.', self::MOST_ROWS));
            }
            if (count($cells) !== count($columns)) {
                $bad[] = ['line' => $line, 'reason' => sprintf('It has %d fields; the first line names %d columns.', count($cells), count($columns))];
                continue;
            }
            $rows[] = ['line' => $line, 'cells' => array_map(static fn (?string $cell): string => trim((string) $cell), array_combine($columns, $cells))];
        }
        fclose($stream);

        return new self($encoding, $separator, $rows, $bad);
    }

    /**
     * A figure as it is written in this table.
     *
     * @throws TableRefused
     */
    public function figure(string $column, string $text): int|float
    {
        $plain = $this->separator === ',' ? $text : str_replace(',', '.', $text);
        if (preg_match('/^-?\d{1,9}(\.\d{1,9})?$/D', $plain) !== 1) {
            $right = $this->separator === ',' ? '1209.6' : '1209,6';
            throw self::refused(Reason::CsvFigure, sprintf('%s is "%s"; a figure such as %s is right.', $column, mb_strimwidth($text, 0, 40, '...'), $right), "/$column");
        }

        return str_contains($plain, '.') ? (float) $plain : (int) $plain;
    }

    /** @param list<string> $columns */
    private static function checkColumns(array $columns): void
    {
        $unknown = array_values(array_diff($columns, self::COLUMNS));
        if ($unknown !== []) {
            throw self::refused(Reason::CsvColumn, sprintf('"%s" is no column that is known; %s are.', mb_strimwidth($unknown[0], 0, 40, '...'), implode(', ', self::COLUMNS)));
        }
        if (count(array_unique($columns)) !== count($columns)) {
            throw self::refused(Reason::CsvColumn, 'A column is named twice in the first line.');
        }
        if (!in_array('name', $columns, true) && !in_array('id', $columns, true)) {
            throw self::refused(Reason::CsvColumn, 'There is no column "name" and none "id": nothing says which display a row is for.');
        }
    }

    private static function refused(Reason $reason, string $message, string $path = ''): TableRefused
    {
        return TableRefused::because($reason, $message, $path);
    }
}
