<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** Opening hours in words, and days that are pressed on and off (web/src/Display/hours.ts). */
final class HoursTest extends TestCase
{
    public function testHoursAreSaidByDaysThatFollowOneAnother(): void
    {
        $hours = new Module('Display/hours.ts');
        self::assertSame('Mo–Fr 08:00–19:00; Sa, Su 09:00–17:00', $hours->call('hoursSaid', [
            ['days' => ['MO', 'TU', 'WE', 'TH', 'FR'], 'hours' => ['08:00', '19:00']], ['days' => ['SU', 'SA'], 'hours' => ['09:00', '17:00']],
        ]));
        self::assertSame('05:00–23:30', $hours->call('hoursSaid', [['hours' => ['05:00', '23:30']]]));
        self::assertSame('Tu, Th–Sa 20:00–02:00', $hours->call('hoursSaid', [['days' => ['TU', 'TH', 'FR', 'SA'], 'hours' => ['20:00', '02:00']]]));
        self::assertSame('never', $hours->call('hoursSaid', []));
    }

    public function testAllSevenAreEveryDay(): void
    {
        $hours = new Module('Display/hours.ts');
        $on = static fn (array $one, string ...$days): array => $hours->call('onDays', $one, array_values($days));
        $all = ['hours' => ['08:00', '18:00']];
        $some = ['days' => ['MO', 'SU'], 'hours' => ['08:00', '18:00']];
        self::assertSame($some, $on($all, 'MO', 'SU'));
        self::assertSame($all, $on($some, 'MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'));
    }
}
