<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Data;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Data\Tree\FeedTime;
use UpperPane\Core\Data\Tree\PlainText;
use UpperPane\Core\Data\Tree\ReadOptions;
use UpperPane\Core\Data\Tree\SheetFormat;
use UpperPane\Core\Data\Tree\Trees;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\Instant;

/** Bytes become trees by the contract of formats-data; against outside tools in tests/reference/DataTreesReferenceTest.php. */
final class TreesTest extends TestCase
{
    /** @return iterable<string, array{string, string}> */
    public static function kinds(): iterable
    {
        yield 'a workbook' => ["PK\x03\x04...", 'xlsx'];
        yield 'a feed behind a BOM and space' => ["\xEF\xBB\xBF \r\n<rss/>", 'rss'];
        yield 'a calendar in small letters' => ["\n begin:vcalendar\r\n", 'ical'];
        yield 'an object' => ['  {"a": 1}', 'json'];
        yield 'a list' => ["\t[]", 'json'];
        yield 'a lone number' => ['12', 'csv'];
        yield 'nothing' => ['', 'csv'];
    }

    #[DataProvider('kinds')]
    public function testTheKindIsFoundFromTheBytes(string $bytes, string $kind): void
    {
        self::assertSame($kind, Trees::kindOf($bytes));
    }

    /** @return iterable<string, array{string, string, mixed, 3?: string}> */
    public static function tables(): iterable
    {
        yield 'most records agree on the semicolon' => ["a;b\n1,5;2\n3,5;4\n", '[{"a":"1,5","b":"2"},{"a":"3,5","b":"4"}]', null];
        yield 'of equals the one with more fields' => ["a,b;c;d\n1,2;3;4", '[{"a,b":"1,2","c":"3","d":"4"}]', null];
        yield 'none: a comma' => ["a\nb\n\"c\"", '[{"a":"b"},{"a":"c"}]', null];
        yield 'said' => ["a|b\n1|2", '[{"a|b":"1|2"}]', ['delimiter' => ';']];
        yield 'all ends of lines, an empty line, no end' => ["a,b\r\n1,2\r\r3,4\n\n5,6", '[{"a":"1","b":"2"},{"a":"3","b":"4"},{"a":"5","b":"6"}]', null];
        yield 'names in use, empty names, records too short and too long' => [
            "a,a,,a 2\n1,2,3,4\n1\n1,2,3,4,5,6", '[{"a":"1","a 2":"2","column 3":"3","a 2 2":"4"},{"a":"1","a 2":null,"column 3":null,"a 2 2":null},'
            . '{"a":"1","a 2":"2","column 3":"3","a 2 2":"4","column 5":"5","column 6":"6"}]', null,
        ];
        yield 'no header' => ["1,2\n3", '[{"column 1":"1","column 2":"2"},{"column 1":"3"}]', ['header' => false]];
        yield 'quotes within quotes, and within a field' => ["a,b\n\"x \"\"y\"\"\n, z\", 5\"\n", '[{"a":"x \"y\"\n, z","b":" 5\""}]', null];
        yield 'an empty quoted field is a record' => ["a\n\"\"\n\n", '[{"a":""}]', null];
        yield 'an empty first line' => ["\na\n1,\"\"", '[{"a":"1","column 2":""}]', null];
        yield 'a delimiter at the end' => ["a,b\n1,", '[{"a":"1","b":""}]', null];
        yield 'Windows-1252' => ["na\xEFve,\x80\x81\n1,2", '[{"naïve":"1","€' . "\u{FFFD}" . '":"2"}]', null];
        yield 'no bytes' => ['', '[]', null];
    }

    /** @param ?array<string, mixed> $options */
    #[DataProvider('tables')]
    public function testTables(string $bytes, string $tree, ?array $options): void
    {
        self::assertSame($tree, json_encode(Trees::read($bytes, ReadOptions::of($options === null ? null : Node::root($options)), 'csv'), JSON_UNESCAPED_UNICODE));
    }

    public function testObjectsWithNamesOfEveryKindStayAsTheyAre(): void
    {
        $json = '{"0":[],"__proto__":{},"":{"a":null},"1.5":1.5,"deep":[[{"x":[1,"",true]}]]}';
        self::assertSame($json, json_encode(Trees::read("\xEF\xBB\xBF$json", ReadOptions::of())));
    }

