<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Handover;

use UpperPane\App\Display\Place;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Media\MediaAsset;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\App\Estate;
use UpperPane\Tests\Core\Make;

/** House styles and settings of places in the desk: what they reach is told before, and what stands on displays is what held when it was handed over. */
final class StylesTest extends ApiTestCase
{
    private string $style;

    protected function setUp(): void
    {
        parent::setUp();
        $gates = $this->entities()->find(Place::class, 'gates') ?? throw new \LogicException();
        $this->entities()->persist(new SurveyedDisplay('side', $gates, ['id' => 'side', 'name' => 'Side'] + Make::display(), 2));
        $this->entities()->flush();
        $this->signIn();
        $this->style = $this->newStyle(['colours' => ['ink' => '#000000', 'sea' => '#14665b'], 'sizes' => ['line' => ['share' => 0.1]]]);
    }

    public function testLayoutsAreDrawnInTheStyleOfTheirDisplay(): void
    {
        $night = $this->newStyle(['extends' => $this->style, 'colours' => ['ink' => '#ffffff']]);
        $layout = $this->layout('@ink');
        $this->state('places/hall', 'style', $this->style);
        $this->state('places/gates', 'style', $night);
        self::assertSame(['#000000', 108.0, 'Pier'], $this->shown($this->ask('GET', "/api/layouts/$layout/picture")[1]['run_sheet']));
        $this->show($layout, 'wide', 'side');
        self::assertSame(['#000000', '#ffffff'], array_map(fn (string $display): string => $this->onDisplay($display)[0], ['wide', 'side']));
        self::assertSame([$night, ['ink' => '#ffffff', 'sea' => '#14665b']], [
            ($force = $this->ask('GET', '/api/house-style?display=side&width=1080&height=1920')[1])['id'], array_column($force['colours'], 'hex', 'name'),
        ]);
        self::assertSame([192], array_column($force['sizes'], 'px'), 'a share of the canvas');
        self::assertSame([$night, $this->style], array_column($force['colours'], 'from'));
    }

    /** One layout; each place shows its own mark, and the telephone that it states. */
    public function testAPlaceHasAnotherLogoAndNumberWithoutACopy(): void
    {
        $marks = static fn (MediaAsset $asset): array => ['marks' => ['logo' => $asset->media()?->toArray()]];
        $ferries = $this->newStyle($marks($this->media()));
        $boats = $this->newStyle(['extends' => $ferries] + $marks($this->media('night-boats')));
        $this->state('places/hall', 'style', $ferries);
        $this->state('places/hall', 'vars.phone', '555 0100');
        $this->state('places/gates', 'style', $boats);
        $this->state('places/gates', 'vars.phone', '555 0144');
        $picture = ['id' => 'logo', 'kind' => 'picture', 'rect' => ['x' => 0, 'y' => 900, 'width' => 320, 'height' => 180], 'media' => ['mark' => 'logo']];
        $layout = $this->ask('POST', '/api/layouts', ['name' => 'L', 'document' => Make::layout([Make::told('t', '{place_phone}'), $picture])])[1]['id'];
        $this->show($layout, 'wide', 'side');
        foreach (['wide' => ['pier', '555 0100'], 'side' => ['night-boats', '555 0144']] as $display => $wanted) {
            $found = [];
            $sheet = $this->sheetOn($display);
            array_walk_recursive($sheet, static function (mixed $value, int|string $name) use (&$found): void {
                $found += in_array($name, ['id', 'text'], true) && is_string($value) ? [$value => true] : [];
            });
            self::assertSame($wanted, array_values(array_intersect(['pier', 'night-boats', '555 0100', '555 0144'], array_map(strval(...), array_keys($found)))), $display);
        }
    }

