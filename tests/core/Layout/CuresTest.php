<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\TestCase;
use Random\Randomizer;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Survey;
use UpperPane\Core\Document\ActRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/**
 * Cures are tried before they are offered: each cures its finding and makes no other.
 *
 * @phpstan-import-type Doc from Make
 */
final class CuresTest extends TestCase
{
    public function testNoCureMakesAnotherFinding(): void
    {
        $random = Make::random(1100);
        $walls = [null, Display::fromArray(Make::display()), Display::fromArray(Make::wall(2, 1))];
        [$offered, $codes] = [0, []];
        for ($n = 0; $n < Make::rounds(60); $n++) {
            $document = self::nearlyRight($random);
            $surroundings = (new Surroundings('UTC', new Typewriter()))->on($walls[$n % 3]);
            $layout = Layout::fromArray($document);
            $before = self::matters(Checks::run(Composer::compose($layout), $surroundings)->all, true);
            foreach (Make::cured($document, $surroundings)->all as $finding) {
                $cure = $finding->cure();
                if ($cure === null) {
                    continue;
                }
                // As it is written, and whole: nothing is left out as it is while trying.
                $cure = Fix::fromNode(Node::root($cure->toArray()));
                $left = Checks::run(Composer::compose(Layout::fromArray($layout->cured($cure)->toArray())), $surroundings)->all;
                $what = "case $n: $finding->message $cure->label";
                self::assertNotContains($finding->message, array_map(static fn (Finding $one): string => $one->message, $left), $what);
                self::assertSame([], array_diff_key(self::matters($left, false), $before), $what);
                $offered++;
                $codes[$finding->code] = true;
            }
        }
        self::assertGreaterThan(150, $offered);
        self::assertGreaterThan(12, count($codes), implode(' ', array_keys($codes)));
    }

    /** Wider, "left" would lie on "low"; so the zone beside it is made wider. */
    public function testTheFirstCureThatMakesNoOtherFindingIsOffered(): void
    {
        $zones = [Make::zone('left', 0, 0, 958, 1080, []), Make::zone('right', 960, 0, 960, 1080, [])];
        $offered = static fn (array ...$zones): ?string => array_column(array_map(
            static fn (Finding $finding): array => [$finding->code . ' ' . count($finding->elements), $finding->cure()?->label],
            Make::cured(Make::layout(array_values($zones)))->all,
        ), 1, 0)['zone.sliver 2'] ?? null;
        self::assertSame('Make "left" 960 px wide', $offered(...$zones));
        $low = Make::zone('low', 958, 400, 2, 100, []);
        self::assertNull($offered($zones[0], $zones[1], $low, ['id' => 'low2'] + $low), 'whichever becomes wider lies on them');
    }

    /** A zone that its recipe divides takes the recipe along; else the cure would only lead to `recipe.differs`. */
    public function testTheRecipeFollowsACure(): void
    {
        $recipe = ['columns' => '958px 2px 960px', 'rows' => '1fr', 'areas' => ['left . right'], 'gap' => 0, 'margin' => 0];
        $document = Make::layout([Make::zone('left', 0, 0, 958, 1080, []), Make::zone('right', 960, 0, 960, 1080, [])]) + ['recipe' => $recipe];
        $found = array_values(array_filter(Make::cured($document)->all, static fn (Finding $finding): bool => $finding->code === 'zone.sliver'));
        $cure = $found[0]->cure();
        self::assertNotNull($cure?->recipe);
        $cured = Layout::fromArray($document)->cured($cure);
        self::assertSame([], array_values(array_diff(self::codes($cured), ['zone.empty'])));
        self::assertSame(['left right'], $cured->toArray()['recipe']['areas'] ?? null);
    }

    /** What stands in a playlist of its own is not the layout's to change. */
    public function testNothingIsOfferedThatCannotBeDone(): void
    {
        $items = [Make::film('f', 15_000, 1920, 1080, duration_ms: 5000)];
        $own = Make::layout([Make::zone('z', 0, 0, 1920, 1080, $items)]);
        $other = Make::layout([['playlist' => ['ref' => 'list']] + Make::zone('z', 0, 0, 1920, 1080)]);
        $library = Library::of([['format' => 'upper-pane/playlist@1', 'id' => 'list', 'name' => 'List', 'items' => $items]]);
        self::assertSame('Play all 15 s', Make::cured($own)->all[0]->cure()?->label);
        self::assertNull(Make::cured($other, null, $library)->all[0]->cure());
    }

    public function testACureIsDoneToADocument(): void
    {
        $caption = ['text' => 'Scan', 'style' => ['size_px' => 20, 'weight' => 400]];
        $code = ['id' => 'code', 'kind' => 'code', 'rect' => ['x' => 0, 'y' => 0, 'width' => 300, 'height' => 300], 'text' => 'x', 'caption' => $caption];
        $list = ['items' => [Make::picture('a', weight: 2), Make::picture('b')], 'interleave' => ['every' => 1, 'items' => [Make::picture('x')]]];
        $layout = Layout::fromArray(Make::layout([$code, ['playlist' => $list] + Make::zone('z', 0, 0, 100, 100)]));
        $styled = $layout->cured(Fix::style('Larger', 'code', ['size_px' => 40, 'weight' => null], Rect::at(1, 2, 3, 4)))->toArray()['elements'][0];
        self::assertSame([['size_px' => 40], ['x' => 1, 'y' => 2, 'width' => 3, 'height' => 4], 'Scan'], [$styled['caption']['style'], $styled['rect'], $styled['caption']['text']]);
        $playlist = $layout->cured(Fix::items('Off', 'z', ['a', 'x'], ['enabled' => false, 'weight' => null]))->toArray()['elements'][1]['playlist'];
        self::assertSame([[false, null, false], [null, null], 2], [
            [$playlist['items'][0]['enabled'], $playlist['items'][1]['enabled'] ?? null, $playlist['interleave']['items'][0]['enabled']],
            [$playlist['items'][0]['weight'] ?? null, $playlist['interleave']['items'][0]['weight'] ?? null],
            $layout->toArray()['elements'][1]['playlist']['items'][0]['weight'],
        ], 'extras too, and the layout that it was done to stays as it was');
        $cures = [Fix::items('Off', 'z', ['gone'], []), Fix::rect('Move', 'gone', Rect::at(0, 0, 1, 1)), Fix::style('Larger', 'z', ['size_px' => 9]), Fix::booking('Later', 'b', [])];
        foreach ($cures as $cure) {
            try {
                $layout->cured($cure);
                self::fail($cure->label);
            } catch (ActRefused $e) {
                self::assertNotSame('', $e->path);
            }
        }
    }

