<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Trigger;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Trigger\Trace;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;

/** What a map comes to, instant by instant, by the rules of the contract. */
final class MachineTest extends TestCase
{
    public function testAStateEndsAfterItsLingerAndGoesWhereItIsSaid(): void
    {
        $map = Docs::map([Docs::state('a', 1000, ['then' => 'b']), Docs::state('b', 500)], [Docs::operator('go')], [Docs::way('idle', 'go', 'a')]);
        self::assertSame(['0 idle start', '10 a go', '1010 b lapse', '1510 idle lapse'], Docs::run($map, [['at' => 10, 'signal' => 'go']], 5000));
        self::assertSame(['0 idle start', '10 a go'], Docs::run($map, [['at' => 10, 'signal' => 'go']], 1010), 'the end is excluded');
        self::assertSame(['0 idle start', '10 a go', '1010 b lapse'], Docs::run($map, [['at' => 10, 'signal' => 'go'], ['at' => 1500, 'signal' => 'go']], 1510), 'nothing answers it there');
    }

    public function testOfWhatHappensAtOneInstantTheEndOfAStateComesFirst(): void
    {
        $map = Docs::map([Docs::state('a', 1000), Docs::state('b', 1000)], [Docs::operator('go')], [Docs::way('idle', 'go', 'a'), Docs::way('a', 'go', 'b')]);
        self::assertSame(
            ['0 idle start', '0 a go', '1000 idle lapse', '1000 a go', '1000 b go', '2000 idle lapse'],
            Docs::run($map, [['at' => 0, 'signal' => 'go'], ['at' => 1000, 'signal' => 'go'], ['at' => 1000, 'signal' => 'go']], 2001),
        );
    }

    /** Time, presence, value, others; within a kind entry by entry, each in the order of the signals. */
    public function testTheOrderAtOneInstant(): void
    {
        $signals = [
            Docs::operator('last'), ['id' => 'wind', 'kind' => 'value', 'rows' => ['source' => 'sea'], 'field' => 'wind', 'rises_to' => 25],
            ['id' => 'near', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [1]], ['id' => 'also', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [1, 2]],
            ['id' => 'noon', 'kind' => 'time', 'start' => '2026-06-01T11:00:01'],
        ];
        $states = array_map(static fn (string $id): array => Docs::state($id, 60_000), ['a', 'b', 'c', 'd', 'e']);
        $ways = [Docs::way('idle', 'noon', 'a'), Docs::way('a', 'near', 'b'), Docs::way('b', 'also', 'c'), Docs::way('c', 'wind', 'd'), Docs::way('d', 'last', 'e')];
        $entries = [['at' => 1000, 'signal' => 'last'], ['at' => 1000, 'source' => 'sea', 'value' => 30], ['at' => 1000, 'sensor' => 's1', 'mm' => 100]];
        // Eleven in Lisbon is ten in UTC.
        $run = Docs::run(Docs::map($states, $signals, $ways), $entries, 2000, Docs::display());
        self::assertSame(['0 idle start', '1000 a noon', '1000 b near', '1000 c also', '1000 d wind', '1000 e last'], $run);
    }

    public function testTheFirstWayWhoseCoolDownIsOverIsTaken(): void
    {
        $map = Docs::map([Docs::state('a', 100), Docs::state('b', 100)], [Docs::operator('go')], [
            ['from' => ['idle', 'b'], 'on' => 'go', 'to' => 'a', 'cooldown_ms' => 1000], Docs::way('idle', 'go', 'b'),
        ]);
        $go = static fn (int ...$at): array => array_map(static fn (int $ms): array => ['at' => $ms, 'signal' => 'go'], array_values($at));
        self::assertSame(
            ['0 idle start', '0 a go', '100 idle lapse', '999 b go', '1000 a go', '1100 idle lapse', '1200 b go', '1300 idle lapse'],
            Docs::run($map, $go(0, 50, 999, 1000, 1200), 2000),
            'one cool-down, from whichever state it was taken, and it is over after so long',
        );
    }