    public function testAChangeIsSeenBeforeItHappensAndStandsOnlyOnceItIsHandedOver(): void
    {
        $this->state('places/hall', 'style', $this->style);
        [$named, $plain] = [$this->layout('@ink'), $this->layout('#123456')];
        $this->show($named, 'wide');
        $this->show($plain, 'side');
        $document = ['name' => 'Style', 'colours' => ['ink' => '#ff0000', 'sea' => '#14665b'], 'sizes' => ['line' => ['share' => 0.1]]];
        $reach = $this->ask('POST', "/api/styles/$this->style/reach", ['document' => $document])[1];
        self::assertSame(['colours/ink'], $reach['names']);
        self::assertSame([$named], array_column($reach['designs'], 'id'));
        self::assertSame([['wide', $named]], array_map(static fn (array $one): array => [$one['id'], $one['source']], $reach['displays']));
        $pictures = $this->ask('POST', "/api/styles/$this->style/reach/$named", ['document' => $document])[1];
        self::assertSame(['#000000', '#ff0000'], [$this->shown($pictures['before']['run_sheet'])[0], $this->shown($pictures['after']['run_sheet'])[0]]);
        self::assertSame([], $this->older(), 'looking changes nothing');

        self::assertSame(200, $this->ask('PUT', "/api/styles/$this->style", ['base' => 1, 'document' => $document])[0]);
        self::assertSame(['wide'], $this->older(), 'and no display on which nothing names it');
        self::assertSame('#000000', $this->onDisplay('wide')[0]);
        $this->show($named, 'wide');
        self::assertSame(['#ff0000', []], [$this->onDisplay('wide')[0], $this->older()]);
        // Taken back in one act.
        $revisions = $this->ask('GET', "/api/styles/$this->style/revisions")[1]['revisions'];
        self::assertSame(200, $this->ask('POST', "/api/styles/$this->style/restore", ['base' => 2, 'revision' => $revisions[1]['id']])[0]);
        self::assertSame('#000000', $this->shown($this->ask('GET', "/api/layouts/$named/picture")[1]['run_sheet'])[0]);
    }

    public function testWhatIsNamedCannotGo(): void
    {
        $this->state('places/hall', 'style', $this->style);
        $this->layout('@ink');
        [$status, $said] = $this->ask('PUT', "/api/styles/$this->style", ['base' => 1, 'document' => ['name' => 'Style', 'colours' => ['sea' => '#14665b']]]);
        self::assertSame([422, 'ref.unknown', '/colours/ink'], [$status, $said['error']['code'], $said['error']['path']]);
        self::assertStringContainsString('named in Named', $said['error']['message']);
        self::assertSame(422, $this->ask('POST', '/api/layouts', ['name' => 'x', 'document' => self::document('@none')])[0], 'nor a name that means nothing');
        [$status, $said] = $this->ask('DELETE', "/api/styles/$this->style");
        self::assertSame([409, 'style.used'], [$status, $said['error']['code']], 'it rules in the hall');
        // In a circle.
        $child = $this->newStyle(['extends' => $this->style]);
        $document = ['name' => 'S', 'extends' => $child, 'colours' => ['ink' => '#000000', 'sea' => '#000000'], 'sizes' => ['line' => ['px' => 9]]];
        $said = $this->ask('PUT', "/api/styles/$this->style", ['base' => 1, 'document' => $document])[1];
        self::assertSame(['ref.cycle', '/extends'], [$said['error']['code'], $said['error']['path']]);
    }

    public function testContrastsOfEachOnEach(): void
    {
        $document = ['format' => 'upper-pane/style@1', 'id' => 'x', 'name' => 'X', 'colours' => ['ink' => '#000000', 'paper' => '#ffffff', 'mist' => '#eeeeee']];
        $look = $this->ask('POST', '/api/styles/look', ['document' => $document])[1];
        self::assertCount(6, $look['contrasts']);
        $ratios = array_column(array_map(static fn (array $one): array => ["$one[text] on $one[ground]", $one['ratio'], $one['normal']], $look['contrasts']), null, 0);
        self::assertSame([['ink on paper', 21, true], ['paper on mist', 1.16, false]], [$ratios['ink on paper'], $ratios['paper on mist']]);
    }

