<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Display;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Feed;
use UpperPane\Core\Display\Link;
use UpperPane\Core\Display\Survey;
use UpperPane\Core\Finding\Finding;
use UpperPane\Tests\Core\Make;

/** What is found in the survey of a display. */
final class SurveyTest extends TestCase
{
    public function testGoodSurveysAreClean(): void
    {
        foreach ([Make::display(), Make::wall(), Make::wall(2, 2, 90, bezels: 'butt'), Make::display(rotation: 270)] as $document) {
            self::assertSame([], Survey::check(Display::fromArray($document), 'Europe/Lisbon')->all);
        }
    }

    /** @param array<string, mixed> $document */
    #[DataProvider('slips')]
    public function testEachSlipIsFoundOnce(string $code, string $level, array $document, string $message): void
    {
        $findings = array_values(array_filter(Survey::check(Display::fromArray($document), 'Europe/Lisbon')->all, static fn (Finding $f): bool => $f->code === $code));

        self::assertCount(1, $findings, json_encode(Survey::check(Display::fromArray($document))->toArray(), JSON_THROW_ON_ERROR));
        self::assertSame($level, $findings[0]->level->value);
        self::assertStringContainsString($message, $findings[0]->message);
    }

    /** @return iterable<string, array{string, string, array<string, mixed>, string}> */
    public static function slips(): iterable
    {
        $wide = Make::display();
        $wide['panels'][0]['native'] = ['width' => 1080, 'height' => 1920];
        yield 'a raster given the wrong way round' => ['survey.aspect', 'warning', $wide, 'the wrong way round'];
        $slip = Make::display();
        $slip['panels'][0]['active_mm']['height'] = 592.4;
        yield 'a typed mm' => ['survey.aspect', 'warning', $slip, 'p1 has 1920 x 1080 px but 941.2 x 592.4 mm: the aspects are 11.9 % apart'];
        yield 'a viewer too far away' => ['survey.range', 'warning', ['viewing' => ['nearest_mm' => 1000, 'farthest_mm' => 70_000]] + Make::display(), 'One line reaches to 66.4 m'];
        yield 'another time zone than its place' => ['survey.timezone', 'hint', ['timezone' => 'Atlantic/Azores'] + Make::display(), 'Atlantic/Azores, that of its place Europe/Lisbon'];
        $twice = Make::wall(2, 1, players: [['id' => 'a']]);
        $twice['panels'][0]['output'] = $twice['panels'][1]['output'] = 3;
        yield 'two panels on one output' => ['output.twice', 'stop', $twice, 'Output 3 of player "a" feeds A1 and A2'];
        $players = [['id' => 'a', 'outputs' => [['number' => 1, 'link' => 'hdmi-1.4']]]];
        yield 'more outputs than there are' => ['output.missing', 'stop', Make::wall(2, 1, players: $players), 'has no output 2 for A2; it has 1.'];
        $fine = Make::display(3840, 2160);
        yield 'more than HDMI 1.4 carries' => ['output.over-budget', 'stop', ['players' => $players] + $fine, '533.3 of 340 MHz over hdmi-1.4'];
        $overlapping = Make::freeWall(['one' => [], 'two' => ['origin_mm' => ['x' => 965, 'y' => 0]]]);
        yield 'frames in one another' => ['panel.overlap', 'warning', $overlapping, 'one and two overlap by 5.0 x 550.0 mm'];
        $cell = Make::wall(2, 1);
        $cell['panels'][1]['column'] = 0;
        yield 'two panels in one place' => ['panel.overlap', 'warning', $cell, 'A1 and A2 overlap'];
        $dense = Make::wall(2, 2);
        $dense['panels'][1]['active_mm'] = ['width' => 1190.0, 'height' => 680.4];
        $dense['panels'][3]['active_mm'] = ['width' => 1190.0, 'height' => 680.4];
        $dense['panels'][2]['active_mm'] = ['width' => 1190.0, 'height' => 680.4];
        yield 'densities apart in one column' => ['wall.density', 'warning', ['panels' => [$dense['panels'][0], $dense['panels'][2]]] + $dense, 'column 1 have 1.5873 to 1.6134 px/mm, 1.6 % apart'];
        $ragged = Make::wall(2, 1);
        $ragged['panels'][1]['rotation'] = 90;
        yield 'a grid made ragged by a turn' => ['wall.ragged', 'warning', $ragged, 'A1 has 1920 x 1080 px as it hangs, A2 1080 x 1920 px'];
        $hole = Make::wall();
        array_splice($hole['panels'], 4, 1);
        yield 'a hole' => ['wall.hole', 'hint', $hole, "1 of the grid's 6 places has no panel"];
        $processor = ['player' => 'a', 'output' => 1, 'raster' => ['width' => 3840, 'height' => 2160]];
        yield 'a processor of fewer px' => ['processor.lost', 'hint', Make::wall(processor: $processor), 'scaled by 0.6657 x 0.9982, 34 % of its pixels are lost'];
        yield 'a processor of another aspect' => ['processor.aspect', 'warning', Make::wall(2, 1, processor: $processor), 'their aspects are 50 % apart, so the picture is squeezed'];
        $much = ['player' => 'a', 'output' => 1, 'raster' => ['width' => 7694, 'height' => 2166]];
        yield 'a processor of more px than the canvas' => ['processor.aspect', 'warning', Make::wall(2, 1, processor: $much), 'px more are sent than are shown'];
    }

