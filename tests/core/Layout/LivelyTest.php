<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Kind\Code\Code;
use UpperPane\Core\Layout\Kind\Code\CodeMaker;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Type\ReadingTime;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/** Elements that go on by themselves: clocks, running text, codes, shapes that fill up; and those that are left out. */
final class LivelyTest extends TestCase
{
    public function testAClockTellsTheTimeOfItsDisplayOrItsOwn(): void
    {
        $clocks = [self::clock('a'), self::clock('b', timezone: 'Atlantic/Azores'), self::clock('c', pattern: 'EEEE', locale: 'pt-PT')];
        $says = static fn (string $at): array => array_map(static fn (array $t): string => $t['text'], self::things($clocks, $at));

        self::assertSame(['09:00', '08:00', 'segunda-feira'], $says('2026-06-01T08:00:00Z'));
        self::assertSame(['01:59', '00:59'], array_slice($says('2026-10-25T00:59:59Z'), 0, 2));
        self::assertSame(['01:00', '00:00'], array_slice($says('2026-10-25T01:00:00Z'), 0, 2), 'the hour that comes twice');
    }

    public function testATimeIsCountedDownAndThenOver(): void
    {
        $left = [self::clock('a', until: '2026-06-01T10:00:00Z', after: 'All aboard'), self::clock('b', until: '2026-06-01T10:00:00Z', pattern: 'm')];
        $says = static fn (string $at): array => array_map(static fn (array $t): string => $t['text'], self::things($left, $at));

        self::assertSame(['26:00:00', '1560'], $says('2026-05-31T08:00:00Z'));
        self::assertSame(['00:00:01', '1'], $says('2026-06-01T09:59:59.500Z'), 'a minute is over when its last second is');
        self::assertSame(['All aboard', '0'], $says('2026-06-01T10:00:00Z'));
    }

    public function testADialKnowsTheLocalTime(): void
    {
        $dial = ['id' => 'd', 'kind' => 'clock', 'rect' => self::rect(0, 0, 200, 200), 'dial' => ['color' => '#ffffff']];
        [$thing] = self::things([$dial], '2026-06-01T10:00:00Z');
        self::assertSame(Instant::parse('2026-06-01T11:00:00Z')->ms, $thing['local_ms']);
        self::assertSame(['color' => '#ffffff', 'seconds' => true], $thing['dial']);
        self::assertSame([], self::findings([$dial], 'text.small', Make::display()), 'hands are no words');
    }

    /** 40 letters at 20 px are 800 px long on the face on which one can count: with a box of 1000 px a pass at 120 px/s is (1000 + 800) / 120 s. */
    public function testRunningTextComesInAndGoesOut(): void
    {
        $ticker = self::ticker(str_repeat('abcdefghi ', 8), 120);
        $at = static fn (int $ms): float => self::things([$ticker], (string) Instant::ofMs($ms))[0]['drawn']['x'];
        $sheet = Make::runSheet(Make::composed(Make::layout([$ticker])), 0, new Surroundings('UTC', new Typewriter()))['layers'][0]['part']['ticker'];

        self::assertSame(14_917, $sheet['pass_ms'], 'the last space does not count');
        self::assertEquals([1000, 880, -790], [$at(0), $at(1000), round($at(14_917 - 1))]);
        self::assertEquals($at(0), $at(14_917), 'and over again');
        $right = ['way' => 'right'] + $ticker;
        self::assertEquals(-790.0 + 120, self::things([$right], '1970-01-01T00:00:01Z')[0]['drawn']['x']);
        self::assertSame(8, ReadingTime::wordsIn(Make::composed(Make::layout([$ticker]))));
        self::assertSame([], self::findings([$ticker], 'text.overflow'), 'it has all the room it wants');
    }