    public function testAStyleIsMadeOfALayout(): void
    {
        $elements = [
            ['id' => 'a', 'kind' => 'shape', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'fill' => '#14665b'],
            ['id' => 'b', 'kind' => 'shape', 'rect' => ['x' => 9, 'y' => 0, 'width' => 9, 'height' => 9], 'fill' => '#15675c'],
            Make::told('t', 'x', message: false, style: ['family' => 'Inter', 'size_px' => 44, 'color' => '#ffffff']),
        ];
        $layout = $this->ask('POST', '/api/layouts', ['name' => 'L', 'document' => Make::layout($elements)])[1]['id'];
        [$status, $found] = $this->ask('POST', "/api/styles/of/$layout", ['name' => 'Found']);
        self::assertSame([201, 3, [['teal', 'teal-2']]], [$status, $found['colours'], $found['near']]);
        $document = $this->ask('GET', "/api/styles/$found[id]")[1]['document'];
        self::assertSame([['text' => ['family' => 'Inter']], ['title' => ['px' => 44]]], [$document['faces'], $document['sizes']]);
    }

    public function testSettingsFlowDown(): void
    {
        $told = $this->state('places/hall', 'vars.phone', '555 0100');
        self::assertSame(['value' => '555 0100', 'from' => 'hall', 'instead_of' => []], $told['resolved']['vars.phone']);
        $this->state('places/hall', 'languages', ['en']);
        $this->state('places/gates', 'languages', ['pt']);
        $this->state('displays/side', 'vars.phone', '555 0144');
        $text = Make::told('t', '{place_phone}', texts: ['en' => 'call {place_phone}', 'pt' => 'ligue {place_phone}']);
        $layout = $this->ask('POST', '/api/layouts', ['name' => 'L', 'document' => Make::layout([$text])])[1]['id'];
        $this->show($layout, 'wide', 'side');
        self::assertSame(['call 555 0100', 'ligue 555 0144'], [$this->onDisplay('wide')[2], $this->onDisplay('side')[2]]);

        $all = $this->ask('GET', '/api/settings')[1];
        self::assertSame([['gates', 2], ['hall', 3]], array_map(static fn (array $one): array => [$one['id'], $one['displays']], $all['places']));
        self::assertSame([['side', ['vars' => ['phone' => '555 0144']]]], array_map(static fn (array $one): array => [$one['id'], $one['settings']], $all['displays']));

        $change = ['setting' => 'vars.phone', 'value' => '555 0199'];
        $reach = $this->ask('POST', '/api/places/hall/settings/reach', $change)[1]['displays'];
        self::assertSame(['id' => 'wide', 'name' => 'Wide', 'before' => '555 0100', 'after' => '555 0199', 'shows' => 'L', 'other' => true], $reach[0]);
        self::assertSame([['wide', true], ['tall', false]], array_map(static fn (array $one): array => [$one['id'], $one['other']], $reach), 'the third states its own; on the second nothing stands');
        $pictures = $this->ask('POST', '/api/places/hall/settings/reach/wide', $change)[1];
        self::assertSame(['call 555 0100', 'call 555 0199'], [$this->shown($pictures['before']['run_sheet'])[2], $this->shown($pictures['after']['run_sheet'])[2]]);
        self::assertFalse($this->ask('POST', '/api/places/hall/settings/reach', ['setting' => 'vars.fax', 'value' => '1'])[1]['displays'][0]['other'], 'nothing tells it');
        self::assertSame([], $this->older());
        $this->state('places/hall', 'vars.phone', '555 0199');
        self::assertSame(['wide'], $this->older());
        $this->state('displays/side', 'vars.phone', null);
        self::assertSame(['wide', 'side'], $this->older(), 'back to what is inherited');
        self::assertStringContainsString('vars phone 555 0199, before 555 0100', (string) json_encode($this->ask('GET', '/api/record/place/hall')[1]));
    }