    public function testAgainBeginsAStateAnewOrItsLingerAlone(): void
    {
        $map = static fn (array $more): array => Docs::map([Docs::state('a', 1000)], [Docs::operator('go')], [['from' => ['*'], 'on' => 'go', 'to' => 'a'] + $more]);
        $twice = [['at' => 0, 'signal' => 'go'], ['at' => 600, 'signal' => 'go']];
        self::assertSame(['0 idle start', '0 a go', '600 a go', '1600 idle lapse'], Docs::run($map([]), $twice, 5000));
        self::assertSame(['0 idle start', '0 a go', '1600 idle lapse'], Docs::run($map(['again' => false]), $twice, 5000));
        $cooling = Docs::map([Docs::state('a', 1000)], [Docs::operator('go')], [['from' => ['*'], 'on' => 'go', 'to' => 'a', 'again' => false, 'cooldown_ms' => 900]]);
        $more = [...$twice, ['at' => 950, 'signal' => 'go'], ['at' => 1840, 'signal' => 'go']];
        self::assertSame(['0 idle start', '0 a go', '1950 idle lapse'], Docs::run($cooling, $more, 5000), 'its cool-down begins');
    }

    public function testWhatHasNoEndStandsUntilASignalComes(): void
    {
        $map = Docs::map([Docs::state('a', more: ['linger' => 'endless'])], [Docs::operator('go'), Docs::operator('back')], [Docs::way('idle', 'go', 'a'), Docs::way('a', 'back', 'idle')]);
        self::assertSame(['0 idle start', '0 a go', '90000000 idle back'], Docs::run($map, [['at' => 0, 'signal' => 'go'], ['at' => 90_000_000, 'signal' => 'back']], 100_000_000));
    }

    /** An edge has to be passed by the hysteresis; then the band of the reading holds. */
    public function testBandsAreHeld(): void
    {
        $map = Docs::map([Docs::state('a', 10), Docs::state('b', 10)], [
            ['id' => 'near', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [1, 2]], ['id' => 'far', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [3, 4]],
        ], [Docs::way('idle', 'near', 'a'), Docs::way('idle', 'far', 'b')]);
        $read = static function (array $mm) use ($map): array {
            $entries = array_map(static fn (?float $one, int $n): array => ['at' => 100 * $n, 'sensor' => 's1', 'mm' => $one], $mm, array_keys($mm));

            return Docs::run($map, $entries, 10_000, Docs::display());
        };
        $came = static fn (string $one): ?string => preg_match('/^(\d+) \w (\w+)$/', $one, $m) === 1 ? "$m[2] $m[1]" : null;
        $comes = static fn (array $run): array => array_values(array_filter(array_map($came, $run)));
        self::assertSame(['far 100'], $comes($read([3951.0, 3949.0])), 'beyond all bands nobody is held, and their edge has to be passed as well');
        self::assertSame(['far 0', 'near 300'], $comes($read([1500.0, 980.0, 951.0, 949.9])));
        self::assertSame(['near 0', 'far 300'], $comes($read([800.0, 1000.0, 1049.9, 1050.0])), 'at the edge and the hysteresis it is left');
        self::assertSame(['far 0', 'far 300'], $comes($read([3900.0, 4049.9, 4050.0, 3900.0])), 'beyond the last band nobody is there');
        self::assertSame(['near 0', 'near 200'], $comes($read([800.0, null, 800.0])), 'nobody is nobody at once');
    }

    public function testABandThatIsSentIsHeldAtOnceAndMayBeCountedFromTheFarEnd(): void
    {
        $map = Docs::map([Docs::state('a', 10)], [['id' => 'near', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [1]]], [Docs::way('idle', 'near', 'a')]);
        $far = Docs::display(['sensors' => [['numbering' => 'far-first'] + Docs::SENSORS[0]]]);
        self::assertSame(['0 idle start', '0 a near', '10 idle lapse'], Docs::run($map, [['at' => 0, 'sensor' => 's1', 'band' => 1]], 100, Docs::display()));
        self::assertSame(['0 idle start'], Docs::run($map, [['at' => 0, 'sensor' => 's1', 'band' => 1]], 100, $far));
        self::assertSame(['0 idle start', '0 a near', '10 idle lapse'], Docs::run($map, [['at' => 0, 'sensor' => 's1', 'band' => 4]], 100, $far));
    }