    public function testEntitiesFromOutsideAreNeverRead(): void
    {
        $secret = (string) tempnam(sys_get_temp_dir(), 'secret');
        file_put_contents($secret, 'the tide tables');
        $feed = "<!DOCTYPE rss [<!ENTITY own \"own\"><!ENTITY out SYSTEM \"file://$secret\">]><rss><channel><title>&own;%s</title></channel></rss>";
        $tree = json_encode(Trees::read(sprintf($feed, ''), ReadOptions::of()));
        self::assertSame('{"title":"own","link":null,"items":[]}', $tree);
        try {
            $tree = json_encode(Trees::read(sprintf($feed, '&out;'), ReadOptions::of()));
        } catch (Refused $refused) {
            $tree = $refused->getMessage();
        }
        self::assertStringNotContainsString('tide', (string) $tree);
        unlink($secret);
    }

    public function testTextsOfFeedsLoseTheirMarkup(): void
    {
        $atom = '<feed xmlns="http://www.w3.org/2005/Atom"><title type="html">A &amp;amp; &lt;b&gt;B&lt;/b&gt;</title><entry><id>1</id><title>5 &lt; 6 &amp;amp;</title>'
            . '<summary type="xhtml"><div xmlns="http://www.w3.org/1999/xhtml"><p>one</p><p>t<i>w</i>o</p></div></summary></entry></feed>';
        $tree = Trees::read($atom, ReadOptions::of());
        self::assertInstanceOf(\stdClass::class, $tree);
        self::assertSame(['A & B', '5 < 6 &amp;', 'one two'], [$tree->title, $tree->items[0]->title, $tree->items[0]->summary]);
        self::assertSame('a b c', PlainText::ofHtml("<p>a</p><!-- x -->b\u{A0}&nbsp;<script>if (1 < 2) {}</script><br/>c<style>p{}"));
        self::assertSame('5 < 6 > 4 it', PlainText::ofHtml('5 < 6 > 4 <b title="a > b">it</b>'));
    }

    public function testPicturesOfFeeds(): void
    {
        $media = 'xmlns:media="http://search.yahoo.com/mrss/"';
        $item = static function (string $inner) use ($media): mixed {
            $tree = Trees::read("<rss $media><channel><item>$inner</item></channel></rss>", ReadOptions::of());
            self::assertInstanceOf(\stdClass::class, $tree);

            return $tree->items[0]->picture;
        };
        $thumbnail = '<media:thumbnail url="t.png"/>';
        $content = '<media:content url="c.png" medium="image"/>';
        self::assertSame('e.png', $item("$thumbnail$content<enclosure url=\"a.mp3\" type=\"audio/mpeg\"/><enclosure url=\"e.png\" type=\"image/png\"/>"));
        self::assertSame('c.png', $item("$thumbnail<media:group><media:content url=\"v.mp4\" type=\"video/mp4\"/>$content</media:group>"));
        self::assertSame('t.png', $item($thumbnail));
        self::assertNull($item('<enclosure url="a.mp3" type="audio/mpeg"/>'));
    }

    public function testNumbersOfSheetsByTheirFormat(): void
    {
        $codes = [
            'General' => SheetFormat::Number, '0.00" days"' => SheetFormat::Number, '[Red]#,##0.00;[h]' => SheetFormat::Number, '[h]:mm' => SheetFormat::Number, '@' => SheetFormat::Number,
            'yyyy-mm-dd' => SheetFormat::Date, 'mmm' => SheetFormat::Date, 'd"h"' => SheetFormat::Date, '[$-409]dd/mm/yy;@' => SheetFormat::Date,
            'hh:mm' => SheetFormat::Time, 'mm:ss' => SheetFormat::Time, 'h AM/PM' => SheetFormat::Time, 'd/m/yy h:mm' => SheetFormat::Both, 'm/d' => SheetFormat::Date,
        ];
        foreach ($codes as $code => $format) {
            self::assertSame($format, SheetFormat::ofCode($code), $code);
        }
        self::assertSame('2026-06-01', SheetFormat::Date->told(46174.9, false));
        self::assertSame('2026-06-01T00:00:00', SheetFormat::Both->told(46173.999999, false), 'a second is the nearest');
        self::assertSame('1900-02-28', SheetFormat::Date->told(59, false));
        self::assertSame('1900-03-01', SheetFormat::Date->told(61, false));
        self::assertSame('17:05:00', SheetFormat::Time->told(3 + 17.0833333333 / 24, false));
        self::assertSame(-1, SheetFormat::Date->told(-1, false));
    }

