<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Reason;

/** The files of a ZIP archive that is held in memory (APPNOTE.TXT of PKWARE, without ZIP64 and encryption), each unpacked when it is asked for. */
final class Zip
{
    private const MOST_FILES = 10_000;
    private const CHUNK = 32_768;

    private int $unpacked = 0;

    /** @param array<string, array{int, int, int}> $files method, packed bytes and where the file's own head stands, by name */
    private function __construct(private readonly string $bytes, private readonly array $files, private readonly int $mostBytes)
    {
    }

    /**
     * @param int $mostBytes of all that is unpacked together
     * @throws DataRefused
     */
    public static function of(string $bytes, int $mostBytes): self
    {
        // The end of the directory stands within the last 65,557 bytes, before a comment.
        $end = strrpos($bytes, "PK\x05\x06", max(0, strlen($bytes) - 65_557));
        if ($end === false || strlen($bytes) < $end + 22) {
            throw self::broken('has no directory at its end: part of it is missing');
        }
        ['count' => $count, 'at' => $at] = self::figures('vcount/Vsize/Vat', $bytes, $end + 10);
        $files = [];
        for ($i = 0; $i < $count && $i < self::MOST_FILES; $i++) {
            if (substr($bytes, $at, 4) !== "PK\x01\x02") {
                throw self::broken('has a directory that cannot be read');
            }
            $one = self::figures('vflags/vmethod/x8/Vpacked/x4/vname/vextra/vcomment/x8/Vhead', $bytes, $at + 8);
            $files[substr($bytes, $at + 46, $one['name'])] = [($one['flags'] & 1) === 1 ? -1 : $one['method'], $one['packed'], $one['head']];
            $at += 46 + $one['name'] + $one['extra'] + $one['comment'];
        }

        return new self($bytes, $files, $mostBytes);
    }

    /**
     * @return ?string null where there is no such file
     * @throws DataRefused where it cannot be unpacked, or all would be more than may be
     */
    public function file(string $name): ?string
    {
        if (!isset($this->files[$name])) {
            return null;
        }
        [$method, $packed, $head] = $this->files[$name];
        if ($method !== 0 && $method !== 8) {
            throw self::broken("has a file $name that is encrypted, or packed in a way that is not read");
        }
        if (substr($this->bytes, $head, 4) !== "PK\x03\x04") {
            throw self::broken("has a file $name that is not where its directory says");
        }
        ['name' => $nameLength, 'extra' => $extra] = self::figures('vname/vextra', $this->bytes, $head + 26);
        $from = $head + 30 + $nameLength + $extra;
        $end = min($from + $packed, strlen($this->bytes));
        $inflate = inflate_init(ZLIB_ENCODING_RAW);
        assert($inflate !== false);
        $whole = '';
        for ($at = $from; $at < $end; $at += self::CHUNK) {
            $chunk = substr($this->bytes, $at, min(self::CHUNK, $end - $at));
            $piece = $method === 0 ? $chunk : @inflate_add($inflate, $chunk);
            if ($piece === false) {
                throw self::broken("has a file $name that is damaged");
            }
            $whole .= $piece;
            $this->unpacked += strlen($piece);
            if ($this->unpacked > $this->mostBytes) {
                throw DataRefused::because(Reason::DataTooLarge, sprintf('Unpacked, the workbook has more than %s bytes; no more are read.', number_format($this->mostBytes)), '');
            }
        }
        if ($method === 8 && inflate_get_status($inflate) !== ZLIB_STREAM_END) {
            throw self::broken("has a file $name that ends too soon");
        }

        return $whole;
    }

    /**
     * @return array<string, int>
     * @throws DataRefused
     */
    private static function figures(string $format, string $bytes, int $at): array
    {
        $figures = @unpack($format, $bytes, $at);
        if ($figures === false) {
            throw self::broken('ends too soon');
        }

        /** @var array<string, int> $figures */
        return $figures;
    }

    private static function broken(string $how): DataRefused
    {
        return DataRefused::because(Reason::DataSyntax, "The workbook $how; saved anew by the program that made it, it may be right.", '');
    }
}