    /** A wait that ends at the instant of the reading that breaks it has come. */
    public function testDwellAndAbsenceComeAtTheirEnd(): void
    {
        $map = Docs::map([Docs::state('a', 10), Docs::state('g', 10)], [
            ['id' => 'near', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [1, 2], 'dwell_ms' => 300], ['id' => 'gone', 'kind' => 'absence', 'sensor' => 's1', 'after_ms' => 2000],
        ], [Docs::way('idle', 'near', 'a'), Docs::way('idle', 'gone', 'g')]);
        $at = static fn (array $mm): array => array_map(static fn (int $ms, ?int $one): array => ['at' => $ms, 'sensor' => 's1', 'mm' => $one], array_keys($mm), $mm);
        self::assertSame(['0 idle start', '2000 g gone', '2010 idle lapse'], Docs::run($map, [], 60_000), 'nobody is there from the beginning on, and it comes once');
        self::assertSame(['0 idle start', '400 a near', '410 idle lapse'], Docs::run($map, $at([100 => 400, 250 => 800]), 1000, Docs::display()), 'from band to band it goes on');
        self::assertSame(['0 idle start', '400 a near', '410 idle lapse', '2400 g gone', '2410 idle lapse'], Docs::run($map, $at([100 => 400, 400 => null]), 3000, Docs::display()));
        self::assertSame(['0 idle start', '2399 g gone', '2409 idle lapse'], Docs::run($map, $at([100 => 400, 399 => null]), 3000, Docs::display()), 'a moment too short');
        self::assertSame(['0 idle start', '2000 g gone', '2010 idle lapse', '2300 a near', '2310 idle lapse'], Docs::run($map, $at([2000 => 400]), 3000, Docs::display()));
    }

    /** Held against a clock that is asked every millisecond. */
    public function testPresenceIsWhatAClockSeesThatIsAskedEveryMillisecond(): void
    {
        $random = Make::random(1717);
        for ($round = 0; $round < Make::rounds(40); $round++) {
            [$dwell, $after, $bands] = [50 * $random->getInt(0, 6), 50 * $random->getInt(1, 10), $random->getInt(0, 1) === 1 ? [1, 2] : [2, 4]];
            $map = Docs::map([Docs::state('a', 1), Docs::state('g', 1)], [
                ['id' => 'in', 'kind' => 'presence', 'sensor' => 's1', 'bands' => $bands, 'dwell_ms' => $dwell], ['id' => 'out', 'kind' => 'absence', 'sensor' => 's1', 'after_ms' => $after],
            ], [['from' => ['*'], 'on' => 'in', 'to' => 'a'], ['from' => ['*'], 'on' => 'out', 'to' => 'g']]);
            $band = [];
            for ($ms = 0; $ms < 4000; $ms += 50 * $random->getInt(1, 8)) {
                $band[$ms] = $random->getInt(0, 4);
            }
            $comes = [];
            [$held, $since, $gone, $toldIn, $toldOut] = [0, null, 0, false, false];
            for ($ms = 0; $ms < 4000; $ms++) {
                foreach ([0, 1] as $step) {
                    // What has lasted long enough comes before what is read at this moment, and what is read may come at once.
                    if ($since !== null && !$toldIn && $ms - $since >= $dwell) {
                        [$toldIn, $comes[]] = [true, "$ms a in"];
                    }
                    if ($gone !== null && !$toldOut && $ms - $gone >= $after) {
                        [$toldOut, $comes[]] = [true, "$ms g out"];
                    }
                    if ($step === 0 && isset($band[$ms])) {
                        $held = $band[$ms];
                        [$since, $toldIn] = in_array($held, $bands, true) ? [$since ?? $ms, $toldIn] : [null, false];
                        [$gone, $toldOut] = $held === 0 ? [$gone ?? $ms, $toldOut] : [null, false];
                    }
                }
            }
            $entries = array_map(static fn (int $ms, int $one): array => ['at' => $ms, 'sensor' => 's1', 'band' => $one], array_keys($band), $band);
            $run = array_values(array_filter(Docs::run($map, $entries, 4000, Docs::display()), static fn (string $one): bool => !str_ends_with($one, 'start') && !str_ends_with($one, 'lapse')));
            self::assertSame($comes, $run, json_encode([$bands, $dwell, $after, $band]) ?: '');
        }
    }

