<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Text;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Text\FaceWeight;
use UpperPane\Core\Text\SetText;
use UpperPane\Tests\Core\Typewriter;

/** Breaking lines, on a face of which every letter is 10 px wide; what Chromium does is held against it in tests/reference. */
final class SetTextTest extends TestCase
{
    /** @param list<string> $lines */
    #[TestWith(['Berth 2 is closed', 100, ['Berth 2 is', 'closed']], 'exactly as wide as the box')]
    #[TestWith(['Berth 2 is closed', 99, ['Berth 2', 'is closed']], 'a px less')]
    #[TestWith(['one   two', 40, ['one', 'two']], 'spaces at the end of a line hang')]
    #[TestWith(["one\n\ntwo\r\nthree", 400, ['one', '', 'two', 'three']], 'line ends as they are typed')]
    #[TestWith(['', 100, ['']], 'nothing is one empty line')]
    #[TestWith(['check-in e-mail', 60, ['check-', 'in e-', 'mail']], 'after a dash')]
    #[TestWith(['a -5 b', 30, ['a', '-5', 'b']], 'a minus stays with its figure')]
    #[TestWith(['and/or', 40, ['and/', 'or']], 'a word that is longer is torn')]
    #[TestWith(['abcdefghij kl', 40, ['abcd', 'efgh', 'ij', 'kl']], 'and its last part goes on as a word')]
    #[TestWith(["e\u{301}e\u{301}e\u{301}", 20, ["e\u{301}", "e\u{301}", "e\u{301}"]], 'never within a letter and its accent')]
    #[TestWith(['18 €', 30, ['18', '€']])]
    #[TestWith(["18\u{a0}€", 30, ["18\u{a0}", '€']], 'a space that does not break: torn as one word')]
    public function testLinesBreak(string $text, float $width, array $lines): void
    {
        $set = self::set($text, $width);
        self::assertSame($lines, array_column($set->lines, 'text'));
        self::assertSame(24.0 * count($lines), $set->heightPx);
    }

    public function testATabGoesOnToItsStop(): void
    {
        self::assertSame(100.0, self::set("a\tbc", INF)->widthPx, 'stops every 80 px');
        self::assertSame(180.0, self::set("abcdefgh\tij", INF)->widthPx, 'at the stop: the next one');
    }

    public function testItOverflowsItsBoxInWidthOrInHeight(): void
    {
        $set = self::set('Berth 2 is closed', 100);
        self::assertSame([false, true, true], [$set->overflows(100, 48), $set->overflows(100, 47.9), $set->overflows(99.9, 48)]);
    }

    public function testALongTextIsSetLineByLine(): void
    {
        $set = self::set(str_repeat('Sailings to Tolm. ', 1200), 400);
        self::assertLessThanOrEqual(400.0, $set->widthPx);
        self::assertSame(trim(str_repeat('Sailings to Tolm. ', 1200)), trim(implode(' ', array_column($set->lines, 'text'))), 'no word is lost');
    }

    /** @param non-empty-list<int> $there */
    #[TestWith([400, [400, 600], 400])]
    #[TestWith([450, [400, 500], 500], 'between 400 and 500 the bolder first')]
    #[TestWith([400, [500, 700], 500])]
    #[TestWith([400, [300, 700], 300], 'then the lighter')]
    #[TestWith([300, [200, 400], 200])]
    #[TestWith([300, [400, 700], 400])]
    #[TestWith([600, [400, 500], 500])]
    #[TestWith([600, [500, 700], 700], 'bolder first above 500')]
    public function testTheNearestWeightIsDrawn(int $wanted, array $there, int $drawn): void
    {
        self::assertSame($drawn, FaceWeight::nearest($wanted, $there));
    }

    private static function set(string $text, float $width): SetText
    {
        return SetText::of($text, new Typewriter(), Typewriter::FAMILY, 400, 20.0, 1.2, $width);
    }
}