    public function testACureOfASurveyIsTried(): void
    {
        $turned = ['native' => ['width' => 1080, 'height' => 1920]];
        $document = Make::display();
        $document['panels'][0] = $turned + $document['panels'][0];
        $display = Display::fromArray($document);
        $found = Survey::check($display)->all;
        self::assertSame(['survey.aspect', 'Make it 1920 x 1080 px'], [$found[0]->code, $found[0]->cure()?->label]);
        self::assertSame([], Survey::check($display->cured($found[0]->cure() ?? self::fail()))->all);
        $this->expectException(ActRefused::class);
        $display->cured(Fix::panel('Turn it', 'gone', []));
    }

    /** @return list<string> */
    private static function codes(Layout $layout): array
    {
        return array_map(static fn (Finding $finding): string => $finding->code, Checks::run(Composer::compose($layout))->all);
    }

    /**
     * What is found of what, and how grave it is at most; holes in parts are one matter.
     *
     * @param list<Finding> $findings
     * @return array<string, true>
     */
    private static function matters(array $findings, bool $asLessToo): array
    {
        $matters = [];
        foreach ($findings as $finding) {
            $elements = $finding->elements;
            sort($elements);
            // What is found as a warning may be left as a hint.
            $lesser = array_slice(Level::cases(), (int) array_search($finding->level, Level::cases(), true));
            foreach ($asLessToo ? $lesser : [$finding->level] as $level) {
                $matters[$finding->code . ' ' . implode(' ', $elements) . ' ' . $level->value] = true;
            }
        }

        return $matters;
    }

    /** @return Doc zones in columns and rows of which some are a few px wrong, and words, codes and running text upon them */
    private static function nearlyRight(Randomizer $random): array
    {
        $slip = static fn (): int => $random->getInt(0, 5) === 0 ? $random->getInt(-6, 6) : 0;
        [$columns, $rows] = [$random->getInt(1, 3), $random->getInt(1, 3)];
        [$width, $height] = [intdiv(1920, $columns), intdiv(1080, $rows)];
        $elements = [];
        for ($n = 0; $n < $columns * $rows; $n++) {
            [$x, $y] = [$n % $columns * $width + $slip(), intdiv($n, $columns) * $height + $slip()];
            $items = [];
            for ($i = 0, $count = $random->getInt(1, 3); $i < $count; $i++) {
                $items[] = $random->getInt(0, 2) === 0
                    ? Make::film("i$i", 15_000, $width, $height, ...($random->getInt(0, 1) === 0 ? ['duration_ms' => 5000] : []), ...($random->getInt(0, 1) === 0 ? ['volume' => 50] : []))
                    : Make::picture("i$i", $random->getInt(0, 3) === 0 ? 400 : $width, $height, 1000 * $random->getInt(4, 9), ...($random->getInt(1, 3) === 1 ? ['fit' => 'fill'] : []));
            }
            $elements[] = Make::zone("z$n", $x, $y, $width + $slip(), $height + $slip(), $items, ...($n > 0 && $random->getInt(0, 3) === 0 ? ['follows' => 'z0'] : []));
        }
        $rect = static fn (): array => [
            'x' => $random->getInt(-40, 1500), 'y' => $random->getInt(-40, 900), 'width' => $random->getInt(80, 700), 'height' => $random->getInt(30, 300),
        ];
        $style = static fn (): array => ['family' => Typewriter::FAMILY, 'size_px' => $random->getInt(12, 90), 'color' => ['#ffffff', '#707070', '#102030'][$random->getInt(0, 2)]];
        $elements[] = ['id' => 'plate', 'kind' => 'shape', 'rect' => $rect(), 'fill' => ['#ffffff', '#102030', '#707070'][$random->getInt(0, 2)]];
        for ($n = 0; $n < 3; $n++) {
            $elements[] = ['id' => "t$n", 'kind' => 'text', 'rect' => $rect(), 'text' => str_repeat('Berth two ', $random->getInt(1, 6)), 'style' => $style()];
        }
        $elements[] = ['id' => 'run', 'kind' => 'ticker', 'rect' => $rect(), 'text' => str_repeat('All sailings on time ', 9), 'speed_px_s' => $random->getInt(20, 900), 'style' => $style()];
        $elements[] = ['id' => 'code', 'kind' => 'code', 'rect' => $rect(), 'text' => 'https://example.com', 'quiet' => $random->getInt(0, 4)]
            + ($random->getInt(0, 1) === 0 ? ['color' => '#ffffff', 'ground' => '#000000'] : []);

        return Make::layout($elements);
    }
}
