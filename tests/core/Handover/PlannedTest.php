<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Handover;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Handover\Planned;

/** A release whose plan ends soon says so. */
final class PlannedTest extends TestCase
{
    private const DAY = 86_400_000;

    #[DataProvider('plans')]
    public function testAPlanThatEndsSoonIsTold(int $days, ?string $then, ?string $level, ?string $message): void
    {
        $finding = (new Planned((1000 + $days) * self::DAY, $then))->finding(1000 * self::DAY);
        self::assertSame([$level, $message], [$finding?->level->value, $finding?->message]);
    }

    /** @return iterable<string, array{int, ?string, ?string, ?string}> */
    public static function plans(): iterable
    {
        yield 'far away' => [15, 'Night', null, null];
        yield 'in two weeks' => [14, 'Night', 'warning', 'What is planned ends in 14 days; from then on the standby "Night" plays. Hand over again.'];
        yield 'tomorrow, without standby' => [1, null, 'warning', 'What is planned ends in a day; from then on what played last goes on. Hand over again.'];
        yield 'over' => [-3, 'Night', 'stop', 'What was planned ended 3 days ago; since then the standby "Night" plays. Hand over again.'];
    }
}
