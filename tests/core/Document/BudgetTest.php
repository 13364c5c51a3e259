<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Document;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\BudgetExceeded;

/** How far beyond a bound something is: what was stored like that may be stored again, as long as it is no worse. */
final class BudgetTest extends TestCase
{
    public function testNoWorseIsTheSameBoundAndNoMore(): void
    {
        $elements = static fn (int $count): BudgetExceeded => self::beyond(static fn () => Budget::ofElements($count, '/elements'));
        self::assertTrue($elements(2_500)->isNoWorseThan($elements(2_500)));
        self::assertTrue($elements(2_400)->isNoWorseThan($elements(2_500)));
        self::assertFalse($elements(2_501)->isNoWorseThan($elements(2_500)));
        self::assertFalse(self::beyond(static fn () => Budget::ofDepth(7, '/elements'))->isNoWorseThan($elements(2_500)), 'another bound');
        // Told of a document within another it stays what it is.
        self::assertTrue($elements(2_400)->in('In layout "a": ', '/x')->isNoWorseThan($elements(2_500)));
        self::assertFalse($elements(2_600)->in('In layout "a": ', '/x')->isNoWorseThan($elements(2_500)));
    }

    public function testWhatCannotBeCountedIsSaidSo(): void
    {
        $message = self::beyond(static fn () => Budget::ofSlots(PHP_INT_MAX, '/items'))->getMessage();
        self::assertSame('/items makes a loop of more than can be counted slots before all begins again; 100,000 are the most. Other counts or weights meet sooner.', $message);
        Budget::ofSlots(100_000, '/items');
    }

    private static function beyond(\Closure $ask): BudgetExceeded
    {
        try {
            $ask();
        } catch (BudgetExceeded $e) {
            return $e;
        }
        self::fail('It is within its bound.');
    }
}
