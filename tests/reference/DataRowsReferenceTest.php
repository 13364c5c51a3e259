<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use Random\Randomizer;
use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Path\JsonPath;
use UpperPane\Core\Data\Rows\Order;
use UpperPane\Core\Data\Ticks;
use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\Unit;
use UpperPane\Tests\Core\Make;

/**
 * What is made of trees: against the compliance suite of RFC 9535 (687 cases, in npm jsonpath-rfc9535 1.3.0), ICU 72 by Debian's python3-icu 2.10,
 * npm d3-array 3.2.5, and Debian's units 2.22.
 */
final class DataRowsReferenceTest extends TestCase
{
    private const WEB = __DIR__ . '/../../web/node_modules';
    private const ZONES = ['Europe/Lisbon', 'Atlantic/Azores', 'America/New_York', 'UTC'];
    private const LANGUAGES = ['en', 'pt', 'pt-PT', 'de', 'fr', 'pl', 'ar', 'ja', 'sv', 'cy', 'ru', 'es'];

    public function testTheComplianceSuiteOfJsonPath(): void
    {
        $suite = json_decode((string) file_get_contents(self::WEB . '/jsonpath-rfc9535/src/__tests__/jsonpath-compliance-test-suite/cts.json'));
        self::assertCount(687, $suite->tests);
        foreach ($suite->tests as $case) {
            $where = "$case->name: $case->selector";
            try {
                $nodes = JsonPath::parse($case->selector)->nodes($case->document ?? null);
                self::assertFalse($case->invalid_selector ?? false, $where);
                // Where members have no order there are several right answers.
                $wanted = array_map(json_encode(...), isset($case->result) ? [$case->result] : $case->results);
                self::assertContains(json_encode($nodes), $wanted, $where);
            } catch (DataRefused $refused) {
                self::assertTrue($case->invalid_selector ?? false, "$where: {$refused->getMessage()}");
            }
        }
    }

    public function testMessagesAsIcuTellsThem(): void
    {
        $random = Make::random(314);
        $cases = [];
        for ($i = 0, $count = Make::rounds(400); $i < $count; $i++) {
            $cases[] = [
                'pattern' => self::pattern($random, 0),
                'row' => [
                    'n' => [0, 1, 2, 3, 5, 11, 21, 100, 1234][$random->getInt(0, 8)],
                    'x' => [0.5, -2.675, 1234567.891, 1.0, 0.005][$random->getInt(0, 4)],
                    'word' => ['Tolm', 'late', "d'or {1}"][$random->getInt(0, 2)],
                    'when' => ['ms' => 1_780_000_000_000 + 1000 * $random->getInt(0, 40_000_000)],
                ],
                'language' => self::LANGUAGES[$i % count(self::LANGUAGES)],
                'tz' => self::ZONES[$random->getInt(0, 3)],
            ];
        }
        $told = self::icu(['messages' => $cases, 'sorted' => []])['icu'];
        foreach ($cases as $index => $case) {
            self::assertIsString($told[$index], (string) json_encode([$case['pattern'], $told[$index]]));
            $values = ['when' => Instant::ofMs($case['row']['when']['ms'])] + $case['row'];
            $ours = Message::parse($case['pattern'])->tell($values, new Formats($case['language'], $case['tz']));
            self::assertSame($told[$index], $ours->text, (string) json_encode($case));
            self::assertSame([], $ours->missing);
        }
    }

    public function testTextsAreSortedAsIcuDoes(): void
    {
        $random = Make::random(315);
        $letters = mb_str_split('aAáÁäÄåÅbBcčCdDeéEfgGhHiıïjkKlłLmnñNoøöOpqrsSßtuüUvwxyýzžZ0123456789 -_.,æœ');
        $cases = [];
        foreach (self::LANGUAGES as $language) {
            $texts = [];
            for ($i = 0; $i < 60; $i++) {
                $texts[] = implode('', array_map(static fn (): string => $letters[$random->getInt(0, count($letters) - 1)], range(1, $random->getInt(1, 6))));
            }
            $cases[] = ['language' => $language, 'texts' => $texts];
        }
        foreach (self::icu(['messages' => [], 'sorted' => $cases])['sorted'] as $index => $sorted) {
            $texts = $cases[$index]['texts'];
            $order = (new Order([['t', false]], $cases[$index]['language']))->of(array_map(static fn (string $text): array => ['t' => $text], $texts));
            self::assertSame($sorted, array_map(static fn (int $place): string => $texts[$place], $order), $cases[$index]['language']);
        }
    }

