<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Sensor;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Trigger\Machine;
use UpperPane\Core\Trigger\Trace;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;

/** The Bench's sensors (web/src/Bench/sensor.ts) say what such devices say, as the core reads it; what was recorded is a trace for it. */
final class BenchTest extends TestCase
{
    public function testASensorThatSendsNumbersMeansTheBandInWhichSomebodyStands(): void
    {
        $random = Make::random(61);
        [$calls, $want] = [[], []];
        for ($round = 0; $round < Make::rounds(200); $round++) {
            $bands = [];
            for ($n = $random->getInt(1, 10), $mm = 0; $n > 0; $n--) {
                $bands[] = $mm += $random->getInt(100, 900);
            }
            $document = ['id' => 's1', 'kind' => 'presence', 'bands_mm' => $bands, 'numbering' => $random->getInt(0, 1) === 0 ? 'near-first' : 'far-first'];
            $sensor = Sensor::fromNode(Node::root($document));
            $at = $random->getInt(0, 5) === 0 ? null : $random->getInt(0, $mm + 500);
            $calls[] = ['reading', [(array) $sensor->compiled(), ['sends' => 'band', 'noise_mm' => 0, 'drops' => 0, 'rate' => 10], $at]];
            $want[] = [$sensor, $at === null ? 0 : $sensor->bandOf($at)];
        }
        foreach ((new Module('Bench/sensor.ts'))->calls($calls) as $round => $said) {
            self::assertSame($want[$round][1], $want[$round][0]->bandSent($said['band']), json_encode($calls[$round], JSON_THROW_ON_ERROR));
        }
    }

    public function testItErrsAndMissesAsItIsTold(): void
    {
        $sensor = (array) Sensor::fromNode(Node::root(['id' => 's1', 'kind' => 'presence', 'bands_mm' => [1000, 4000]]))->compiled();
        $says = static fn (float $noise, float $drops): array => array_column((new Module('Bench/sensor.ts'))->calls(
            array_fill(0, 2000, ['reading', [$sensor, ['sends' => 'mm', 'noise_mm' => $noise, 'drops' => $drops, 'rate' => 10], 2000]]),
        ), 'mm');
        self::assertSame([2000], array_values(array_unique($says(0, 0))));
        self::assertSame([null], array_values(array_unique($says(0, 100))));
        $noisy = $says(100, 0);
        $mean = array_sum($noisy) / 2000;
        $deviation = sqrt(array_sum(array_map(static fn (int $one): float => ($one - $mean) ** 2, $noisy)) / 2000);
        // Five times the standard error of each, so that this fails once in a million runs where nothing is wrong.
        self::assertEqualsWithDelta(2000, $mean, 5 * 100 / sqrt(2000));
        self::assertEqualsWithDelta(100, $deviation, 5 * 100 / sqrt(4000));
        self::assertEqualsWithDelta(600, count(array_filter($says(0, 30), is_null(...))), 5 * sqrt(2000 * 0.3 * 0.7));
    }

    /** As a file it comes to the same states, whoever runs it: the instants are told, and nothing else is another. */
    public function testWhatWasRecordedIsATraceForTheCoreAndComesBackFromItsFile(): void
    {
        $said = [['at' => 1_780_000_000_400, 'signal' => 'go'], ['at' => 1_780_000_001_900, 'signal' => 'go'], ['at' => 1_780_000_090_000, 'signal' => 'go']];
        $module = new Module('Bench/traces.ts');
        $trace = $module->call('traceOf', $said, 'one', 'One');
        self::assertSame([[0, 1500, 89_600], 119_600], [array_column($trace['entries'], 'at_ms'), $trace['until_ms']]);
        $from = 1_790_000_000_000;
        $signals = $module->call('asSignals', $trace, $from);
        $map = TriggerMap::fromArray(Docs::map([Docs::state('a')], [Docs::operator('go')], [['from' => ['idle'], 'on' => 'go', 'to' => 'a']]));
        $entered = (new Machine($map, WallClock::in('UTC')))->run(Trace::fromNode(Node::root($signals), $map, null, $from), $from, $from + 120_000);
        self::assertSame(['idle', 'a', 'idle', 'a'], array_slice(array_column($entered, 'state'), 0, 4));
        $back = $module->call('fromSignals', json_encode($signals, JSON_THROW_ON_ERROR), 'x', 'X');
        self::assertSame([$trace['entries'], 119_600], [$back['entries'], $back['until_ms']]);
    }
}