    public function testRunningTextThatJuddersIsToldWithTheNextSpeedThatRunsSmoothly(): void
    {
        self::assertSame([], self::findings([self::ticker('x', 120)], 'ticker.judder'));
        self::assertSame([], self::findings([self::ticker('x', 90)], 'ticker.judder'), 'half steps are tolerable');
        [$finding] = self::findings([self::ticker('x', 100)], 'ticker.judder');
        self::assertSame('"n" runs 1.67 px at each refresh of 60 Hz: it judders. Multiples of 60 px a second run smoothly.', $finding->message);
        self::assertSame(['speed_px_s' => 120.0], $finding->cure()?->toArray()['fields'] ?? null);
        self::assertCount(1, self::findings([self::ticker('x', 120)], 'ticker.judder', ['refresh_hz' => 50] + Make::display()));
        $scaled = self::findings([self::ticker('x', 120)], 'ticker.judder', Make::display(1366, 768));
        self::assertStringContainsString('1.42 px', $scaled[0]->message, 'px of the display count');
    }

    public function testRunningTextThatNobodyCanFollowIsTold(): void
    {
        $slow = self::ticker(trim(str_repeat('abcdefghi ', 8)), 120);
        self::assertSame([], self::findings([$slow], 'ticker.fast'), '8 words in 790 px at 120 px/s are 73 a minute');
        [$finding] = self::findings([['speed_px_s' => 360] + $slow], 'ticker.fast');
        self::assertSame('"n" brings 219 words a minute by; 180 are read without haste. One pass lasts 5 s.', $finding->message);
        self::assertSame('Let it run 240 px a second', $finding->cure()?->label);
        self::assertSame([], self::findings([array_replace($slow, ['speed_px_s' => 240])], 'ticker.fast'));
    }

    /** @return iterable<string, array{string, string, string, array{x: int, y: int, width: int|float, height: int|float}}> */
    public static function fillings(): iterable
    {
        yield 'a quarter of an item of 4 s' => ['item', 'left', '1970-01-01T00:00:01Z', self::rect(100, 50, 200, 40)];
        yield 'from the right' => ['item', 'right', '1970-01-01T00:00:01Z', self::rect(700, 50, 200, 40)];
        yield 'from the top' => ['item', 'top', '1970-01-01T00:00:02Z', self::rect(100, 50, 800, 20)];
        yield 'from the bottom' => ['item', 'bottom', '1970-01-01T00:00:02Z', self::rect(100, 70, 800, 20)];
        yield 'half of a loop of 10 s' => ['loop', 'left', '1970-01-01T00:00:05Z', self::rect(100, 50, 400, 40)];
        yield 'at its very beginning' => ['loop', 'left', '1970-01-01T00:00:10Z', self::rect(100, 50, 0, 40)];
    }

    /** @param array{x: int, y: int, width: int|float, height: int|float} $rect */
    #[DataProvider('fillings')]
    public function testAShapeFillsUpAsItsZoneGoesOn(string $of, string $from, string $at, array $rect): void
    {
        $zone = Make::zone('z', 0, 100, 900, 900, [Make::picture('a', durationMs: 4000), Make::picture('b', durationMs: 6000)]);
        self::assertEquals($rect, self::things([$zone, self::bar(['zone' => 'z', 'of' => $of, 'from' => $from])], $at)[1]['rect']);
    }

    public function testAZoneWithoutEndFillsNothing(): void
    {
        $zone = Make::zone('z', 0, 100, 900, 900, [['lasts' => 'endless'] + Make::film('f')]);
        self::assertSame(0, self::things([$zone, self::bar(['zone' => 'z', 'of' => 'loop'])], '1970-01-01T00:00:05Z')[1]['rect']['width']);
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('/elements/0/progress/zone is "q", which is no zone of this layout.');
        Make::composed(Make::layout([self::bar(['zone' => 'q'])]));
    }

