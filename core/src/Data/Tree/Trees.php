<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\Sweeping;

/** The formats in which data come, each by its reader. */
final readonly class Trees
{
    /** Bytes of a source. */
    public const LARGEST = 20_000_000;

    /** Records, rows of a sheet, items, occurrences, nodes of a path. */
    public const MOST_ROWS = 200_000;

    private const BOM = "\xEF\xBB\xBF";

    /** @var array<string, class-string<TreeReader>> */
    public const READERS = [
        'json' => JsonTree::class,
        'csv' => CsvTree::class,
        'xlsx' => XlsxTree::class,
        'rss' => FeedTree::class,
        'ical' => CalendarTree::class,
    ];

    /**
     * @param ?string $as one of the formats; by the bytes where it is not said
     * @throws Refused with what is wrong, where
     */
    public static function read(string $bytes, ReadOptions $options, ?string $as = null): mixed
    {
        if (strlen($bytes) > self::LARGEST) {
            throw DataRefused::because(Reason::DataTooLarge, sprintf('The data have %s bytes; at most %s are read.', number_format(strlen($bytes)), number_format(self::LARGEST)), '');
        }
        $as ??= self::kindOf($bytes);
        $reader = self::READERS[$as] ?? throw DocumentRefused::because(Reason::ValueUnknown, sprintf('"%s" is no format of data; %s are.', $as, implode(', ', array_keys(self::READERS))), '');

        return Sweeping::without(static fn (): mixed => $reader::read(str_starts_with($bytes, self::BOM) ? substr($bytes, strlen(self::BOM)) : $bytes, $options));
    }

    /** The format, from the bytes alone. */
    public static function kindOf(string $bytes): string
    {
        if (str_starts_with($bytes, "PK\x03\x04")) {
            return 'xlsx';
        }
        $from = str_starts_with($bytes, self::BOM) ? strlen(self::BOM) : 0;
        $from += strspn($bytes, " \t\r\n", $from);
        $first = $bytes[$from] ?? '';

        return match (true) {
            $first === '<' => 'rss',
            $first === '{' || $first === '[' => 'json',
            strtoupper(substr($bytes, $from, 15)) === 'BEGIN:VCALENDAR' => 'ical',
            default => 'csv',
        };
    }

    /** @throws DataRefused */
    public static function holdRows(int $count, string $of): void
    {
        if ($count > self::MOST_ROWS) {
            throw DataRefused::because(Reason::DataTooLarge, sprintf('The data have more than %s %s; no more are read.', number_format(self::MOST_ROWS), $of), '');
        }
    }
}
