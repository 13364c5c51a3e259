<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Time\VolumeByHours;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;

/** How loud an item is, by the hours of the day on the clock of its display. */
final class LevelsTest extends TestCase
{
    public function testTheFirstWindowThatFitsHoldsAlsoPastMidnight(): void
    {
        $levels = self::levels(60, [['22:00', '06:00', 10], ['12:00', '14:00', 100], ['13:00', '24:00', 30]]);
        $at = static fn (string $time): int => $levels->at((int) substr($time, 0, 2) * 3600 + (int) substr($time, 3) * 60);
        self::assertSame(
            [10, 10, 60, 60, 100, 100, 30, 10, 10],
            array_map($at, ['00:00', '05:59', '06:00', '11:59', '12:00', '13:30', '14:00', '22:00', '23:59']),
        );
    }

    public function testTwoAreHeardTogetherOnlyWhereTheirHoursMeet(): void
    {
        $night = self::levels(0, [['22:00', '06:00', 10]]);
        $day = self::levels(50, [['21:00', '07:00', 0]]);
        $dawn = self::levels(0, [['05:30', '06:30', 5]]);
        self::assertSame([false, true, false, false, true], [
            $night->isHeardWith($day), $night->isHeardWith($dawn), $day->isHeardWith($dawn), VolumeByHours::mute()->isHeardWith($day), $day->isHeard(),
        ]);
        self::assertFalse(VolumeByHours::mute()->isHeard());
    }

    public function testAFilmIsAsLoudAsItsHourOnTheOtherIsland(): void
    {
        $film = Make::film('f', 15_000, volume: 70, levels: [['hours' => ['08:00', '09:00'], 'volume' => 20]]);
        $layout = Make::composed(Make::layout([Make::zone('z', 0, 0, 1920, 1080, [$film, Make::picture('p'), Make::film('still')])]));
        // 08:30 in Lisbon in summer, 07:30 on the Azores.
        $at = Instant::parse('2026-06-03T07:30:00Z')->ms;
        foreach (['Europe/Lisbon' => 20, 'Atlantic/Azores' => 70] as $zone => $volume) {
            self::assertSame($volume, Make::shownAt($layout, $at, new Surroundings($zone))->at($at)->toArray()['things'][0]['volume']);
        }
        self::assertArrayNotHasKey('volume', Make::shownAt($layout, $at)->at($at + 26_000)->toArray()['things'][0], 'muted unless it is said');
    }

    /** @param list<array{string, string, int}> $hours */
    private static function levels(int $volume, array $hours): VolumeByHours
    {
        $node = Node::root(['volume' => $volume, 'levels' => array_map(static fn (array $one): array => ['hours' => [$one[0], $one[1]], 'volume' => $one[2]], $hours)]);

        return VolumeByHours::fromNodes($node->field('volume'), $node->field('levels'));
    }
}