    /** Version 1 has 21 modules; with a quiet zone of 4 on each side 29. */
    /**
     * @param array{int, int, int} $symbol
     * @param ?array{int, int, int, int} $caption
     */
    #[TestWith([300, 300, null, [5, 5, 290], null])]
    #[TestWith([29, 400, null, [0, 185, 29], null])]
    #[TestWith([20, 20, null, [0, 0, 20], null, 'less than a px a module is drawn all the same'])]
    #[TestWith([600, 290, 40, [0, 0, 290], [290, 0, 310, 290], 'a caption stands beside it in a wide box'])]
    #[TestWith([290, 400, 40, [0, 0, 290], [0, 290, 290, 110], 'and below it in a high one'])]
    #[TestWith([300, 300, 40, [34, 10, 232], [0, 252, 300, 48], 'a square one leaves it a line, so that a module has 8 px, not 10'])]
    public function testACodeStandsOnWholePx(int $width, int $height, ?int $captionPx, array $symbol, ?array $caption): void
    {
        $code = self::code($width, $height, $captionPx === null ? [] : ['caption' => ['text' => 'UP-7', 'style' => self::style($captionPx)]]);
        $element = Make::composed(Make::layout([$code]))->elements[0];
        self::assertInstanceOf(Code::class, $element);
        $box = $element->symbol();
        self::assertEquals($symbol, [$box->x, $box->y, $box->width]);
        self::assertSame($caption, $element->captionRect() === null ? null : array_values($element->captionRect()->toArray()));
    }

    public function testACodeIsDrawnByWhoeverDrawsCodes(): void
    {
        $maker = new class implements CodeMaker {
            public function modules(string $text, string $level): array
            {
                return ["$text $level"];
            }
        };
        $code = self::code(300, 300, ['level' => 'H', 'text' => 'QUAY', 'caption' => ['text' => 'UP-7', 'style' => self::style(20)]]);
        $things = Make::shownAt(Make::composed(Make::layout([$code])), 0, new Surroundings('UTC', new Typewriter(), $maker))->at(0)->toArray()['things'];

        self::assertSame(['QUAY H'], $things[0]['code']['modules']);
        self::assertSame(['k', 'text', 'UP-7'], [$things[1]['element'], $things[1]['kind'], $things[1]['text']]);
        self::assertEquals([self::rect(0, 0, 300, 300), self::rect(0, 0, 300, 300)], array_column($things, 'of'), 'both belong to one box');
    }

    /** On the 43 inch class a canvas px is 0.49 mm: 21 modules of 10 px are 103 mm wide, scanned from 1 m. */
    public function testWhatKeepsACodeFromBeingScanned(): void
    {
        $codes = static fn (array $code): array => array_map(static fn (Finding $f): string => "$f->code {$f->message}", array_filter(
            self::findings([$code], null, ['viewing' => ['nearest_mm' => 1000, 'farthest_mm' => 2000]] + Make::display()),
            static fn (Finding $f): bool => str_starts_with($f->code, 'code.'),
        ));
        self::assertSame([], array_values($codes(self::code(290, 290))));
        self::assertSame([
            'code.small "k" has 21 modules a side, 2 px each (0.98 mm); at least 3 px are needed, 87 x 87 px with its quiet zone. A shorter text needs fewer.',
            'code.far "k" is 21 mm wide and scanned from about 0.2 m; nobody comes nearer than 1 m. It wants 282 px.',
        ], array_values($codes(self::code(60, 60))));
        self::assertStringStartsWith('code.quiet "k" has a quiet zone of 1 modules; 4', array_values($codes(self::code(290, 290, ['quiet' => 1])))[0]);
        self::assertStringEndsWith('many scanners do not read it.', array_values($codes(self::code(290, 290, ['color' => '#ffffff', 'ground' => '#000000'])))[0]);
        self::assertStringContainsString('stand out by 2.3 to 1', array_values($codes(self::code(290, 290, ['color' => '#aaaaaa'])))[0]);
    }

    public function testACodeThatHoldsNoMoreIsRefused(): void
    {
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('/elements/0/text has 2954 bytes, more than a code of level L holds');
        Make::composed(Make::layout([self::code(900, 900, ['text' => str_repeat('a', 2954), 'level' => 'L'])]));
    }

    public function testWhatIsLeftOutIsNeitherDrawnNorCheckedNorPacked(): void
    {
        $hidden = static fn (array $element): array => ['hidden' => true] + $element;
        $zone = $hidden(Make::zone('lead', -500, 0, 100, 100, [Make::picture('a', durationMs: 4000)]));
        $document = Make::layout([
            $zone,
            Make::zone('z', 0, 0, 1920, 1080, [Make::picture('b', 1920, 1080)], follows: 'lead'),
            $hidden(['id' => 't', 'kind' => 'text', 'rect' => self::rect(0, 0, 9, 9), 'text' => 'too long', 'style' => self::style(40)]),
        ]);
        $layout = Make::composed($document);

        self::assertSame([], Make::checked($layout, Display::fromArray(Make::display()), new Typewriter())->all);
        self::assertSame(['z'], array_column(Make::shownAt($layout)->at(0)->toArray()['things'], 'element'));
        self::assertSame(4000, $layout->loops['z']->periodMs, 'its leader still sets the moments');
        self::assertSame(['b.png'], array_map(static fn ($media): string => $media->name, $layout->media()));
        self::assertCount(3, $layout->elements, 'and it stays in the document');
        self::assertSame(0, ReadingTime::wordsIn($layout));
    }

