<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** What is said of overlays at a place (web/src/Overlay/said.ts), and hours that may end after midnight (hours.ts). */
final class OverlayHandsTest extends TestCase
{
    public function testOneOverlayIsSaidOtherwiseAndAllElseStays(): void
    {
        $says = new Module('Overlay/said.ts');
        $saying = static fn (?array $change, string $how): ?array => $says->call('saying', $change, 'b', $how);
        self::assertSame(['add' => ['b']], $saying(null, 'add'));
        self::assertSame(['without' => ['a', 'b']], $saying(['without' => ['a'], 'add' => ['b']], 'without'));
        self::assertSame(['add' => ['a']], $saying(['without' => ['b'], 'add' => ['a']], ''));
        self::assertNull($saying(['add' => ['b']], ''), 'nothing is said there any more');
        self::assertSame(['only' => []], $saying(['only' => ['b']], ''), 'none but these is something that is said');
        self::assertSame(['only' => ['a'], 'add' => ['b']], $saying(['only' => ['a', 'b']], 'add'));
        $of = static fn (?array $change): string => $says->call('saidOf', $change, 'b');
        self::assertSame(['add', 'add', 'without', '', ''], [$of(['add' => ['b']]), $of(['only' => ['b']]), $of(['without' => ['b']]), $of(['add' => ['a']]), $of(null)]);
    }

    public function testWhatEndsBeforeItBeginsEndsOnTheNextDay(): void
    {
        $hours = new Module('Overlay/hours.ts');
        $day = ['start' => '2026-02-28T09:00:00', 'end' => '2026-02-28T17:00:00'];
        self::assertSame(['start' => '2026-02-28T09:00:00', 'end' => '2026-02-28T12:30:00'], $hours->call('between', $day, ['end' => '12:30']));
        $night = $hours->call('between', $day, ['start' => '22:00']);
        self::assertSame(['start' => '2026-02-28T22:00:00', 'end' => '2026-03-01T17:00:00'], $night);
        self::assertSame(['start' => '2026-02-28T22:00:00', 'end' => '2026-03-01T02:00:00'], $hours->call('between', $night, ['end' => '02:00']));
        self::assertSame($day, $hours->call('between', $night, ['start' => '09:00']), 'back on the same day');
        self::assertSame('2026-03-01T22:00:00', $hours->call('between', $night, ['end' => '22:00'])['end'], 'a whole day');
    }
}
