<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/** Texts of several styles, and what becomes of one that has no room. On a face on which one can count: letters are half as wide as the type is high. */
final class TextRoomTest extends TestCase
{
    public function testPartsInAnotherSizeTakeTheirOwnRoom(): void
    {
        $text = self::read('Berth 22', ['marks' => [['from' => 6, 'to' => 8, 'size' => 2]]]);
        $set = $text->set(new Typewriter());
        self::assertEqualsWithDelta(6 * 20 + 2 * 40, $set->widthPx, 1e-9);
        self::assertEqualsWithDelta(80 * 1.2, $set->heightPx, 1e-9, 'a line is as high as its largest type');
        self::assertEqualsWithDelta(40 * 1.2, self::read('Berth 22', ['marks' => [['from' => 6, 'to' => 8, 'size' => 0.25]]])->set(new Typewriter())->heightPx, 1e-9, 'and never lower than its own');
    }

    public function testOnlyTheLinesWithLargeTypeAreHigher(): void
    {
        // 10 letters of 20 px fill the box; the large word stands on the second line.
        $text = self::read('Sailing to Tolm', ['marks' => [['from' => 11, 'to' => 15, 'size' => 1.5]]], 200, 300);
        $boxes = $text->lineBoxes($text->set(new Typewriter()));
        self::assertSame([48.0, 72.0], array_map(static fn ($box): float => round($box->height, 6), $boxes));
        self::assertSame([0.0, 48.0], array_map(static fn ($box): float => round($box->y, 6), $boxes));
        self::assertEqualsWithDelta(120.0, $boxes[1]->width, 1e-9);
    }

    public function testCharactersAreCountedAsCodePoints(): void
    {
        $text = self::read("São João ⛴ x", ['marks' => [['from' => 4, 'to' => 8, 'size' => 2]]]);
        self::assertEqualsWithDelta(8 * 20 + 4 * 40, $text->set(new Typewriter())->widthPx, 1e-9);
    }

    public function testTypeShrinksUntilItFitsAndNoFurtherThanToldTo(): void
    {
        $faces = new Typewriter();
        $shrunk = self::read('Berth 2 is closed', ['overflow' => 'shrink', 'least_px' => 12, 'marks' => [['from' => 0, 'to' => 7, 'size' => 0.5]]], 200, 24)->resolved($faces);
        self::assertSame(20.0, $shrunk->style->sizePx);
        self::assertSame(7 * 5.0 + 10 * 10.0, $shrunk->set($faces)->widthPx, 'its parts in proportion');
        self::assertSame([], self::findings(self::text('Berth 2 is closed', ['overflow' => 'shrink', 'least_px' => 12], 200, 24), 'text.overflow'));
        self::assertCount(1, self::findings(self::text('Berth 2 is closed', ['overflow' => 'shrink', 'least_px' => 30], 200, 24), 'text.overflow'), 'below 30 px it is told');
        self::assertSame(40.0, self::read('Berth 2', ['overflow' => 'shrink'], 200, 48)->resolved($faces)->style->sizePx, 'what fits stays');
        $drawn = Make::shownAt(Make::composed(Make::layout([self::text('Berth 2 is closed', ['overflow' => 'shrink'], 200, 24)])), 0, new Surroundings('UTC', $faces))->at(0)->toArray()['things'][0];
        self::assertSame(20, $drawn['style']['size_px'], 'and so it is drawn');
    }

    #[TestWith(['Berth 2 is closed until noon', 200, 48, 'Berth 2 i…'])]
    #[TestWith(['Berth 2 is closed until noon', 200, 96, 'Berth 2 is closed un…'])]
    #[TestWith(['Berth 2', 200, 48, 'Berth 2'])]
    #[TestWith(['Berth 2', 20, 48, '…'])]
    #[TestWith(["one\ntwo\nthree", 400, 96, "one\ntwo…"])]
    #[TestWith(["one\ntwo\nthree", 400, 100, "one\ntwo…"], 'half a line is none')]
    public function testWordsAreCutWithAnEllipsisWhereTheBoxEnds(string $text, int $width, int $height, string $left): void
    {
        self::assertSame($left, self::read($text, ['overflow' => 'clip'], $width, $height)->resolved(new Typewriter())->text);
    }

