<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Display;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\ReadingPlan;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Type\SmallestText;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/** From where a text can be read: over the floor, with the height of the display and of the eyes. */
final class ReadingPlanTest extends TestCase
{
    public function testTheSmallestCapitalForTheFarthestViewerIsComfortableThere(): void
    {
        $plan = ReadingPlan::of(Display::fromArray(self::display(10_000, 1600)))->toArray();
        // 20 arc minutes at 10 m are 58.18 mm, of 0.49021 mm each: 119 px.
        self::assertSame(119, $plan['comfortable']['cap_px']);
        $text = ReadingPlan::of(Display::fromArray(self::display(10_000, 1600)), 119)->toArray()['text'];
        self::assertSame(['comfortable', false], [$text['verdict'], $text['too_few_px']]);
        self::assertGreaterThanOrEqual(10_000, $text['comfortable_to_mm']);
        self::assertSame('limit', ReadingPlan::of(Display::fromArray(self::display(10_000, 1600)), 118)->toArray()['text']['verdict']);
    }

    public function testAHighDisplayIsFartherFromTheEyeThanOverTheFloor(): void
    {
        $plan = ReadingPlan::of(Display::fromArray(self::display(3000, 5600)));
        // 4 m higher than the eyes, 3 m away over the floor: 5 m.
        self::assertEqualsWithDelta(5000.0, Display::fromArray(self::display(3000, 5600))->viewing->eyeMm(3000), 1e-9);
        self::assertEqualsWithDelta(3000.0, $plan->floorMm(5000), 1e-9);
        self::assertSame(0.0, $plan->floorMm(3999), 'not even from right below');
        $said = $plan->toArray();
        self::assertSame(round(rad2deg(atan2(4000, 2000)), 1), $said['slant_at_nearest']);
        self::assertSame(round(4000 / tan(deg2rad(30))), $said['easy_from_mm']);
    }

    /** The check of type and the reading plan are of one mind: both measure from the eye (computation.md, 4). */
    public function testTheCheckAndThePlanAgreeHoweverHighItHangs(): void
    {
        $random = Make::random(4);
        $seen = [];
        for ($i = 0; $i < 200; $i++) {
            $display = Display::fromArray(self::display($random->getInt(2000, 12_000), $random->getInt(800, 6000)));
            $size = $random->getInt(12, 120);
            $rect = ['x' => 0, 'y' => 0, 'width' => 1920, 'height' => 1080];
            $words = ['id' => 't', 'kind' => 'text', 'text' => 'Berth 2', 'rect' => $rect, 'style' => ['size_px' => $size, 'family' => Typewriter::FAMILY]];
            $faces = new Typewriter();
            $small = array_filter(Make::checked(Make::composed(Make::layout([$words])), $display, $faces)->all, static fn ($finding): bool => $finding->code === 'text.small') !== [];
            $text = ReadingPlan::of($display, $size * 0.7)->toArray()['text'];
            self::assertSame($small, $text['verdict'] === 'unreadable', "round $i: type of $size px at {$display->viewing->farthestEyeMm()} mm");
            $seen[(int) $small] = true;
        }
        self::assertCount(2, $seen, 'both are met');
    }

    public function testAnLedSaysFromWhereItsPixelsMerge(): void
    {
        $led = ['technology' => 'led'] + self::display(20_000, 1600);
        $led['panels'][0] = ['native' => ['width' => 192, 'height' => 96], 'active_mm' => ['width' => 1920, 'height' => 960]] + $led['panels'][0];
        $said = ReadingPlan::of(Display::fromArray($led), 6)->toArray();

        // Common practice, no source: as many metres as the pitch has mm. 3438 arc minutes in a radian, from memory.
        self::assertEquals(['pitch_mm' => 10.0, 'comfortable_from_mm' => 10_000.0, 'merges_at_mm' => 34_380.0], $said['led']);
        self::assertSame(['unreadable', true], [$said['text']['verdict'], $said['text']['too_few_px']], 'under 7 px no capital can be drawn');
    }

    public function testTheSmallestTextIsThatWithTheLowestCapitals(): void
    {
        $text = static fn (string $id, float $size, string $family, string $words = 'Words'): array => ['id' => $id, 'kind' => 'text', 'text' => $words,
            'rect' => ['x' => 0, 'y' => 0, 'width' => 10, 'height' => 10], 'style' => ['size_px' => $size, 'family' => $family]];
        $layout = Make::composed(Make::layout([$text('tall', 50, 'Inter'), $text('low', 52, 'Zilla Slab'), $text('none', 5, 'Inter', '  ')]));
        $found = SmallestText::of($layout, Size::px(3840, 2160), ['Inter 400' => 0.7275, 'Zilla Slab 400' => 0.65]);

        self::assertEquals(['element' => 'low', 'text' => 'Words', 'type_px' => 104.0, 'cap_px' => 67.6], $found?->toArray(), 'twice as large on a display of twice the px');
        self::assertSame(35.0, SmallestText::of($layout, Size::px(1920, 1080), ['Zilla Slab 400' => 0.9])?->capPx, 'a face of which nothing is known has usual capitals');
        self::assertNull(SmallestText::of(Make::composed(Make::layout([])), Size::px(9, 9), []));
    }

    /** @return array<string, mixed> */
    private static function display(int $farthestMm, int $centreMm): array
    {
        return ['viewing' => ['nearest_mm' => 2000, 'farthest_mm' => $farthestMm, 'centre_height_mm' => $centreMm, 'eye_height_mm' => 1600]] + Make::display();
    }
}