    public function testAFigureComesWhereItPassesItsLimitAndIsArmedAgainBelow(): void
    {
        $run = static function (array $limits, array $values): array {
            $map = Docs::map([Docs::state('a', 1)], [['id' => 'w', 'kind' => 'value', 'rows' => ['source' => 'sea'], 'field' => 'wind'] + $limits], [Docs::way('idle', 'w', 'a')]);
            $entries = array_map(static fn (?float $value, int $n): array => ['at' => 10 * $n, 'source' => 'sea', 'field' => 'wind', 'value' => $value], $values, array_keys($values));

            $came = array_filter(Docs::run($map, $entries, 10_000), static fn (string $one): bool => str_ends_with($one, ' w'));

            return array_values(array_map(static fn (string $one): int => intdiv((int) $one, 10), $came));
        };
        self::assertSame([1, 5], $run(['rises_to' => 25, 'falls_below' => 20], [24.0, 25.0, 22.0, 30.0, 19.9, 25.0]));
        self::assertSame([0, 2], $run(['rises_to' => 25], [25.0, 24.9, 25.0]), 'the first counts as coming from below');
        self::assertSame([0, 3], $run(['falls_below' => 5], [4.0, 3.0, 5.0, 4.9]), 'and from above');
        self::assertSame([0], $run(['rises_to' => 25], [30.0, null, 31.0]), 'nothing changes nothing');
        $any = Docs::map([Docs::state('a', 1)], [['id' => 'w', 'kind' => 'value', 'rows' => ['source' => 'sea'], 'field' => 'wind', 'rises_to' => 25]], [Docs::way('idle', 'w', 'a')]);
        $said = static fn (array $more): array => Docs::run($any, [['at' => 0, 'value' => 30] + $more], 100);
        self::assertCount(3, $said(['source' => 'sea']), 'of whichever field');
        self::assertCount(1, $said(['source' => 'sea', 'field' => 'swell']));
        self::assertCount(1, $said(['source' => 'land']));
    }

    public function testButtonsKeysAndAreas(): void
    {
        $map = Docs::map([Docs::state('a', 1)], [
            ['id' => 'p', 'kind' => 'press', 'sensor' => 'b1', 'button' => '2'], ['id' => 'k', 'kind' => 'key', 'key' => 'F2'],
            ['id' => 't', 'kind' => 'touch', 'rect' => ['x' => 10, 'y' => 20, 'width' => 30, 'height' => 40]],
        ], array_map(static fn (string $on): array => Docs::way('idle', $on, 'a'), ['p', 'k', 't']));
        $entries = [
            ['at' => 0, 'sensor' => 'b1', 'button' => '2'], ['at' => 10, 'sensor' => 'b1', 'button' => '1'], ['at' => 20, 'sensor' => 'b1', 'button' => '17'], ['at' => 30, 'key' => 'F2'],
            ['at' => 40, 'key' => 'f2'], ['at' => 50, 'touch' => ['x' => 10, 'y' => 20]], ['at' => 60, 'touch' => ['x' => 40, 'y' => 20]], ['at' => 70, 'touch' => ['x' => 39.9, 'y' => 59.9]],
            ['at' => 80, 'touch' => ['x' => 20, 'y' => 60]],
        ];
        $run = array_values(array_filter(Docs::run($map, $entries, 1000, Docs::display()), static fn (string $one): bool => !str_ends_with($one, 'lapse')));
        $keys = Docs::display(['sensors' => [['id' => 'k1', 'kind' => 'keys', 'names' => ['Play' => 'F2']]]]);
        self::assertSame('0 a k', Docs::run($map, [['at' => 0, 'key' => 'Play']], 10, $keys)[1]);
        self::assertSame(['0 idle start', '0 a p', '20 a p', '30 a k', '50 a t', '70 a t'], $run, '17 is what the second button is called by its box');
    }

