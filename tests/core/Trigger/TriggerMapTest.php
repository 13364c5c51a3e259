<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Trigger;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;

/** What is a map, and what is not. */
final class TriggerMapTest extends TestCase
{
    public function testTheTableSaysWhereEachSignalLeadsFromEachState(): void
    {
        $map = TriggerMap::fromArray(Docs::map([Docs::state('a')], [Docs::operator('x'), Docs::operator('y')], [
            Docs::way('idle', 'x', 'a', ['cooldown_ms' => 9]), Docs::way('idle', 'x', 'idle'), ['from' => ['*'], 'on' => 'y', 'to' => 'idle'],
        ]));
        self::assertSame([
            ['from' => 'idle', 'on' => 'x', 'to' => 'a'], ['from' => 'idle', 'on' => 'y', 'to' => 'idle'],
            ['from' => 'a', 'on' => 'x', 'to' => null], ['from' => 'a', 'on' => 'y', 'to' => 'idle'],
        ], iterator_to_array($map->table(), false));
    }

    public function testItIsWrittenAsItWasRead(): void
    {
        $document = Docs::map([Docs::state('a', 5, ['name' => 'A', 'zone' => 'main']), ['plays' => null] + Docs::state('b')], [Docs::operator('x')], [Docs::way('idle', 'x', 'a')]);
        self::assertSame($document, TriggerMap::fromArray($document)->toArray());
    }

    /** @return iterable<string, array{string, array<string, mixed>}> path, map */
    public static function refused(): iterable
    {
        $with = static fn (array $more): array => $more + Docs::map([Docs::state('a')], [Docs::operator('go')], [Docs::way('idle', 'go', 'a')]);
        $state = static fn (array $state): array => Docs::map([$state], [], []);
        $signal = static fn (array $signal): array => Docs::map([], [$signal], []);
        $way = static fn (array $way): array => Docs::map([Docs::state('a')], [Docs::operator('go')], [$way]);
        yield 'no rest' => ['/rest', array_diff_key($with([]), ['rest' => 1])];
        yield 'a rest that is no state' => ['/rest', $with(['rest' => 'away'])];
        yield 'no states' => ['/rest', $with(['states' => []])];
        yield 'a state twice' => ['/states/2/id', Docs::map([Docs::state('a'), Docs::state('a')], [], [])];
        yield 'by its case alone' => ['/states/2/id', Docs::map([Docs::state('a'), Docs::state('A')], [], [])];
        yield 'a name of figures' => ['/states/1/id', $state(Docs::state('1a'))];
        yield 'rest that ends' => ['/states/0/linger_ms', $with(['states' => [['id' => 'idle', 'linger_ms' => 5]]])];
        yield 'rest that goes on' => ['/states/0/then', $with(['states' => [['id' => 'idle', 'then' => 'idle']]])];
        yield 'nothing to play' => ['/states/1/plays', $state(['id' => 'a', 'linger_ms' => 5])];
        yield 'no linger' => ['/states/1/linger_ms', $state(['id' => 'a', 'plays' => ['layout' => 'x']])];
        yield 'two lingers' => ['/states/1/linger', $state(['linger_ms' => 5] + Docs::state('a', more: ['linger' => 'own']))];
        yield 'no time at all' => ['/states/1/linger_ms', $state(Docs::state('a', 0))];
        yield 'then nowhere' => ['/states/1/then', $state(Docs::state('a', more: ['then' => 'b']))];
        yield 'a signal of its own' => ['/signals/0/id', $signal(Docs::operator('lapse'))];
        yield 'no kind' => ['/signals/0/kind', $signal(['id' => 'a', 'kind' => 'smell'])];
        yield 'no bands' => ['/signals/0/bands', $signal(['id' => 'a', 'kind' => 'presence', 'sensor' => 's1', 'bands' => []])];
        yield 'no limit' => ['/signals/0', $signal(['id' => 'a', 'kind' => 'value', 'rows' => ['source' => 's'], 'field' => 'f'])];
        yield 'limits crossed' => ['/signals/0/falls_below', $signal(['id' => 'a', 'kind' => 'value', 'rows' => ['source' => 's'], 'field' => 'f', 'rises_to' => 1, 'falls_below' => 2])];
        yield 'a rule that is none' => ['/signals/0/rrule', $signal(['id' => 'a', 'kind' => 'time', 'start' => '2026-06-01T12:00:00', 'rrule' => 'FREQ=NOW'])];
        yield 'from nowhere' => ['/transitions/0/from', $way(['from' => [], 'on' => 'go', 'to' => 'a'])];
        yield 'from a state that is not there' => ['/transitions/0/from/0', $way(Docs::way('b', 'go', 'a'))];
        yield 'in other case' => ['/transitions/0/on', $way(Docs::way('idle', 'Go', 'a'))];
        yield 'to nowhere' => ['/transitions/0/to', $way(Docs::way('idle', 'go', 'b'))];
        yield 'a field that nobody knows' => ['/transitions/0/via', $way(Docs::way('idle', 'go', 'a', ['via' => 'a']))];
    }

    /** @param array<string, mixed> $map */
    #[DataProvider('refused')]
    public function testWhatIsNoMapIsRefusedWhereItIsWrong(string $path, array $map): void
    {
        try {
            TriggerMap::fromArray($map);
            self::fail('It was taken.');
        } catch (Refused $e) {
            self::assertSame($path, $e->path, $e->getMessage());
        }
    }

    /** From everywhere, and from here: the order in which they are written counts. */
    public function testAWayFromEveryStateStandsAmongTheOthersWhereItIsWritten(): void
    {
        $map = TriggerMap::fromArray(Docs::map([Docs::state('a')], [Docs::operator('x')], [
            Docs::way('a', 'x', 'a', ['cooldown_ms' => 1]), ['from' => ['*'], 'on' => 'x', 'to' => 'a', 'cooldown_ms' => 1], Docs::way('a', 'x', 'idle'),
        ]));
        self::assertSame([[0, 1, 2], [1]], [$map->ways('a', 'x'), $map->ways('idle', 'x')]);
        self::assertSame([['x' => true], ['x' => true]], [$map->answered('a'), $map->answered('idle')]);
    }

    public function testAThousandStatesAreReadAndRun(): void
    {
        $states = $ways = [];
        for ($n = 0; $n < 1000; $n++) {
            $states[] = Docs::state("s$n", 10);
            $ways[] = Docs::way($n === 0 ? 'idle' : 's' . ($n - 1), 'go', "s$n");
        }
        $entries = array_map(static fn (int $n): array => ['at' => $n, 'signal' => 'go'], range(0, 999));
        self::assertSame('1009 idle lapse', array_slice(Docs::run(Docs::map($states, [Docs::operator('go')], $ways), $entries, 5000), -1)[0]);
    }
}
