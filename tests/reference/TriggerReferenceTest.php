<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Trigger\Scxml;
use UpperPane\Core\Trigger\ScxmlReader;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Trigger\RandomMaps;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;

/**
 * Maps held against others that know state charts: what is written is run by SCION (npm @scion-scxml/scxml) to the same states, and taken by the compiler of Qt
 * (Debian libqt5scxml5-bin); of the documents of the W3C's tests (npm @scion-scxml/test-framework) none is a map, and each is refused with its line.
 */
final class TriggerReferenceTest extends TestCase
{
    private const UNTIL_MS = 60_000;

    private const TESTS = InNode::WEB . '/node_modules/@scion-scxml/test-framework/test';

    private const QT = '/usr/lib/qt5/bin/qscxmlc';

    /** Its timers and its clock are those of the script: what is due comes before what is said at the same moment. */
    private const SCION = <<<'JS'
        import { createRequire } from 'node:module'
        import { mkdtempSync, writeFileSync } from 'node:fs'
        import { tmpdir } from 'node:os'
        const scxml = createRequire(process.cwd() + '/x.js')('@scion-scxml/scxml')
        let now = 0
        let timers = []
        let ids = 0
        const Real = Date
        class Clock extends Real {
          constructor(...given) { given.length ? super(...given) : super(now) }
          static now() { return now }
        }
        globalThis.setTimeout = (work, ms) => { timers.push({ id: ++ids, at: now + ms, work }); return ids }
        globalThis.clearTimeout = (id) => { timers = timers.filter((one) => one.id !== id) }
        const until = (ms) => {
          for (;;) {
            const due = timers.filter((one) => one.at <= ms).sort((a, b) => a.at - b.at || a.id - b.id)[0]
            if (!due) break
            timers = timers.filter((one) => one !== due)
            now = due.at
            due.work()
          }
          now = ms
        }
        const folder = mkdtempSync(tmpdir() + '/scxml')
        const model = (text, n) => new Promise((done, failed) => {
          writeFileSync(`${folder}/${n}.scxml`, text)
          scxml.pathToModel(`${folder}/${n}.scxml`, (e, made) => e ? failed(e) : made.prepare((f, fn) => f ? failed(f) : done(fn), { Date: Clock }))
        })
        const runs = []
        for (const [n, { text, entries, ends }] of asked.entries()) {
          const chart = new scxml.core.Statechart(await model(text, n))
          const entered = []
          now = 0
          timers = []
          chart.on('onEntry', (state) => state.startsWith('$') || entered.push(`${now} ${state}`))
          chart.start()
          for (const { at, signal } of entries) { until(at); chart.gen({ name: signal }) }
          until(ends)
          runs.push(entered)
        }
        console.log(JSON.stringify(runs))
        JS;

    public function testAGeneralInterpreterComesToTheSameStates(): void
    {
        $random = Make::random(5150);
        $maps = $questions = [];
        for ($n = 0; $n < Make::rounds(100); $n++) {
            $maps[$n] = RandomMaps::one($random);
            $questions[$n] = ['text' => Scxml::of(TriggerMap::fromArray($maps[$n])), 'entries' => RandomMaps::entries($random, $maps[$n]), 'ends' => self::UNTIL_MS - 1];
        }
        $runs = (array) InNode::asked(self::SCION, $questions);
        $entered = 0;
        foreach ($maps as $n => $map) {
            $own = array_map(static fn (string $one): string => (string) preg_replace('/ \S+$/', '', $one), Docs::run($map, $questions[$n]['entries'], self::UNTIL_MS));
            self::assertSame($own, $runs[$n], json_encode([$map, $questions[$n]['entries']]) ?: '');
            $entered += count($own);
        }
        self::assertGreaterThan(10 * count($maps), $entered, 'something happens');
    }

    public function testTheCompilerOfQtTakesWhatIsWritten(): void
    {
        self::assertFileExists(self::QT, 'bin/test installs libqt5scxml5-bin');
        $random = Make::random(61);
        for ($n = 0; $n < Make::rounds(20); $n++) {
            $text = Scxml::of(TriggerMap::fromArray(RandomMaps::one($random)));
            self::assertSame(0, self::compiled($text), $text);
        }
        $wrong = '<scxml xmlns="http://www.w3.org/2005/07/scxml" version="1.0"><state id="a"><transition event="t" target="b"/></state></scxml>';
        self::assertNotSame(0, self::compiled($wrong), 'it finds what is wrong');
    }

    public function testNoneOfTheDocumentsOfTheW3CIsAMap(): void
    {
        $files = glob(self::TESTS . '/w3c-ecma/*.scxml') ?: [];
        self::assertCount(208, $files);
        foreach ($files as $file) {
            try {
                ScxmlReader::read((string) file_get_contents($file));
                self::fail(basename($file) . ' was taken.');
            } catch (Refused $e) {
                self::assertMatchesRegularExpression('/^Line \d+: <\w+> /', $e->getMessage(), basename($file));
            }
        }
    }

    /** What lies flat among the tests of SCION is read, and comes to the states that they say. */
    public function testFlatDocumentsOfOthersAreReadAndRun(): void
    {
        $read = 0;
        foreach (['basic/*', 'documentOrder/*', 'default-initial-state/*', 'atom3-basic-tests/m[01]'] as $which) {
            foreach (glob(self::TESTS . "/$which.scxml") ?: [] as $file) {
                $map = ScxmlReader::read((string) file_get_contents($file));
                $script = (array) json_decode((string) file_get_contents(substr($file, 0, -strlen('scxml')) . 'json'), true);
                self::assertSame([$map['rest']], $script['initialConfiguration'], $file);
                [$entries, $states] = [[], [$map['rest']]];
                foreach (is_array($script['events']) ? $script['events'] : [] as $n => ['event' => $event, 'nextConfiguration' => $then]) {
                    $entries[] = ['at' => 10 * $n, 'signal' => $event['name']];
                    $states[] = $then[0];
                }
                $run = array_map(static fn (string $one): string => explode(' ', $one)[1], Docs::run($map, $entries, 10_000));
                self::assertSame($states, $run, $file);
                $read++;
            }
        }
        self::assertSame(8, $read);
    }

    private static function compiled(string $text): int
    {
        $folder = sys_get_temp_dir() . '/' . bin2hex(random_bytes(8));
        mkdir($folder);
        file_put_contents("$folder/map.scxml", $text);
        exec(sprintf('%s --header %2$s/map.h --impl %2$s/map.cpp %2$s/map.scxml 2>/dev/null', self::QT, $folder), result_code: $code);
        array_map(unlink(...), glob("$folder/*") ?: []);
        rmdir($folder);

        return $code;
    }
}
