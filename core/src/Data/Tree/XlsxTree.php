<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Reason;

/**
 * A workbook (ECMA-376, SpreadsheetML): an object of its sheets, each a list of objects named by the first row that is not empty.
 *
 * Formulas count by the value that was kept with them; nothing is worked out here.
 */
final class XlsxTree implements TreeReader
{
    private const MOST_UNPACKED = 200_000_000;
    private const MOST_COLUMNS = 16_384;

    /** @var list<string> */
    private array $strings = [];

    /** @var list<SheetFormat> by the style of a cell */
    private array $formats = [];

    private bool $isFrom1904 = false;

    private function __construct(private readonly Zip $zip)
    {
    }

    public static function read(string $bytes, ReadOptions $options): mixed
    {
        return (new self(Zip::of($bytes, self::MOST_UNPACKED)))->workbook();
    }

    private function workbook(): \stdClass
    {
        $book = 'xl/workbook.xml';
        foreach ($this->relations('') as [$type, $target]) {
            $book = str_ends_with($type, '/officeDocument') ? $target : $book;
        }
        $xml = $this->zip->file($book);
        if ($xml === null) {
            throw DataRefused::because(Reason::DataKind, 'This is an archive, but no workbook: an XLSX file has a workbook.xml in it.', '');
        }
        $targets = [];
        foreach ($this->relations($book) as $id => [$type, $target]) {
            $targets[$id] = [$type, $target];
            match (true) {
                str_ends_with($type, '/sharedStrings') => $this->strings = $this->sharedStrings($target),
                str_ends_with($type, '/styles') => $this->formats = $this->styles($target),
                default => null,
            };
        }
        $sheets = [];
        $reader = self::opened($xml, $book);
        while (self::next($reader, $book)) {
            if ($reader->nodeType !== \XMLReader::ELEMENT) {
                continue;
            }
            if ($reader->localName === 'workbookPr') {
                $this->isFrom1904 = in_array($reader->getAttribute('date1904'), ['1', 'true'], true);
            }
            if ($reader->localName === 'sheet') {
                [$type, $target] = $targets[self::relationId($reader)] ?? ['', ''];
                if (str_ends_with($type, '/worksheet')) {
                    $sheets[] = [(string) $reader->getAttribute('name'), $target];
                }
            }
        }
        $tree = new \stdClass();
        foreach ($sheets as [$name, $target]) {
            $tree->{$name} = $this->sheet($target);
        }

        return $tree;
    }

    /** @return list<\stdClass> */
    private function sheet(string $file): array
    {
        $xml = $this->zip->file($file) ?? throw DataRefused::because(Reason::DataSyntax, "The workbook names a sheet $file that is not in it.", '');
        $rows = [];
        $merged = [];
        $reader = self::opened($xml, $file);
        unset($xml);
        $row = 0;
        $column = 0;
        while (self::next($reader, $file)) {
            if ($reader->nodeType !== \XMLReader::ELEMENT) {
                continue;
            }
            if ($reader->localName === 'row') {
                $row = self::figure($reader->getAttribute('r')) ?? $row + 1;
                $column = 0;
            } elseif ($reader->localName === 'c') {
                $column = self::columnOf($reader->getAttribute('r')) ?? $column + 1;
                $value = $this->cell($reader, $file);
                if ($value !== null && $column <= self::MOST_COLUMNS) {
                    $rows[$row][$column - 1] = $value;
                    if (count($rows) > Trees::MOST_ROWS + 1) {
                        Trees::holdRows(count($rows) - 1, 'rows in a sheet');
                    }
                }
            } elseif ($reader->localName === 'mergeCell') {
                $merged[] = (string) $reader->getAttribute('ref');
            }
        }
        ksort($rows);

        return self::objects(self::withoutMerged($rows, $merged));
    }

    /**
     * Merged areas keep what stands in their first cell.
     *
     * @param array<int, array<int, mixed>> $rows by number
     * @param list<string> $merged such as A1:C2
     * @return array<int, array<int, mixed>>
     */
    private static function withoutMerged(array $rows, array $merged): array
    {
        $numbers = array_keys($rows);
        $steps = 0;
        foreach ($merged as $area) {
            if (preg_match('/^\$?([A-Z]{1,3})\$?(\d{1,7}):\$?([A-Z]{1,3})\$?(\d{1,7})$/D', $area, $m) !== 1) {
                continue;
            }
            [$left, $right] = [(int) self::columnOf($m[1]) - 1, (int) self::columnOf($m[3]) - 1];
            [$top, $bottom] = [(int) $m[2], (int) $m[4]];
            // Rows are in order: the first of the area is found by halving.
            for ($least = 0, $most = count($numbers); $least < $most;) {
                $middle = ($least + $most) >> 1;
                $numbers[$middle] < $top ? $least = $middle + 1 : $most = $middle;
            }
            for (; $least < count($numbers) && $numbers[$least] <= $bottom; $least++) {
                $row = $numbers[$least];
                foreach (array_keys($rows[$row]) as $column) {
                    if ($column >= $left && $column <= $right && ($row !== $top || $column !== $left)) {
                        unset($rows[$row][$column]);
                    }
                }
                if (++$steps > 10 * Trees::MOST_ROWS) {
                    throw DataRefused::because(Reason::DataTooLarge, 'The merged areas of a sheet reach over more rows than are read.', '');
                }
            }
        }

        return $rows;
    }