    /** LED cabinets are one sign: its sending card takes the whole raster, unless the survey says otherwise. */
    public function testAWallOfLedCabinetsIsOneOutputOfItsRaster(): void
    {
        $cabinets = array_diff_key(Make::wall(4, 2, technology: 'led', players: [['id' => 'a']]), ['processor' => 1]);
        foreach ($cabinets['panels'] as $index => $panel) {
            $cabinets['panels'][$index] = [
                'native' => ['width' => 192, 'height' => 96], 'active_mm' => ['width' => 500, 'height' => 250], 'bezel_mm' => ['left' => 0, 'top' => 0, 'right' => 0, 'bottom' => 0],
            ] + $panel;
        }
        self::assertSame([['768 x 192', 8]], array_map(static fn ($feed): array => [(string) $feed->raster, count($feed->panels)], Feed::of(Display::fromArray($cabinets))));
        self::assertSame([], array_filter(Survey::check(Display::fromArray($cabinets))->all, static fn ($finding): bool => str_starts_with($finding->code, 'processor.')));

        // Said otherwise: each of them is fed by itself.
        foreach ($cabinets['panels'] as $index => $panel) {
            $cabinets['panels'][$index]['player'] = 'a';
            $cabinets['panels'][$index]['output'] = 1 + $index;
        }
        self::assertCount(8, Feed::of(Display::fromArray($cabinets)));
    }

    public function testAProcessorTakesTheCanvasUnlessItSaysAnotherRaster(): void
    {
        $wall = Display::fromArray(Make::wall(2, 1, players: [['id' => 'a']], processor: ['player' => 'a', 'output' => 1]));
        self::assertSame((string) $wall->raster(), (string) $wall->processor?->raster);
    }

    public function testTheCureOfATurnedRasterTurnsIt(): void
    {
        $document = Make::display();
        $document['panels'][0]['native'] = ['width' => 1080, 'height' => 1920];
        $fix = Survey::check(Display::fromArray($document))->all[0]->cure()?->toArray();

        self::assertSame(['label' => 'Make it 1920 x 1080 px', 'panel' => 'p1', 'set' => ['native' => ['width' => 1920, 'height' => 1080]]], $fix);
    }

    /** HDMI 1.4 and 2.0 by TMDS clock, DisplayPort 1.2 by bits; limits from memory. */
    #[TestWith(['hdmi-2.0', 3840, 2160, 8, 533_250 / 600_000])]
    #[TestWith(['hdmi-2.0', 3840, 2160, 10, 533_250 * 1.25 / 600_000])]
    #[TestWith(['hdmi-1.4', 1920, 1080, 8, 138_500 / 340_000])]
    #[TestWith(['dp-1.2', 3840, 2160, 10, 533.25e6 * 30 / 17.28e9])]
    public function testALinkIsLoadedByClockOrByBits(string $link, int $width, int $height, int $bits, float $load): void
    {
        $display = Display::fromArray(['bits' => $bits, 'players' => [['id' => 'a', 'outputs' => [['number' => 1, 'link' => $link]]]]] + Make::display($width, $height));
        $feed = Feed::of($display)[0];

        self::assertNotNull($feed->timing);
        self::assertEqualsWithDelta($load, $feed->link?->load($feed->timing, $bits), 1e-9);
        self::assertSame($load > 1 ? ['output.over-budget'] : [], array_map(static fn (Finding $f): string => $f->code, Survey::check($display)->all));
    }

    public function testLinksThatNobodyKnowsAreNotJudged(): void
    {
        self::assertNull(Link::named('semaphore'));
        foreach (Link::names() as $name) {
            self::assertSame($name, Link::named($name)?->name);
        }
    }
}