    public function testTimesComeAgainAndAgainOnTheClockOfTheDisplay(): void
    {
        $noon = ['id' => 'noon', 'kind' => 'time', 'start' => '2026-06-01T12:00:00', 'rrule' => 'FREQ=DAILY', 'exdates' => ['2026-06-02T12:00:00']];
        $map = Docs::map([Docs::state('a', 1)], [$noon], [Docs::way('idle', 'noon', 'a')]);
        $came = array_filter(Docs::run($map, [], 3 * 86_400_000, Docs::display()), static fn (string $one): bool => str_ends_with($one, 'noon'));
        self::assertSame(['3600000 a noon', '176400000 a noon'], array_values($came));
        self::assertSame('7200000 a noon', Docs::run($map, [], 86_400_000)[1], 'without a display in UTC');
    }

    /** @return iterable<string, array{string, list<array<string, mixed>>, bool}> path, entries, whether there is a display */
    public static function wrongEntries(): iterable
    {
        $at = '2026-06-01T10:00:00Z';
        yield 'of nothing' => ['/0', [['at' => $at]], true];
        yield 'of two things' => ['/0', [['at' => $at, 'key' => 'a', 'signal' => 'go']], true];
        yield 'no such signal' => ['/0/signal', [['at' => $at, 'signal' => 'no']], true];
        yield 'a sensor and no display' => ['/0/sensor', [['at' => $at, 'sensor' => 's1', 'mm' => 4]], false];
        yield 'a sensor that it lacks' => ['/0/sensor', [['at' => $at, 'sensor' => 's9', 'mm' => 4]], true];
        yield 'a distance of buttons' => ['/0/mm', [['at' => $at, 'sensor' => 'b1', 'mm' => 4]], true];
        yield 'a negative distance' => ['/0/mm', [['at' => $at, 'sensor' => 's1', 'mm' => -1]], true];
        yield 'a distance in words' => ['/0/mm', [['at' => $at, 'sensor' => 's1', 'mm' => 'near']], true];
        yield 'no such band' => ['/0/band', [['at' => $at, 'sensor' => 's1', 'band' => 5]], true];
        yield 'says nothing' => ['/0', [['at' => $at, 'sensor' => 's1']], true];
        yield 'unsorted' => ['/1/at', [['at' => '2026-06-01T10:00:01Z', 'key' => 'a'], ['at' => $at, 'key' => 'b']], true];
        yield 'before the beginning' => ['/0/at', [['at' => '2026-06-01T09:59:59Z', 'key' => 'a']], true];
        yield 'a field too many' => ['/0/mm', [['at' => $at, 'key' => 'a', 'mm' => 3]], true];
    }

    /** @param list<array<string, mixed>> $entries */
    #[\PHPUnit\Framework\Attributes\DataProvider('wrongEntries')]
    public function testWhatCannotHaveHappenedIsRefusedWhereItStands(string $path, array $entries, bool $hasDisplay): void
    {
        try {
            Docs::run(Docs::map([], [Docs::operator('go')], []), $entries, 1000, $hasDisplay ? Docs::display() : null);
            self::fail('It was taken.');
        } catch (Refused $e) {
            self::assertSame($path, $e->path);
        }
    }

    public function testAMapThatNeverRestsIsEndedInWords(): void
    {
        $map = Docs::map([Docs::state('a', 1, ['then' => 'a'])], [Docs::operator('go')], [Docs::way('idle', 'go', 'a')]);
        $this->expectException(\UpperPane\Core\Document\BudgetExceeded::class);
        Docs::run($map, [['at' => 0, 'signal' => 'go']], 86_400_000);
    }

    public function testALengthIsStatedBeforeItRuns(): void
    {
        $map = TriggerMap::fromArray(Docs::map([Docs::state('a', more: ['linger' => 'own'])], [Docs::operator('go')], []));
        self::assertTrue($map->states['a']->isOwn);
        self::assertSame(3000, $map->lasting(['a' => 3000])->states['a']->lingerMs);
        self::assertSame([], Trace::fromNode(Node::root([]), $map, null)->entries);
    }
}
