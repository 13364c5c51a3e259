<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Display;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Legibility;
use UpperPane\Tests\Core\Make;

/** How large letters are to the eye: 2 atan(h / 2d), 16 and 20 arc minutes (ISO 9241-303, from memory). */
final class LegibilityTest extends TestCase
{
    public function testTheFiguresOfTheContract(): void
    {
        $said = Legibility::of(0.63, 34, 10_000);

        self::assertSame(['comfortable' => 93, 'limit' => 74], $said['needed_cap_px']);
        self::assertSame(['unreadable', 7.36], [$said['verdict'], $said['arcmin']]);
    }

    #[TestWith([93, 'comfortable'])]
    #[TestWith([92, 'limit'])]
    #[TestWith([74, 'limit'])]
    #[TestWith([73, 'unreadable'])]
    public function testThePxAskedForAreThoseThatTurnTheVerdict(int $capPx, string $verdict): void
    {
        self::assertSame($verdict, Legibility::of(0.63, $capPx, 10_000)['verdict']);
    }

    public function testAngleHeightAndDistanceAgree(): void
    {
        $random = Make::random(16);
        for ($i = 0; $i < 200; $i++) {
            [$cap, $distance] = [$random->getInt(1, 5000) / 7, $random->getInt(200, 900_000) / 3];
            $arcmin = Legibility::arcmin($cap, $distance);
            self::assertEqualsWithDelta($cap, Legibility::capMm($arcmin, $distance), $cap * 1e-9);
            self::assertEqualsWithDelta($distance, Legibility::distanceMm($cap, $arcmin), $distance * 1e-9);
        }
        // Common practice, no source: 25 mm for every 3 m are 28.6'.
        self::assertSame(28.6, round(Legibility::arcmin(Legibility::ruleOfThumbMm(12_000), 12_000), 1));
    }

    public function testAnLedRasterWantsSevenPixelsForACapital(): void
    {
        self::assertSame(7, Legibility::neededCapPx(Legibility::LIMIT_ARCMIN, 10, 5000, led: true));
        self::assertSame(3, Legibility::neededCapPx(Legibility::LIMIT_ARCMIN, 10, 5000));
    }
}
