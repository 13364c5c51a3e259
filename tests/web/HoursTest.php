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

    public function testADayIsPressedOnAndOff(): void
    {
        $hours = new Module('Display/hours.ts');
        $press = static fn (array $one, string $day): array => $hours->call('withDay', $one, $day);
        $all = ['hours' => ['08:00', '18:00']];
        $without = ['days' => ['MO', 'TU', 'WE', 'TH', 'FR', 'SA'], 'hours' => ['08:00', '18:00']];
        self::assertSame($without, $press($all, 'SU'));
        self::assertSame($all, $press($without, 'SU'), 'all seven are every day');
        self::assertSame($all, $press(['days' => ['MO'], 'hours' => ['08:00', '18:00']], 'MO'), 'no day at all would never be open');
    }
}