    /**
     * @param array<int, array<int, mixed>> $rows by number, in order
     * @return list<\stdClass>
     */
    private static function objects(array $rows): array
    {
        $names = null;
        $objects = [];
        foreach ($rows as $row) {
            if ($row === []) {
                continue;
            }
            $record = [];
            for ($column = 0, $last = max(array_keys($row)); $column <= $last; $column++) {
                $record[] = $row[$column] ?? null;
            }
            if ($names === null) {
                $names = CsvTree::named(array_map(self::told(...), $record));
            } else {
                $objects[] = CsvTree::row($names, $record);
            }
        }

        return $objects;
    }

    private static function told(mixed $value): ?string
    {
        return is_bool($value) ? ($value ? 'true' : 'false') : (is_scalar($value) ? (is_float($value) ? (string) json_encode($value) : (string) $value) : null);
    }

    private function cell(\XMLReader $reader, string $file): mixed
    {
        $type = $reader->getAttribute('t') ?? 'n';
        $style = self::figure($reader->getAttribute('s')) ?? 0;
        if ($reader->isEmptyElement) {
            return null;
        }
        $value = null;
        $inline = null;
        $depth = $reader->depth;
        while (self::next($reader, $file) && $reader->depth > $depth) {
            if ($reader->nodeType !== \XMLReader::ELEMENT) {
                continue;
            }
            if ($reader->localName === 'v') {
                $value = $reader->readString();
            } elseif ($reader->localName === 'is') {
                $inline = self::runs($reader, $file);
            }
        }
        if ($type === 'inlineStr') {
            return $inline;
        }

        return $value === null || $value === '' ? null : match ($type) {
            's' => $this->strings[(int) $value] ?? null,
            'str' => self::unescaped($value),
            'b' => trim($value) === '1' || trim($value) === 'true',
            'e' => null,
            'd' => self::iso($value),
            default => is_numeric(trim($value)) ? ($this->formats[$style] ?? SheetFormat::Number)->told((float) trim($value), $this->isFrom1904) : null,
        };
    }

    /** ISO 8601 dates of a cell of type d (18.18.11), as formats of numbers tell them. */
    private static function iso(string $value): ?string
    {
        if (preg_match('/^(\d{4}-\d\d-\d\d)?(?:T?(\d\d:\d\d(?::\d\d)?)(?:\.\d+)?Z?)?$/D', trim($value), $m) !== 1) {
            return null;
        }
        $time = isset($m[2]) ? (strlen($m[2]) === 5 ? "$m[2]:00" : $m[2]) : '';

        return implode('T', array_filter([$m[1] ?? '', $time], static fn (string $part): bool => $part !== ''));
    }

    /** @return list<string> */
    private function sharedStrings(string $file): array
    {
        $xml = $this->zip->file($file) ?? '';
        $strings = [];
        if ($xml === '') {
            return $strings;
        }
        $reader = self::opened($xml, $file);
        while (self::next($reader, $file)) {
            if ($reader->nodeType === \XMLReader::ELEMENT && $reader->localName === 'si') {
                $strings[] = self::runs($reader, $file);
            }
        }

        return $strings;
    }

    /** The text of a string in runs, without readings beside it (phonetic runs). */
    private static function runs(\XMLReader $reader, string $file): string
    {
        if ($reader->isEmptyElement) {
            return '';
        }
        $text = '';
        $depth = $reader->depth;
        $aside = null;
        while (self::next($reader, $file) && $reader->depth > $depth) {
            if ($aside !== null && $reader->depth > $aside) {
                continue;
            }
            $aside = null;
            if ($reader->nodeType === \XMLReader::ELEMENT) {
                if ($reader->localName === 'rPh') {
                    $aside = $reader->depth;
                } elseif ($reader->localName === 't') {
                    $text .= self::unescaped($reader->readString());
                }
            }
        }

        return $text;
    }

