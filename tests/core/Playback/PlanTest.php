<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Playback\ShownPart;
use UpperPane\Tests\Core\Make;

/** Where things lie on the outermost canvas, however deep they are nested. */
final class PlanTest extends TestCase
{
    public function testAPictureIsClippedByItsZoneAndDrawnWhereItsFitSays(): void
    {
        [$thing] = $this->shown([Make::zone('z', 100, 50, 400, 200, [Make::picture('p', 400, 400, fit: 'cover', focus: [50, 0])])]);

        self::assertEquals(new Box(100, 50, 400, 200), $thing->part->rect);
        self::assertEquals(new Box(100, 50, 400, 400), $thing->part->drawn);
    }

    public function testAPictureElementIsThereAtEveryInstant(): void
    {
        $rect = ['x' => 10, 'y' => 10, 'width' => 100, 'height' => 100];
        [$thing] = $this->shown([['id' => 'p', 'kind' => 'picture', 'rect' => $rect, 'media' => ['name' => 'm.png', 'width' => 200, 'height' => 100]]]);

        self::assertNull($thing->offsetMs);
        self::assertEquals(new Box(10, 35, 100, 50), $thing->part->drawn);
    }

    public function testThingsStandInTheOrderOfTheirElementsTheFirstLowest(): void
    {
        $rect = ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9];
        $things = $this->shown([
            ['id' => 'below', 'kind' => 'shape', 'rect' => $rect, 'fill' => '#ffffff'],
            Make::zone('between', 0, 0, 9, 9),
            ['id' => 'above', 'kind' => 'text', 'rect' => $rect, 'text' => 'x', 'style' => ['size_px' => 8]],
        ]);

        self::assertSame(['below', 'between', 'above'], array_map(static fn (ShownPart $t): string => $t->part->element, $things));
    }

    public function testALayoutInALayoutInALayoutLiesWhereTheScalesMultiplyTo(): void
    {
        $dot = ['id' => 'dot', 'kind' => 'shape', 'rect' => ['x' => 50, 'y' => 50, 'width' => 10, 'height' => 10], 'fill' => '#ffffff', 'radius_px' => 4];
        $inner = Make::layout([$dot], 100, 100, 'inner');
        $middle = Make::layout([Make::zone('m', 0, 0, 50, 50, [['id' => 'i', 'layout' => ['ref' => 'inner'], 'duration_ms' => 1000]])], 100, 100, 'middle');
        $outer = Make::layout([Make::zone('o', 200, 300, 400, 400, [['id' => 'i', 'layout' => ['ref' => 'middle'], 'duration_ms' => 1000]])]);
        $things = Make::shownAt(Make::composed($outer, Library::of([$inner, $middle])))->at(0)->things;

        self::assertSame(['o', 'o/m', 'o/m/dot'], array_map(static fn (ShownPart $t): string => $t->part->element, $things));
        // 400/100 by 50/100 is twice: the dot of 10 px at 50 is one of 20 px at 100.
        self::assertEquals(new Box(300, 400, 20, 20), $things[2]->part->drawn);
        self::assertSame(8, $things[2]->part->look['radius_px']);
    }

    public function testWhatHangsOverTheEdgeOfANestedCanvasIsCutThere(): void
    {
        $inner = Make::layout([['id' => 'wide', 'kind' => 'shape', 'rect' => ['x' => -50, 'y' => 40, 'width' => 300, 'height' => 20], 'fill' => '#ffffff']], 100, 100, 'inner');
        $outer = Make::layout([Make::zone('o', 100, 100, 100, 100, [['id' => 'i', 'layout' => ['ref' => 'inner'], 'duration_ms' => 1000]])]);
        $things = Make::shownAt(Make::composed($outer, Library::of([$inner])))->at(0)->things;

        self::assertEquals(new Box(100, 140, 100, 20), $things[1]->part->rect);
        self::assertEquals(new Box(50, 140, 300, 20), $things[1]->part->drawn);
    }

    public function testAFadeOfANestedLayoutFadesAllThatIsInIt(): void
    {
        $inner = Make::layout([['id' => 'dot', 'kind' => 'shape', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'fill' => '#ffffff']], 100, 100, 'inner');
        $items = [Make::picture('p', 100, 100, 1000), ['id' => 'n', 'layout' => ['ref' => 'inner'], 'duration_ms' => 1000, 'transition' => ['kind' => 'fade', 'ms' => 400]]];
        $things = Make::shownAt(Make::composed(Make::layout([Make::zone('o', 0, 0, 100, 100, $items)]), Library::of([$inner])))->at(1100)->things;

        self::assertSame([['o', 1.0], ['o', 0.25], ['o/dot', 0.25]], array_map(static fn (ShownPart $t): array => [$t->part->element, $t->opacity], $things));
    }

    public function testAZoneThatFollowsShowsItsItemsAtTheMomentsOfItsLeader(): void
    {
        $layout = Make::composed(Make::layout([
            Make::zone('lead', 0, 0, 9, 9, [Make::picture('a', durationMs: 3000), Make::film('b', 5000)]),
            Make::zone('follow', 0, 0, 9, 9, [Make::picture('x', durationMs: 1), Make::picture('y', durationMs: 1)], follows: 'lead'),
        ]));
        $items = static fn (int $ms): array => array_map(static fn (ShownPart $t): ?string => $t->part->item, Make::shownAt($layout)->at($ms)->things);

        self::assertSame([['a', 'x'], ['a', 'x'], ['b', 'y'], ['b', 'y'], ['a', 'x']], array_map($items, [0, 2999, 3000, 7999, 8000]));
    }

    public function testAnEmptyZoneShowsNothingAndStopsNothing(): void
    {
        self::assertSame([], $this->shown([Make::zone('z', 0, 0, 9, 9, [])]));
    }

    /**
     * @param list<array<string, mixed>> $elements
     * @return list<ShownPart>
     */
    private function shown(array $elements): array
    {
        return Make::shownAt(Make::composed(Make::layout($elements)))->at(1_780_308_000_000)->things;
    }
}
