<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Trigger;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Trigger\Contents;
use UpperPane\Core\Trigger\Machine;
use UpperPane\Core\Trigger\ReadyTraces;
use UpperPane\Core\Trigger\Trace;
use UpperPane\Core\Trigger\TriggerChecks;
use UpperPane\Core\Trigger\TriggerCures;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;
use UpperPane\Tests\Core\Typewriter;

/** What mends a map, and what people do before it. */
final class TriggerCuresTest extends TestCase
{
    /** @return iterable<string, array{string, ?string, array<string, mixed>}> the finding, what its cure says, the map */
    public static function mended(): iterable
    {
        $go = [Docs::operator('go')];
        yield 'a state that answers less' => ['trigger.deaf', 'Answer it there too', Docs::map(
            [Docs::state('a'), Docs::state('b')],
            [...$go, Docs::operator('other')],
            [Docs::way('idle', 'go', 'a'), Docs::way('idle', 'other', 'b'), Docs::way('b', 'go', 'a')],
        )];
        yield 'one without end' => ['trigger.stuck', 'Let it end after 30 s', Docs::map([Docs::state('a', more: ['linger' => 'endless'])], $go, [Docs::way('idle', 'go', 'a')])];
        yield 'two that follow each other' => ['trigger.stuck', 'Let rest follow', Docs::map(
            [Docs::state('a', more: ['then' => 'b']), Docs::state('b', more: ['then' => 'b'])],
            $go,
            [Docs::way('idle', 'go', 'a')],
        )];
        yield 'one that goes before it is read' => ['trigger.short', 'Let it stand for 4 s', Docs::map([Docs::state('a')], $go, [Docs::way('idle', 'go', 'a')])];
        yield 'presence that flutters' => ['trigger.flutter', 'Wait for 0.3 s', Docs::map(
            [Docs::state('a', 9000)],
            [['id' => 'near', 'kind' => 'presence', 'sensor' => 's0', 'bands' => [1]]],
            [Docs::way('idle', 'near', 'a')],
        )];
        yield 'a signal for nothing' => ['trigger.unused', 'Take it out', Docs::map([Docs::state('a', 9000)], [...$go, Docs::operator('x')], [Docs::way('idle', 'go', 'a')])];
        yield 'a band between' => ['trigger.bands', 'Let "near" cover it', Docs::map(
            [Docs::state('a', 9000)],
            [
                ['id' => 'near', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [1], 'dwell_ms' => 300], ['id' => 'far', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [3], 'dwell_ms' => 300],
            ],
            [Docs::way('idle', 'near', 'a'), Docs::way('idle', 'far', 'a'), Docs::way('a', 'near', 'a'), Docs::way('a', 'far', 'a')],
        )];
        yield 'what no way leads to' => ['trigger.unreachable', null, Docs::map([Docs::state('a', 9000)], $go, [])];
    }

    /** @param array<string, mixed> $document */
    #[DataProvider('mended')]
    public function testItIsMended(string $code, ?string $says, array $document): void
    {
        $map = TriggerMap::fromArray($document);
        $findings = self::found($map);
        $place = array_search($code, array_column($findings->all, 'code'), true);
        self::assertIsInt($place, implode(', ', array_column($findings->all, 'code')));
        $cure = TriggerCures::of($map, $findings, self::found(...))[$place] ?? null;
        self::assertSame($says, $cure['label'] ?? null);
        if ($cure !== null) {
            $is = static fn (Finding $one): bool => $one->code === $code && $one->elements === $findings->all[$place]->elements;
            $left = array_filter(self::found(TriggerMap::fromArray($cure['set'] + $document))->all, $is);
            self::assertSame([], $left);
        }
    }

    /** What is tried and does not help is not told. */
    public function testACureThatBringsAnotherStopIsNone(): void
    {
        $map = TriggerMap::fromArray(Docs::map([Docs::state('a', more: ['linger' => 'endless'])], [Docs::operator('go')], [Docs::way('idle', 'go', 'a')]));
        $findings = self::found($map);
        $worse = static fn (TriggerMap $changed): Findings => new Findings([...array_filter($findings->all, static fn (Finding $one): bool => $one->code !== 'trigger.stuck'), ...array_fill(
            0,
            2,
            new Finding('trigger.unreachable', \UpperPane\Core\Finding\Level::Stop, ['x'], 'X'),
        )]);
        self::assertSame([], array_filter(TriggerCures::of($map, $findings, $worse), static fn (array $one): bool => str_starts_with($one['label'], 'Let it end')));
    }

    public function testReadyTracesWalkBeforeTheSensor(): void
    {
        $display = self::display();
        $map = TriggerMap::fromArray(Docs::map(
            [Docs::state('hello', 4000), Docs::state('close', 4000), Docs::state('help', 4000)],
            [
                ['id' => 'far', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [3, 4]], ['id' => 'near', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [1, 2]],
                ['id' => 'gone', 'kind' => 'absence', 'sensor' => 's1', 'after_ms' => 2000], ['id' => 'b', 'kind' => 'press', 'sensor' => 'b1', 'button' => '1'],
            ],
            [['from' => ['*'], 'on' => 'far', 'to' => 'hello'], ['from' => ['*'], 'on' => 'near', 'to' => 'close'], ['from' => ['*'], 'on' => 'b', 'to' => 'help']],
        ));
        $came = static function (array $trace) use ($map, $display): array {
            $said = array_map(static fn (array $one): array => ['at' => (string) Instant::ofMs($one['at_ms'])] + array_diff_key($one, ['at_ms' => 1]), $trace['entries']);
            $entered = (new Machine($map, WallClock::in('UTC')))->run(Trace::fromNode(Node::root($said), $map, $display, 0), 0, $trace['until_ms']);

            return array_map(static fn ($one): string => $one->state, $entered);
        };
        $traces = array_column(ReadyTraces::of($map, $display), null, 'name');
        self::assertSame(['walk past', 'come near and stay', 'to and fro at an edge', 'press and touch each'], array_keys($traces));
        self::assertSame(['idle', 'hello', 'idle'], $came($traces['walk past']));
        self::assertSame(['idle', 'hello', 'close', 'idle', 'hello', 'idle'], $came($traces['come near and stay']), 'and on the way back');
        self::assertSame(['idle', 'hello', 'idle'], $came($traces['to and fro at an edge']), 'who sways at an edge is answered once');
        self::assertSame(['idle', 'help', 'idle'], $came($traces['press and touch each']));
        $without = ReadyTraces::of($map, null);
        self::assertSame([['press and touch each'], [['at_ms' => 1000, 'signal' => 'b']]], [array_column($without, 'name'), $without[0]['entries']], 'without a display nobody is before a sensor');
    }

    private static function display(): Display
    {
        return Docs::display(['sensors' => [...Docs::SENSORS, ['id' => 's0', 'kind' => 'presence', 'bands_mm' => [500]]]]);
    }

    private static function found(TriggerMap $map): Findings
    {
        $library = Library::of([['id' => 'a'] + Make::layout([Make::told('t', 'Four words to read', message: false)]), ['id' => 'b'] + Make::layout([])]);
        $around = (new Surroundings('UTC', new Typewriter()))->on(self::display());

        return TriggerChecks::run($map, self::display(), new Contents($map, Composer::over($library, $around), self::display()->raster()), static fn (): null => null);
    }
}