    public function testMergedAreasKeepTheirFirstCell(): void
    {
        $cell = static fn (string $text): string => "<c t=\"inlineStr\"><is><t>$text</t></is></c>";
        $rows = [['a', 'b'], ['1', '2'], ['3', '4'], ['5', '6']];
        $merged = '<mergeCells count="2"><mergeCell ref="A2:A3"/><mergeCell ref="A4:XFD1048576"/></mergeCells>';
        $bytes = Workbooks::of(array_map(static fn (array $row): array => array_map($cell, $row), $rows), behind: $merged);
        self::assertSame('{"Sheet":[{"a":"1","b":"2"},{"a":null,"b":"4"},{"a":"5","b":null}]}', json_encode(Trees::read($bytes, ReadOptions::of())));
    }

    public function testAThousandEmptySheets(): void
    {
        $tree = Trees::read(Workbooks::of([], sheets: 1_000), ReadOptions::of());
        self::assertInstanceOf(\stdClass::class, $tree);
        self::assertSame([1_000, []], [count(get_object_vars($tree)), $tree->{'Sheet 1000'}]);
    }

    /** @return iterable<string, array{string, string, 2?: array<string, mixed>}> */
    public static function wrong(): iterable
    {
        $event = static fn (string $lines): string => "BEGIN:VCALENDAR\nBEGIN:VEVENT\n$lines\nEND:VEVENT\nEND:VCALENDAR\n";
        yield 'names twice' => ['{"a": {"b": 1, "c": 2, "b": 3}}', 'the name "b" stands twice', ['code' => 'data.syntax', 'path' => '/a/b', 'line' => 1, 'column' => 24]];
        yield 'a comma too many' => ["[1,\n 2,]", 'no value of JSON begins like this', ['line' => 2, 'column' => 4]];
        yield 'broken UTF-8' => ["[\"a\xFFb\"]", 'no UTF-8', ['line' => 1, 'column' => 4]];
        yield 'JSON cut off' => ['{"a": [1, 2', 'a comma or ] is wanted', ['path' => '/a']];
        yield 'a number without end' => ['[1e999]', 'larger than any'];
        yield 'a deep list' => [str_repeat('[', 65) . str_repeat(']', 65), 'nested deeper than 64'];
        yield 'a quote never closed' => ["a,b\n1,\"2\n3", 'never closed', ['line' => 2, 'column' => 3]];
        yield 'something behind a quote' => ["a,b\n\"x\"y,2", 'between the closing quote', ['line' => 2, 'column' => 4]];
        yield 'half a workbook' => ["PK\x03\x04 and no more", 'part of it is missing'];
        yield 'a web page' => ['<!DOCTYPE html><html><body>Sorry</body></html>', 'a web page', ['code' => 'data.kind']];
        yield 'another XML' => ["\n\n<svg/>", 'begins with <svg>', ['code' => 'data.kind', 'line' => 3]];
        yield 'a feed cut off' => ["<rss><channel>\n<item><title>a</tit", 'no XML that can be read', ['line' => 2]];
        yield 'laughter' => [
            '<!DOCTYPE r [<!ENTITY a "ha ha ha ha ha ha ha ha ha ha ha">'
            . implode('', array_map(static fn (int $n): string => sprintf('<!ENTITY %s "%s">', chr(97 + $n), str_repeat('&' . chr(96 + $n) . ';', 20)), range(1, 9)))
            . ']><rss><channel><title>&j;</title></channel></rss>', 'no XML that can be read',
        ];
        yield 'a calendar cut off' => ["BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:20260601", 'ends before END:VEVENT'];
        yield 'a line that is none' => [$event("DTSTART:20260601\nhello"), '"hello" is no line', ['line' => 4]];
        yield 'no such day' => [$event('DTSTART;VALUE=DATE:20260631'), 'no date and no time', ['line' => 3]];
        yield 'a zone that nobody knows' => [$event('DTSTART;TZID=Atlantis:20260601T120000'), '"Atlantis" is neither known', ['line' => 3]];
        yield 'no rule' => [$event("DTSTART:20260601T120000Z\nRRULE:FREQ=SOMETIMES"), 'FREQ=SOMETIMES', ['line' => 2]];
        yield 'every second' => [$event("DTSTART:19700101T000000Z\nRRULE:FREQ=SECONDLY"), 'more than 200,000 occurrences', ['code' => 'data.too-large']];
        yield 'an event without a beginning' => [$event('UID:1'), 'no DTSTART', ['line' => 2]];
    }

