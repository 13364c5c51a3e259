<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Document;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\BudgetExceeded;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Tests\Core\Make;

/** How far beyond a bound something is: what was stored like that may be stored again, as long as it is no worse. */
final class BudgetTest extends TestCase
{
    /** A stored layout beyond a bound is looked at all the same: what goes beyond is left out, and told beside the rest. */
    public function testWhatGoesBeyondIsToldBesideTheRest(): void
    {
        $list = static fn (int $weight): array => array_map(static fn (string $id): array => Make::picture($id, weight: $weight), ['a', 'b', 'c']);
        $long = ['items' => $list(1000), 'interleave' => ['every' => 1, 'items' => array_map(static fn (int $n): array => Make::picture("x$n"), range(1, 1999))]];
        $layout = Layout::fromArray(Make::layout([
            Make::zone('left', 0, 0, 960, 1080), ['playlist' => $long] + Make::zone('long', 960, 0, 960, 1080), Make::zone('after', 0, 0, 9, 9, null, follows: 'long'),
        ]));
        [$composed, $found] = Composer::over()->bounded($layout);
        self::assertSame([['left', 'after'], [['long']], ['budget.exceeded'], [Level::Stop]], [
            array_keys($composed->zones),
            array_map(static fn (Finding $one): array => $one->elements, $found),
            array_map(static fn (Finding $one): string => $one->code, $found),
            array_map(static fn (Finding $one): Level => $one->level, $found),
        ]);
        $all = array_map(static fn (int $n): array => ['playlist' => $long] + Make::zone("z$n", 0, 0, 9, 9), range(1, 8));
        [$composed, $found] = Composer::over()->bounded(Layout::fromArray(Make::layout($all)));
        self::assertSame([[], 6], [$composed->elements, count($found)], 'nobody has to wait for all of them');
        $many = array_map(static fn (int $n): array => ['id' => "s$n", 'kind' => 'shape', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'fill' => '#000000'], range(1, 2001));
        [$composed, $found] = Composer::over()->bounded(Layout::fromArray(Make::layout($many)));
        self::assertSame([2001, '/elements has 2,001 elements; 2,000 are the most.'], [count($composed->elements), $found[0]->message]);
    }

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