    public function testTheClockOfThePlaceRules(): void
    {
        $clock = ['id' => 'c', 'kind' => 'clock', 'rect' => ['x' => 0, 'y' => 0, 'width' => 99, 'height' => 99], 'pattern' => 'HH', 'style' => ['size_px' => 40]];
        $layout = $this->ask('POST', '/api/layouts', ['name' => 'Clock', 'document' => Make::layout([$clock])])[1]['id'];
        $this->show($layout, 'wide');
        $this->state('places/hall', 'timezone', 'Atlantic/Azores');
        self::assertSame(['wide'], $this->older());
        $survey = $this->ask('GET', '/api/displays/wide')[1];
        self::assertContains('survey.timezone', array_column($survey['findings'], 'code'), 'its survey says another');
        self::assertSame('Atlantic/Azores', Estate::together($this->ask('GET', '/api/estate')[1])['displays'][0]['timezone']);
        $this->show($layout, 'wide');
        self::assertSame([], $this->older());
    }

    public function testSettingsThatCannotBe(): void
    {
        $wrong = [
            [['setting' => 'colour', 'value' => 'red'], '/setting'], [['setting' => 'timezone', 'value' => 'Tolm'], '/value'], [['setting' => 'style', 'value' => 'gone'], '/value'],
            [['setting' => 'languages', 'value' => ['english please']], '/value'],
            [['setting' => 'vars.Phone', 'value' => 'x'], '/setting'], [['setting' => 'standby', 'value' => ['layout' => 'gone']], '/value/layout'],
            [['setting' => 'tags', 'value' => ['x']], '/value'],
        ];
        foreach ($wrong as [$body, $path]) {
            [$status, $said] = $this->ask('PUT', '/api/places/hall/settings', $body);
            self::assertSame([422, $path], [$status, $said['error']['path'] ?? null], (string) json_encode($body));
        }
        self::assertSame(404, $this->ask('PUT', '/api/places/gone/settings', ['setting' => 'style', 'value' => null])[0]);
    }

    /** @param array<string, mixed> $document */
    private function newStyle(array $document): string
    {
        [$status, $made] = $this->ask('POST', '/api/styles', ['name' => 'Style', 'document' => $document]);
        self::assertSame(201, $status, (string) json_encode($made));

        return $made['id'];
    }

    private function layout(string $colour): string
    {
        return $this->ask('POST', '/api/layouts', ['name' => 'Named', 'document' => self::document($colour)])[1]['id'];
    }

    /** @return array<string, mixed> */
    private static function document(string $colour): array
    {
        return Make::layout([Make::told('t', 'Pier', message: false, style: ['size_px' => $colour[0] === '@' ? '@line' : 40, 'color' => $colour])]);
    }

    /** @return array<string, mixed> */
    private function state(string $at, string $setting, mixed $value): array
    {
        [$status, $told] = $this->ask('PUT', "/api/$at/settings", ['setting' => $setting, 'value' => $value]);
        self::assertSame(200, $status, (string) json_encode($told));

        return $told;
    }

    private function show(string $layout, string ...$displays): void
    {
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout], 'displays' => $displays]);
    }

    /** @return array{string, float, string} colour, size and words of the first text that stands on a display */
    private function onDisplay(string $display): array
    {
        return $this->shown($this->sheetOn($display));
    }

    /**
     * @param array<string, mixed> $sheet
     * @return array{string, float, string}
     */
    private function shown(array $sheet): array
    {
        $found = [];
        array_walk_recursive($sheet, static function (mixed $value, int|string $name) use (&$found): void {
            in_array($name, ['text', 'color', 'size_px'], true) ? $found[$name] ??= $value : null;
        });

        return [$found['color'] ?? '', (float) ($found['size_px'] ?? 0), $found['text'] ?? ''];
    }
}
