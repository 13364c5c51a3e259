<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Data;

/** XLSX files written by hand, cell by cell (ECMA-376). */
final class Workbooks
{
    private const MAIN = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
    private const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

    /** @param list<list<string>> $rows XML of cells, without their references */
    public static function of(array $rows, bool $from1904 = false, string $behind = '', int $sheets = 1): string
    {
        $data = '';
        foreach ($rows as $r => $cells) {
            $data .= sprintf('<row r="%d">', $r + 1);
            foreach ($cells as $c => $cell) {
                $data .= (string) preg_replace('/^<c/', sprintf('<c r="%s%d"', chr(65 + $c), $r + 1), $cell);
            }
            $data .= '</row>';
        }
        $names = range(1, $sheets);
        $worksheets = array_map(static fn (int $n): string => "worksheets/sheet$n", $names);
        $typed = static fn (string $part, string $type): string => sprintf(
            '<Override PartName="/xl/%s.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.%s+xml"/>',
            $part,
            $type,
        );
        $sheet = '<worksheet ' . self::MAIN . "><sheetData>$data</sheetData>$behind</worksheet>";
        $files = [
            '[Content_Types].xml' => '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">'
                . '<Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>'
                . $typed('workbook', 'sheet.main') . $typed('styles', 'styles') . $typed('sharedStrings', 'sharedStrings')
                . implode('', array_map(static fn (string $part): string => $typed($part, 'worksheet'), $worksheets)) . '</Types>',
            '_rels/.rels' => self::relations(['r1' => ['officeDocument', 'xl/workbook.xml']]),
            'xl/workbook.xml' => '<workbook ' . self::MAIN . ' xmlns:r="' . self::OFFICE . '"><workbookPr' . ($from1904 ? ' date1904="1"' : '') . '/><sheets>'
                . implode('', array_map(static fn (int $n): string => sprintf('<sheet name="Sheet%s" sheetId="%d" r:id="s%d"/>', $n === 1 ? '' : " $n", $n, $n), $names)) . '</sheets></workbook>',
            'xl/_rels/workbook.xml.rels' => self::relations([
                'x1' => ['styles', 'styles.xml'], 'x2' => ['sharedStrings', 'sharedStrings.xml'],
            ] + array_combine(array_map(static fn (int $n): string => "s$n", $names), array_map(static fn (string $file): array => ['worksheet', "$file.xml"], $worksheets))),
            'xl/styles.xml' => '<styleSheet ' . self::MAIN . '><fonts count="1"><font/></fonts><fills count="1"><fill><patternFill/></fill></fills>'
                . '<borders count="1"><border/></borders><cellStyleXfs count="1"><xf numFmtId="14"/></cellStyleXfs>'
                . '<cellXfs count="4"><xf numFmtId="0"/><xf numFmtId="14"/><xf numFmtId="22"/><xf numFmtId="20"/></cellXfs></styleSheet>',
            'xl/sharedStrings.xml' => '<sst ' . self::MAIN . ' count="2" uniqueCount="2"><si><t>b</t></si><si><r><t>c</t></r><r><t xml:space="preserve"> d</t></r></si></sst>',
        ];
        foreach ($names as $n) {
            $files["xl/worksheets/sheet$n.xml"] = $sheet;
        }
        $file = (string) tempnam(sys_get_temp_dir(), 'zip');
        $zip = new \ZipArchive();
        $zip->open($file, \ZipArchive::OVERWRITE);
        foreach ($files as $name => $text) {
            $zip->addFromString($name, '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>' . $text);
        }
        $zip->close();
        $bytes = (string) file_get_contents($file);
        unlink($file);

        return $bytes;
    }

    /** @param array<string, array{string, string}> $relations */
    private static function relations(array $relations): string
    {
        $xml = '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">';
        foreach ($relations as $id => [$type, $target]) {
            $xml .= sprintf('<Relationship Id="%s" Type="%s/%s" Target="%s"/>', $id, self::OFFICE, $type, $target);
        }

        return "$xml</Relationships>";
    }
}
