<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Playback\Report\Heard;

/** What was said before a display, as a player tells it (web/src/player/hearsay.ts) and the core reads it. */
final class HearsayTest extends TestCase
{
    public function testOneButtonIsOneThingDistancesOfASensorAreOneAndTheLastIsFirst(): void
    {
        $said = [
            ['sensor' => 'b1', 'button' => '7'], ['sensor' => 's1', 'mm' => 830], ['sensor' => 's1', 'mm' => null], ['sensor' => 's1', 'band' => 2], ['sensor' => 's1', 'band' => 3],
            ['sensor' => 'b1', 'button' => '8'], ['touch' => ['x' => 5, 'y' => 6]], ['sensor' => 'b1', 'button' => '7'], ['sensor' => 's1', 'mm' => ['ERR' => 7], 'secret' => 'x'], ['nothing' => 1],
        ];
        $told = $this->told($said);
        self::assertSame([
            [['sensor' => 's1', 'mm' => '{"ERR":7}'], 3], [['sensor' => 'b1', 'button' => '7'], 2], [['touch' => '{"x":5,"y":6}'], 1], [['sensor' => 'b1', 'button' => '8'], 1],
            [['sensor' => 's1', 'band' => 3], 1], [['sensor' => 's1', 'band' => 2], 1],
        ], array_map(static fn (array $one): array => [$one['said'], $one['times']], $told));
        self::assertSame('2026-06-01T00:00:00.007Z', $told[1]['last']);
        foreach ($told as $one) {
            self::assertSame($one['said'], Heard::read(Node::root($one))->said);
        }
    }

    public function testABrokenSensorFillsNoMoreThanIsTold(): void
    {
        $told = $this->told(array_map(static fn (int $n): array => ['sensor' => 'b1', 'button' => "B$n"], range(1, 500)));
        self::assertSame([Heard::MOST, 'B500', 'B461'], [count($told), $told[0]['said']['button'], $told[39]['said']['button']]);
    }

    /**
     * @param list<array<string, mixed>> $said each a ms after the one before
     * @return list<array<string, mixed>>
     */
    private function told(array $said): array
    {
        $told = Scene::of('hearsay', 'told', $said);

        return is_array($told) ? array_values($told) : [];
    }
}
