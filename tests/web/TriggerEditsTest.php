<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Trigger\RandomMaps;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;

/** What hands do to a map (web/src/Trigger/triggers.ts). */
final class TriggerEditsTest extends TestCase
{
    private const FILE = 'Trigger/triggers.ts';

    /** One field of the table is another then, and no other is. */
    public function testASignalLeadsElsewhereFromOneStateAlone(): void
    {
        $random = Make::random(33);
        [$calls, $want] = [[], []];
        for ($round = 0; $round < Make::rounds(150); $round++) {
            $map = RandomMaps::one($random);
            $states = array_column($map['states'], 'id');
            $signals = array_column($map['signals'], 'id');
            $pick = static fn (array $of): string => (string) $of[$random->getInt(0, count($of) - 1)];
            [$state, $signal, $to] = [$pick($states), $pick($signals), $random->getInt(0, 3) === 0 ? null : $pick($states)];
            $calls[] = ['leading', [$map, $state, $signal, $to]];
            $want[] = ["$state $signal" => $to] + self::table($map);
        }
        foreach ((new Module(self::FILE))->calls($calls) as $round => $after) {
            self::assertEquals($want[$round], self::table($after), json_encode($calls[$round], JSON_THROW_ON_ERROR));
        }
    }

    public function testWhatIsRenamedOrTakenOutIsSoEverywhere(): void
    {
        $map = Docs::map([Docs::state('a', more: ['then' => 'b']), Docs::state('b')], [Docs::operator('go'), Docs::operator('on')], [
            ['from' => ['idle', 'b'], 'on' => 'go', 'to' => 'a'], Docs::way('a', 'on', 'b'), Docs::way('a', 'go', 'b'),
        ]);
        [$state, $rest, $signal, $without, $silent] = (new Module(self::FILE))->calls([
            ['renamed', [$map, 'state', 'b', 'c']], ['renamed', [$map, 'state', 'idle', 'quiet']], ['renamed', [$map, 'signal', 'go', 'come']],
            ['without', [$map, 'state', 'b']], ['without', [$map, 'signal', 'go']],
        ]);
        self::assertSame(['c', 'c', 'c'], [$state['states'][1]['then'], $state['states'][2]['id'], $state['transitions'][0]['from'][1]]);
        self::assertSame(['quiet', 'quiet', 'quiet'], [$rest['rest'], $rest['states'][0]['id'], $rest['transitions'][0]['from'][0]]);
        self::assertSame(['come', 'come', 'on', 'come'], [$signal['signals'][0]['id'], ...array_column($signal['transitions'], 'on')]);
        self::assertSame([[['from' => ['idle'], 'on' => 'go', 'to' => 'a']], false], [$without['transitions'], isset($without['states'][1]['then'])]);
        self::assertSame(['on'], array_column($silent['transitions'], 'on'));
        foreach ([$state, $rest, $signal, $without, $silent] as $one) {
            TriggerMap::fromArray($one);
        }
    }

    public function testNamesAreThoseOfStateCharts(): void
    {
        $names = (new Module(self::FILE))->calls([
            ['freeId', ['Café zur Brücke', []]], ['freeId', ['12 boats', []]], ['freeId', ['Boats', ['boats', 'BOATS-2']]], ['freeId', ['lapse', []]], ['freeId', ['???', []]],
        ]);
        self::assertSame(['cafe-zur-brucke', 'boats', 'boats-3', 'lapse-2', 'one'], $names);
    }

    public function testSignalsAreSaidInWords(): void
    {
        $sensors = [['id' => 's1', 'kind' => 'presence', 'bands_mm' => [500, 1000, 2000, 4000]]];
        $said = static fn (array $signal): array => ['saidOf', [['id' => 'x'] + $signal, $sensors]];
        self::assertSame(
            ['nearer than 1.0 m for 0.3 s', '1.0 to 4.0 m', 'bands 1, 3', 'nobody for 2 s', 'key space', 'wind from 25 up', 'wind below 4', '12:00, again and again'],
            (new Module(self::FILE))->calls([
                $said(['kind' => 'presence', 'sensor' => 's1', 'bands' => [1, 2], 'dwell_ms' => 300]), $said(['kind' => 'presence', 'sensor' => 's1', 'bands' => [4, 3]]),
                $said(['kind' => 'presence', 'sensor' => 's1', 'bands' => [1, 3]]), $said(['kind' => 'absence', 'sensor' => 's1', 'after_ms' => 2000]), $said(['kind' => 'key', 'key' => ' ']),
                $said(['kind' => 'value', 'field' => 'wind', 'rises_to' => 25]), $said(['kind' => 'value', 'field' => 'wind', 'falls_below' => 4]),
                $said(['kind' => 'time', 'start' => '2026-06-01T12:00:00', 'rrule' => 'FREQ=DAILY']),
            ]),
        );
    }

    /**
     * @param array<string, mixed> $map
     * @return array<string, ?string> where each signal leads from each state
     */
    private static function table(array $map): array
    {
        $table = [];
        foreach (TriggerMap::fromArray($map)->table() as $one) {
            $table["$one[from] $one[on]"] = $one['to'];
        }
        ksort($table);

        return $table;
    }
}
