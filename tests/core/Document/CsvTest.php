<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Document;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Csv;

/** RFC 4180, read back by PHP's own reader. */
final class CsvTest extends TestCase
{
    public function testWhatIsWrittenIsReadBack(): void
    {
        $rows = [['Hall wall', 'a "quoted" word', 'one, two', ''], [' space ', "line\nend", '"', 'Ä 1']];
        $text = Csv::text(['display', 'zone', 'why', 'empty'], $rows);
        self::assertStringStartsWith("display,zone,why,empty\n\"Hall wall\",\"a \"\"quoted\"\" word\",\"one, two\",\n", $text);
        $file = fopen('php://memory', 'w+');
        self::assertIsResource($file);
        fwrite($file, $text);
        rewind($file);
        $read = [];
        while (($row = fgetcsv($file, escape: '')) !== false) {
            $read[] = $row;
        }
        self::assertSame([['display', 'zone', 'why', 'empty'], ...$rows], $read);
    }

    /** Names are typed by people: none of them is calculated by whoever opens the table. */
    public function testWhatWouldBeAFormulaIsText(): void
    {
        $cells = ['=1+1', '+cmd', '-x', '@SUM(A1)', "\tx", "\rx", '-12.5', '+3', 'a=b'];
        self::assertSame("'=1+1,'+cmd,'-x,'@SUM(A1),\"'\tx\",\"'\rx\",-12.5,+3,a=b\n", substr(Csv::text(['h'], [$cells]), 2));
    }
}
