<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Units;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\TypedFigure;

final class TypedFigureTest extends TestCase
{
    #[TestWith(['576', 576])]
    #[TestWith(['1920-576', 1344])]
    #[TestWith(['1/3', 640])]
    #[TestWith(['2/3 - 20', 1260])]
    #[TestWith(['50%', 960])]
    #[TestWith(['33,3 %', 639], 'a decimal comma')]
    #[TestWith(['2.5mm', 5], '2.5 mm at 0.5 mm a px')]
    #[TestWith(['100% - 10mm', 1900])]
    #[TestWith(['(1080 - 2*20) / 3', 347], 'rounded to whole px')]
    #[TestWith(['1920 / 2', 960], 'a larger number over a smaller one is a division')]
    #[TestWith(['1 / 2 * 100', 50], 'and so is what goes on')]
    #[TestWith(['-(10 + 5)', -15])]
    #[TestWith(['1920 ÷ 2 × 3', 2880])]
    #[TestWith(['0.5', 1], 'halves go up')]
    #[TestWith(['16px', 16])]
    public function testWhatIsTypedIsWorkedOut(string $text, int $px): void
    {
        self::assertSame($px, TypedFigure::px($text, 1920, 0.5));
    }

    #[TestWith(['', 'nothing is typed'])]
    #[TestWith(['12 ab', '"ab" cannot be read'])]
    #[TestWith(['٣٤', '"٣٤" cannot be read'])]
    #[TestWith(['12 + ३', '"३" cannot be read'])]
    #[TestWith(['5 em', '"em" cannot be read'])]
    #[TestWith(['1920-', 'a figure is missing at its end'])]
    #[TestWith(['(1', 'a ")" is missing'])]
    #[TestWith(['1)', '")" is not expected there'])]
    #[TestWith(['1 2', '"2" is not expected there'])]
    #[TestWith(['*2', '"*" is not expected there'])]
    #[TestWith(['7/0', 'it divides by 0'])]
    #[TestWith(['999999999*99', 'more than a canvas has'])]
    #[TestWith(['2mm', 'no display is chosen'])]
    public function testWhatIsNoFigureSaysWhy(string $text, string $why): void
    {
        $this->expectException(Refused::class);
        $this->expectExceptionMessage($why);
        TypedFigure::px($text, 1920, null);
    }
}
