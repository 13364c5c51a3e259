<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Display;

use PHPUnit\Framework\Attributes\DataProvider;
use UpperPane\Tests\App\ApiTestCase;

/** Tables of surveys, as offices write them. */
final class BulkSurveyTest extends ApiTestCase
{
    private const HEAD = 'name,place,width_px,height_px,width_mm,height_mm,nearest_m,farthest_m';

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testAPreviewTellsWhatWouldChangeAndNothingChanges(): void
    {
        $said = $this->table(self::HEAD . "\nWide,hall,1920,1080,941.2,529.4,2,14\nQuay 1,Gates,3840,2160,1209.6,680.4,2,10\nTall,gates,1920,1080,941.2,529.4,2,10\n");

        self::assertSame([1, 1, 1, []], [$said['new'], $said['changed'], $said['unchanged'], $said['bad']]);
        self::assertSame([['farthest: 10 m → 14 m'], ['new, 3840 x 2160 px']], array_column($said['changes'], 'changes'));
        self::assertCount(2, $this->estate()['displays']);

        $player = $this->player('wide');
        self::assertTrue($this->table(self::HEAD . "\nWide,hall,1920,1080,941.2,529.4,2,14\nQuay 1,Gates,3840,2160,1209.6,680.4,2,10\n", true)['applied']);
        $displays = array_column($this->estate()['displays'], null, 'name');
        self::assertEquals([14_000, 3840], [$displays['Wide']['viewing']['farthest_mm'], $displays['Quay 1']['raster']['width']]);
        self::assertSame(2, $displays['Wide']['revision']);
        self::assertTrue($this->published()->fileExists("pointers/$player->secret.json"), 'its players are told');
    }

    #[DataProvider('writings')]
    public function testTablesAreReadAsTheyAreWritten(string $bytes, string $encoding, string $separator): void
    {
        $said = $this->table($bytes);

        self::assertSame([$encoding, $separator, []], [$said['encoding'], $said['separator'], $said['bad']]);
        self::assertSame('Café Tólm', $said['changes'][0]['name']);
        self::assertSame(['new, 1920 x 1080 px'], $said['changes'][0]['changes']);
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function writings(): iterable
    {
        $row = 'Café Tólm,hall,1920,1080,941.2,529.4,2,10';
        $text = self::HEAD . "\n$row\n";
        yield 'UTF-8' => [$text, 'UTF-8', 'commas'];
        yield 'with a mark and CRLF' => ["\xEF\xBB\xBF" . str_replace("\n", "\r\n", $text), 'UTF-8 with a mark', 'commas'];
        yield 'Latin-1' => [mb_convert_encoding($text, 'ISO-8859-1'), 'Windows-1252 (Latin-1)', 'commas'];
        yield 'semicolons and decimal commas' => [strtr($text, [',' => ';', '.' => ',']), 'UTF-8', 'semicolons'];
        yield 'tabs' => [strtr($text, [',' => "\t"]), 'UTF-8', 'tabs'];
        yield 'UTF-16' => ["\xFF\xFE" . mb_convert_encoding($text, 'UTF-16LE'), 'UTF-16', 'commas'];
        yield 'quoted, with empty lines' => [self::HEAD . "\n\n\"Café Tólm\",\"hall\",1920,1080,941.2,529.4,2,10\n\n", 'UTF-8', 'commas'];
    }

    public function testOfTenThousandRowsTheGoodOnesComeInAndTheBadOnesAreListed(): void
    {
        $rows = [self::HEAD];
        for ($n = 1; $n <= 10_000; $n++) {
            $rows[] = match ($n) {
                17 => 'Sign 17,nowhere,1920,1080,941.2,529.4,2,10',
                4000 => 'Sign 4000,hall,1920,wide,941.2,529.4,2,10',
                9999 => 'Sign 9999,hall,1920',
                default => "Sign $n,hall,1920,1080,941.2,529.4,2,10",
            };
        }
        $said = $this->table(implode("\n", $rows), true);

        self::assertSame(9997, $said['new']);
        self::assertSame([
            ['line' => 18, 'reason' => 'place is "nowhere", no place of the estate.'],
            ['line' => 4001, 'reason' => 'height_px is "wide"; a figure such as 1209.6 is right.'],
            ['line' => 10_000, 'reason' => 'It has 3 fields; the first line names 8 columns.'],
        ], $said['bad']);
        self::assertSame(9999, $this->estate()['of']);
    }

    public function testWhatIsNoTableIsRefused(): void
    {
        $code = fn (string $bytes): string => $this->ask('POST', '/api/survey/table', $bytes)[1]['error']['code'];

        self::assertSame(['csv.empty', 'csv.column', 'csv.column', 'csv.column'], [$code(''), $code("what,is\nthis,1\n"), $code("place,width_px\nhall,1\n"), $code("name,name\na,b\n")]);
        $said = $this->table(self::HEAD . "\nA,hall,0,1080,941.2,529.4,2,10\nB,hall,1920,1080,941.2,529.4,2,\nB,hall,1920,1080,941.2,529.4,2,10\nB,hall,1920,1080,941.2,529.4,2,10\n");
        self::assertSame([
            '/panels/0/native/width is 0 px; it is at least 1 px.',
            '/viewing/farthest_mm is missing.',
            '"B" stands in line 4 already.',
        ], array_column($said['bad'], 'reason'));
    }

    /** @return array<string, mixed> */
    private function table(string $bytes, bool $apply = false): array
    {
        [$status, $said] = $this->ask('POST', '/api/survey/table' . ($apply ? '?apply=1' : ''), $bytes);
        self::assertSame(200, $status, (string) json_encode($said));

        return $said;
    }
}