    public function testWhatIsCutIsTold(): void
    {
        [$finding] = self::findings(self::text('Berth 2 is closed', ['overflow' => 'clip', 'marks' => [['from' => 0, 'to' => 17, 'weight' => 700]]], 200, 48), 'text.clipped');
        self::assertSame('"t" has no room for 8 of its 17 characters: it ends in "Berth 2 i…".', $finding->message);
        self::assertSame([], self::findings(self::text('Berth 2', ['overflow' => 'clip'], 200, 48), 'text.clipped'));
    }

    public function testTheSmallestPartAndThePalestPartAreLookedAt(): void
    {
        $small = self::text('Welcome', ['marks' => [['from' => 0, 'to' => 2, 'size' => 0.05]]], 1900, 600, 400);
        $found = Make::checked(Make::composed(Make::layout([$small])), \UpperPane\Core\Display\Display::fromArray(Make::display()), new Typewriter())->all;
        self::assertSame(['text.small'], array_map(static fn (Finding $f): string => $f->code, $found));
        self::assertSame(2713, $found[0]->measure['size_px']['limit'] ?? null, '135.63 px for the smallest, which is a twentieth');
        [$finding] = self::findings(self::text('Welcome', ['marks' => [['from' => 0, 'to' => 2, 'color' => '#222222']]]), 'text.contrast');
        self::assertStringContainsString('"t": 1.3 to 1', $finding->message);
    }

    /** @param list<array<string, int>> $marks */
    #[TestWith([[['from' => 0, 'to' => 9]], '/elements/0/marks/0/to'])]
    #[TestWith([[['from' => 3, 'to' => 3]], '/elements/0/marks/0/to'])]
    #[TestWith([[['from' => 0, 'to' => 3], ['from' => 2, 'to' => 4]], '/elements/0/marks/1/from'])]
    public function testMarksThatLieOverEachOtherOrBeyondTheTextAreRefused(array $marks, string $path): void
    {
        try {
            self::read('Berth 2', ['marks' => $marks]);
            self::fail('It was read.');
        } catch (Refused $e) {
            self::assertSame($path, $e->path);
        }
    }

    public function testTypeDoesNotShrinkWhereItIsSmallerAlready(): void
    {
        self::assertSame(40.0, self::read('Berth 2 is closed', ['overflow' => 'shrink', 'least_px' => 50], 100, 40)->resolved(new Typewriter())->style->sizePx);
    }

    /**
     * @param array<string, mixed> $more
     * @return array<string, mixed>
     */
    private static function text(string $text, array $more = [], int $width = 1900, int $height = 300, int $sizePx = 40): array
    {
        return $more + [
            'id' => 't', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => $width, 'height' => $height], 'text' => $text,
            'style' => ['family' => Typewriter::FAMILY, 'size_px' => $sizePx, 'color' => '#ffffff'],
        ];
    }

    /** @param array<string, mixed> $more */
    private static function read(string $text, array $more = [], int $width = 1900, int $height = 300): Text
    {
        $element = Make::composed(Make::layout([self::text($text, $more, $width, $height)]))->elements[0];

        return $element instanceof Text ? $element : throw new \LogicException('A text is a text.');
    }

    /**
     * @param array<string, mixed> $text
     * @return list<Finding>
     */
    private static function findings(array $text, string $code): array
    {
        $found = Make::checked(Make::composed(Make::layout([$text])), null, new Typewriter())->all;

        return array_values(array_filter($found, static fn (Finding $finding): bool => $finding->code === $code));
    }
}