    public function testAClockInALayoutWithinAZoneTellsTheTimeToo(): void
    {
        $inner = Make::layout([self::clock('c'), self::ticker('abcdefghij', 60)], 1000, 200, 'inner');
        $outer = Make::layout([Make::zone('z', 0, 0, 500, 100, [['id' => 'i', 'layout' => ['ref' => 'inner'], 'duration_ms' => 5000]])]);
        $shown = Make::shownAt(Make::composed($outer, Library::of([$inner])), 0, new Surroundings('Europe/Lisbon', new Typewriter()));
        $things = $shown->at(Instant::parse('2026-06-01T08:00:02Z')->ms)->toArray()['things'];

        self::assertSame(['background', 'clock', 'ticker'], array_column($things, 'kind'));
        self::assertSame('09:00', $things[1]['text']);
        // The run begins with the item, two seconds ago; all is half as large.
        self::assertEquals(500 - 60, $things[2]['drawn']['x']);
    }

    /** @return array{x: int, y: int, width: int, height: int} */
    private static function rect(int $x, int $y, int $width, int $height): array
    {
        return ['x' => $x, 'y' => $y, 'width' => $width, 'height' => $height];
    }

    /** @return array<string, mixed> */
    private static function style(int $px): array
    {
        return ['family' => Typewriter::FAMILY, 'size_px' => $px, 'color' => '#ffffff'];
    }

    /** @return array<string, mixed> */
    private static function clock(string $id, string ...$more): array
    {
        return ['id' => $id, 'kind' => 'clock', 'rect' => self::rect(0, 0, 900, 100), 'style' => self::style(60)] + array_filter($more, is_string(...), ARRAY_FILTER_USE_KEY);
    }

    /** @return array<string, mixed> */
    private static function ticker(string $text, int $speed): array
    {
        return ['id' => 'n', 'kind' => 'ticker', 'rect' => self::rect(0, 0, 1000, 60), 'text' => $text, 'speed_px_s' => $speed, 'style' => self::style(20)];
    }

    /**
     * @param array<string, string> $progress
     * @return array<string, mixed>
     */
    private static function bar(array $progress): array
    {
        return ['id' => 'bar', 'kind' => 'shape', 'rect' => self::rect(100, 50, 800, 40), 'fill' => '#14665b', 'progress' => $progress];
    }

    /**
     * @param array<string, mixed> $more
     * @return array<string, mixed>
     */
    private static function code(int $width, int $height, array $more = []): array
    {
        return $more + ['id' => 'k', 'kind' => 'code', 'rect' => self::rect(0, 0, $width, $height), 'text' => 'HTTPS://UP.EXAMPLE'];
    }

    /**
     * @param list<array<string, mixed>> $elements
     * @return list<array<string, mixed>>
     */
    private static function things(array $elements, string $at): array
    {
        /** @var list<array<string, mixed>> $things */
        $things = Make::shownAt(Make::composed(Make::layout($elements)), 0, new Surroundings('Europe/Lisbon', new Typewriter()))->at(Instant::parse($at)->ms)->toArray()['things'];

        return $things;
    }

    /**
     * @param list<array<string, mixed>> $elements
     * @param ?array<string, mixed> $display
     * @return list<Finding>
     */
    private static function findings(array $elements, ?string $code, ?array $display = null): array
    {
        $found = Make::checked(Make::composed(Make::layout($elements)), $display === null ? null : Display::fromArray($display), new Typewriter())->all;

        return array_values(array_filter($found, static fn (Finding $finding): bool => $code === null || $finding->code === $code));
    }
}