    /** @return list<SheetFormat> */
    private function styles(string $file): array
    {
        $xml = $this->zip->file($file) ?? '';
        if ($xml === '') {
            return [];
        }
        [$codes, $formats, $isInCells] = [[], [], false];
        $reader = self::opened($xml, $file);
        while (self::next($reader, $file)) {
            if ($reader->localName === 'cellXfs') {
                $isInCells = $reader->nodeType === \XMLReader::ELEMENT && !$reader->isEmptyElement;
            } elseif ($reader->nodeType === \XMLReader::ELEMENT && $reader->localName === 'numFmt') {
                $codes[(int) $reader->getAttribute('numFmtId')] = (string) $reader->getAttribute('formatCode');
            } elseif ($reader->nodeType === \XMLReader::ELEMENT && $reader->localName === 'xf' && $isInCells) {
                $id = (int) $reader->getAttribute('numFmtId');
                $formats[] = isset($codes[$id]) ? SheetFormat::ofCode($codes[$id]) : SheetFormat::ofId($id);
            }
        }

        return $formats;
    }

    /**
     * What a file of the package leads to (OPC, 9.3).
     *
     * @return array<string, array{string, string}> type and file, by id
     */
    private function relations(string $of): array
    {
        $folder = $of === '' || !str_contains($of, '/') ? '' : dirname($of) . '/';
        $file = $folder . '_rels/' . basename($of) . '.rels';
        $xml = $this->zip->file($file);
        $relations = [];
        if ($xml === null || $xml === '') {
            return $relations;
        }
        $reader = self::opened($xml, $file);
        while (self::next($reader, $file)) {
            if ($reader->nodeType === \XMLReader::ELEMENT && $reader->localName === 'Relationship') {
                $target = (string) $reader->getAttribute('Target');
                $relations[(string) $reader->getAttribute('Id')] = [
                    (string) $reader->getAttribute('Type'),
                    str_starts_with($target, '/') ? substr($target, 1) : self::resolved($folder . $target),
                ];
            }
        }

        return $relations;
    }

    private static function resolved(string $path): string
    {
        $parts = [];
        foreach (explode('/', $path) as $part) {
            if ($part === '..') {
                array_pop($parts);
            } elseif ($part !== '.' && $part !== '') {
                $parts[] = $part;
            }
        }

        return implode('/', $parts);
    }

    private static function relationId(\XMLReader $reader): string
    {
        for ($more = $reader->moveToFirstAttribute(); $more; $more = $reader->moveToNextAttribute()) {
            if ($reader->localName === 'id' && str_ends_with($reader->namespaceURI, '/relationships')) {
                $id = $reader->value;
                $reader->moveToElement();

                return $id;
            }
        }
        $reader->moveToElement();

        return '';
    }

    private static function opened(string $xml, string $file): \XMLReader
    {
        $reader = @\XMLReader::XML($xml, null, LIBXML_NONET | LIBXML_COMPACT | LIBXML_PARSEHUGE | LIBXML_NOERROR | LIBXML_NOWARNING);

        return $reader instanceof \XMLReader ? $reader : throw self::broken($file);
    }

    private static function next(\XMLReader $reader, string $file): bool
    {
        libxml_clear_errors();
        $before = libxml_use_internal_errors(true);
        $more = @$reader->read();
        $fault = libxml_get_last_error();
        libxml_clear_errors();
        libxml_use_internal_errors($before);
        if (!$more && $fault !== false) {
            throw self::broken($file);
        }

        return $more;
    }

    private static function broken(string $file): DataRefused
    {
        return DataRefused::because(Reason::DataSyntax, "The workbook has a file $file that is no XML; saved anew by the program that made it, it may be right.", '');
    }

    /** ST_Xstring writes what XML cannot as _xHHHH_ (22.9.2.19). */
    private static function unescaped(string $text): string
    {
        return !str_contains($text, '_x') ? $text : (string) preg_replace_callback('/_x([0-9A-Fa-f]{4})_/', static fn (array $m): string => (string) mb_chr((int) hexdec($m[1]), 'UTF-8'), $text);
    }

    private static function figure(?string $written): ?int
    {
        return $written !== null && preg_match('/^\d{1,9}$/D', $written) === 1 ? (int) $written : null;
    }

    /** From 1: of A1, AB12 or AB alone. */
    private static function columnOf(?string $cell): ?int
    {
        if ($cell === null || preg_match('/^[A-Z]{1,3}/', $cell, $m) !== 1) {
            return null;
        }
        $column = 0;
        foreach (str_split($m[0]) as $letter) {
            $column = 26 * $column + ord($letter) - 64;
        }

        return $column;
    }
}