    public function testTicksAsD3PlacesThem(): void
    {
        $random = Make::random(316);
        $domains = [];
        for ($i = 0; $i < 2_000; $i++) {
            $size = 10 ** $random->getInt(-4, 6);
            $from = round((($random->getInt(0, 1_000_000) / 1_000_000) - 0.5) * $size, $random->getInt(0, 6));
            // As people write them: a multiple counts as within to 12 digits here, exactly there.
            $domains[] = [$from, (float) sprintf('%.9f', $from + round(($random->getInt(0, 1_000_000) / 1_000_000) * $size, 6) + $size / 1000), $random->getInt(2, 10)];
        }
        $js = 'import {ticks} from ' . json_encode('file://' . realpath(self::WEB . '/d3-array/dist/d3-array.mjs'))
            . '; let s = ""; process.stdin.on("data", (d) => (s += d)).on("end", () => console.log(JSON.stringify(JSON.parse(s).map(([a, b, n]) => ticks(a, b, n)))))';
        $theirs = self::asked(['node', '--input-type=module', '-e', $js], (string) json_encode($domains));
        foreach ($domains as $index => [$from, $to, $count]) {
            $ours = Ticks::of($from, $to, $count);
            self::assertCount(count($theirs[$index]), $ours, "$from to $to, $count");
            foreach ($ours as $place => $tick) {
                self::assertEqualsWithDelta($theirs[$index][$place], $tick, 1e-11 * max(abs($from), abs($to)), "$from to $to, $count");
            }
        }
    }

    public function testUnitsAsTheUnitsProgramConvertsThem(): void
    {
        $names = ['kn' => 'knot', 'km/h' => 'km/hour', 'mi' => 'mile', 'nmi' => 'nauticalmile', 'gal' => 'gallon', 'L' => 'liter', 'in' => 'inch', 'ft' => 'foot']
            + ['C' => 'tempC', 'F' => 'tempF', 'K' => 'tempK'];
        $random = Make::random(317);
        $pairs = 0;
        foreach (Unit::names() as $from) {
            foreach (Unit::names() as $to) {
                // What units calls inHg is taken at 60 F; the definition here is the conventional one (NIST SP 811, appendix B.8).
                if ($from === $to || !Unit::isLike($from, $to) || $from === 'inHg' || $to === 'inHg') {
                    continue;
                }
                $value = round(($random->getInt(0, 1_000_000) / 1_000_000) * 500, 2);
                $is = static fn (string $unit): string => $names[$unit] ?? $unit;
                $written = isset($names[$from]) && str_starts_with($names[$from], 'temp') ? "{$names[$from]}($value)" : "$value {$is($from)}";
                $theirs = trim((string) shell_exec(sprintf('units -t -d 15 %s %s', escapeshellarg($written), escapeshellarg($is($to)))));
                self::assertEqualsWithDelta((float) $theirs, Unit::converted($value, $from, $to), 1e-11 * max(1.0, abs((float) $theirs)), "$written in $to");
                $pairs++;
            }
        }
        self::assertSame(4 * 3 + 8 * 7 + 2 + 3 * 2, $pairs);
        self::assertEqualsWithDelta(33.86389, Unit::converted(1, 'inHg', 'hPa'), 0.00001, 'NIST SP 811, appendix B.8');
    }

    private static function pattern(Randomizer $random, int $depth): string
    {
        $pattern = '';
        for ($i = 0, $count = $random->getInt(1, 4); $i < $count; $i++) {
            $inner = static fn (): string => self::pattern($random, $depth + 1);
            $pattern .= match ($random->getInt(0, $depth < 2 ? 14 : 11)) {
                0 => '{word}',
                1 => '{n}',
                2 => '{when}',
                3 => '{x, number}',
                4 => '{x,number,' . ['integer', 'percent', '#,##0.00', '0.0', '::compact-short', '#0.###'][$random->getInt(0, 5)] . '}',
                5 => '{when,date' . ['', ',short', ',long', ',full', ',HH:mm', ',yyyy-MM-dd', ",d 'de' MMMM", ',EEEE', ',::yMMMd'][$random->getInt(0, 8)] . '}',
                6 => '{when,time' . ['', ',short', ',medium', ',full'][$random->getInt(0, 3)] . '}',
                7 => '{n, spellout}',
                8 => " it''s ",
                9 => " '{'quoted'}' ",
                10 => ' don\'t ',
                11 => ' · ',
                12 => "{n, plural, =0 {none} one {# a {$inner()}} other {# b {$inner()}}}",
                13 => "{word, select, Tolm {to {$inner()}} other {{$inner()} # else}}",
                default => "{n, selectordinal, one {#st} two {#nd} few {#rd} other {#th {$inner()}}}",
            };
        }

        return $pattern;
    }

    /**
     * @param array<mixed> $cases
     * @return array<mixed>
     */
    private static function icu(array $cases): array
    {
        return self::asked(['/usr/bin/python3', __DIR__ . '/data/messages.py'], (string) json_encode($cases, JSON_PRESERVE_ZERO_FRACTION));
    }

    /**
     * @param list<string> $command
     * @return array<mixed>
     */
    private static function asked(array $command, string $stdin): array
    {
        $process = proc_open($command, [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
        self::assertIsResource($process);
        fwrite($pipes[0], $stdin);
        fclose($pipes[0]);
        $answer = json_decode((string) stream_get_contents($pipes[1]), true);
        $said = (string) stream_get_contents($pipes[2]);
        self::assertSame(0, proc_close($process), $said);
        self::assertIsArray($answer, $said);

        return $answer;
    }
}
