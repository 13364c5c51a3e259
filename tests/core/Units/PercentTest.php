<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Units;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Units\Percent;

/** Shares in words: halves upwards, also where a float falls a little short of one. */
final class PercentTest extends TestCase
{
    #[TestWith([0.125, '13 %'])]
    #[TestWith([0.115, '12 %'])]
    #[TestWith([0.2, '20 %'])]
    #[TestWith([1.0, '100 %'])]
    #[TestWith([0.0, '0 %'])]
    #[TestWith([0.0096, '1 %'])]
    #[TestWith([0.004, '0.4 %'])]
    #[TestWith([0.00042, '0.04 %'])]
    #[TestWith([0.0000001, '0 %'])]
    public function testAShareIsTold(float $share, string $told): void
    {
        self::assertSame($told, rtrim(preg_replace('/\.0+ /', ' ', Percent::of($share)) ?? ''));
    }
}