    /** @param array<string, mixed> $where */
    #[DataProvider('wrong')]
    public function testWhatCannotBeReadIsRefusedWithItsPlace(string $bytes, string $message, array $where = []): void
    {
        try {
            Trees::read($bytes, ReadOptions::of());
            self::fail('read');
        } catch (Refused $refused) {
            self::assertStringContainsString($message, $refused->getMessage());
            self::assertSame($where, array_intersect_key($refused->toArray()['error'], $where));
        }
    }

    public function testBounds(): void
    {
        $refusal = static function (string $bytes, ?string $as = null): ?string {
            try {
                Trees::read($bytes, ReadOptions::of(), $as);
            } catch (Refused $refused) {
                return $refused->getMessage();
            }

            return null;
        };
        self::assertStringContainsString('20,000,001 bytes', (string) $refusal(str_repeat(' ', 20_000_001)));
        self::assertNull($refusal('[' . str_repeat('[],', 299_998) . '[]]'));
        self::assertStringContainsString('300,001 lists and objects', (string) $refusal('[' . str_repeat('[],', 299_999) . '[]]'));
        self::assertStringContainsString('2,000,001 values', (string) $refusal('[' . str_repeat('0,', 2_000_000) . '0]'));
        self::assertNull($refusal('["' . str_repeat('[{,', 1_000_000) . '"]'), 'what stands in a text is no list');
        self::assertStringContainsString('200,000 records', (string) $refusal("a\n" . str_repeat("1\n", 200_001)));
        self::assertNull($refusal("a\n" . str_repeat("1\n", 200_000)));
    }

    public function testAWorkbookThatUnpacksWithoutEndIsLeft(): void
    {
        $rows = [['<c t="inlineStr"><is><t>' . str_repeat('0', 25_000_000) . '</t></is></c>']];
        $bytes = Workbooks::of($rows, sheets: 9);
        self::assertLessThan(1_000_000, strlen($bytes));
        $this->expectExceptionMessage('Unpacked, the workbook has more than 200,000,000 bytes');
        Trees::read($bytes, ReadOptions::of());
    }

    public function testTheRestOfASeriesCanBeMoved(): void
    {
        $calendar = "BEGIN:VCALENDAR\nNAME:Quay\nX-WR-CALNAME:Other\nBEGIN:VEVENT\nUID:1\nDTSTART:20260601T100000Z\nDTEND:20260601T110000Z\nRRULE:FREQ=DAILY;COUNT=5\n"
            . "SUMMARY:Tour\\, short\nEND:VEVENT\n"
            . "BEGIN:VEVENT\nUID:1\nRECURRENCE-ID;RANGE=THISANDFUTURE:20260603T100000Z\nDTSTART:20260603T120000Z\nDTEND:20260603T123000Z\nSUMMARY:Later\nEND:VEVENT\n"
            . "BEGIN:VEVENT\nUID:2\nDTSTART:20260601T090000Z\nRDATE;VALUE=PERIOD:20260602T090000Z/PT2H\nSUMMARY:Loading\nDESCRIPTION: \nEND:VEVENT\nEND:VCALENDAR\n";
        $window = ReadOptions::of()->within(Instant::parse('2026-06-01T09:30:00Z')->ms, Instant::parse('2026-06-05T12:00:00Z')->ms);
        $tree = Trees::read($calendar, $window);
        self::assertInstanceOf(\stdClass::class, $tree);
        self::assertSame('Quay', $tree->name);
        self::assertSame([
            ['Tour, short', '2026-06-01T10:00:00Z', '2026-06-01T11:00:00Z'],
            ['Loading', '2026-06-02T09:00:00Z', '2026-06-02T11:00:00Z'],
            ['Tour, short', '2026-06-02T10:00:00Z', '2026-06-02T11:00:00Z'],
            ['Later', '2026-06-03T12:00:00Z', '2026-06-03T12:30:00Z'],
            ['Later', '2026-06-04T12:00:00Z', '2026-06-04T12:30:00Z'],
        ], array_map(static fn (\stdClass $event): array => [$event->summary, $event->start, $event->end], $tree->events));
        self::assertNull($tree->events[1]->description);
    }

    public function testTimesOfFeeds(): void
    {
        self::assertSame('2026-06-01T16:05:00Z', FeedTime::told('Mon, 1 Jun 2026 17:05 +0100 (a comment)'));
        self::assertSame('2026-06-01T00:00:00Z', FeedTime::told('2026-06'  . '-01'));
        self::assertSame('2026-01-01T00:00:00Z', FeedTime::told('2026'));
        self::assertNull(FeedTime::told('31 Feb 2026 10:00:00 GMT'));
    }
}
