<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core;

use PHPUnit\Framework\TestCase;
use UpperPane\App\CommandLine\UpperPane;
use UpperPane\App\Text\HarfBuzz;
use UpperPane\Tests\Core\Overlay\OverlayDocuments;
use UpperPane\Tests\Core\Trigger\TriggerDocuments;

/** `bin/upperpane` on files, as scripts call it. */
final class CommandLineTest extends TestCase
{
    public function testFitGivesTheFiguresOfTheContract(): void
    {
        [$code, $out] = $this->called('fit --source 1600x900 --box 1344x864 --mode cover --focus 50,50');

        self::assertSame(0, $code);
        self::assertEquals(['x' => -96, 'y' => 0, 'width' => 1536, 'height' => 864], $out['drawn']);
        self::assertEquals(['x' => 100, 'y' => 0, 'width' => 1400, 'height' => 900], $out['visible']);
        self::assertSame(0.125, $out['lost']);
    }

    public function testCheckEndsWithOneWhenSomethingStops(): void
    {
        self::assertSame(0, $this->called('check - ', Make::harbour(216, 864))[0], 'warnings alone are still 0');
        [$code, $out] = $this->called('check -', Make::layout([Make::zone('a', 0, 0, 1920, 1080, [])]));
        self::assertSame([1, 1, 'zone.empty'], [$code, $out['stops'], $out['findings'][0]['code']]);
    }

    public function testMatchNamesTheVerdict(): void
    {
        $display = $this->file(Make::display(1920, 1080, 90));
        [$code, $out] = $this->called("match - $display", Make::harbour());

        self::assertSame([0, 'crossed', true], [$code, $out['verdict'], $out['swapped']]);
    }

    public function testShownAndTimelineTellTheSame(): void
    {
        $layout = $this->file(Make::layout([Make::zone('a', 0, 0, 1600, 900, [Make::picture('i1'), Make::film('f1')])]));
        [, $shown] = $this->called("shown $layout --at 2026-06-01T10:00:12Z");
        [, $timeline] = $this->called("timeline $layout --from 2026-06-01T10:00:12Z --to 2026-06-01T10:00:13Z");

        self::assertSame('2026-06-01T10:00:12Z', $shown['instant']);
        self::assertSame($timeline['zones'][0]['segments'][0]['item'], $shown['things'][0]['item']);
        self::assertSame($timeline['zones'][0]['segments'][0]['offset_ms'], $shown['things'][0]['offset_ms']);
        self::assertSame(25_000, $timeline['meets_every_ms']);
    }

    public function testDataAreReadChosenAndTold(): void
    {
        $data = $this->file(['sailings' => [
            ['to' => 'Tolm', 'departs' => '2026-06-01T17:05', 'wind' => '5'], ['to' => 'Vennick', 'departs' => '2026-06-01T18:00', 'wind' => 'calm'], ['to' => 'Älv', 'departs' => null],
        ]]);
        $rows = ['format' => 'upper-pane/rows@1', 'source' => 'sailings', 'path' => '$.sailings[*]', 'fields' => [
            'to' => '$.to', 'departs' => ['of' => '$.departs', 'type' => 'local'], 'wind' => ['of' => '$.wind', 'type' => 'number', 'unit' => ['m/s', 'kn'], 'decimals' => 1],
        ], 'where' => [['field' => 'departs', 'is' => 'upcoming', 'to_min' => 60]], 'sort' => [['by' => 'to', 'descending' => true]]];
        $source = $this->file(['format' => 'upper-pane/source@1', 'id' => 'sailings', 'name' => 'Sailings', 'from' => ['file' => 's.json'], 'zone' => 'Europe/Lisbon']);
        [$code, $out] = $this->called("rows - --data $data --source $source --at 2026-06-01T16:00:00Z", $rows);
        self::assertSame([0, 2, 1, '2026-06-01T16:05:00Z'], [$code, $out['count'], $out['unreadable'], $out['changes_at']]);
        self::assertSame(['to' => 'Tolm', 'departs' => '2026-06-01T16:05:00Z', 'wind' => 9.7], $out['rows'][1]);
        self::assertSame('2026-06-01T17:05:00Z', $this->called("rows - --data $data --at 2026-06-01T17:00:00Z", $rows)[1]['rows'][1]['departs'], 'without the source its zone is not known');
        self::assertSame('Vennick', $this->called("tree $data")[1]['sailings'][1]['to']);
        self::assertSame(['1'], array_column($this->called("tree - --as csv --options '{\"delimiter\":\";\"}'", "a\n1\n")[1], 'a'));
        self::assertSame(['1'], array_column($this->called("tree - --options '{\"as\":\"csv\"}'", "[\n1\n")[1], '['));
        $pattern = '{n, plural, one {# place} other {# places}} to {to}{x, select, other {}}';
        self::assertSame(['text' => '2 places to Tolm', 'missing' => ['x']], $this->called("format '$pattern' --row '{\"n\":2,\"to\":\"Tolm\"}'")[1]);
        self::assertSame(['ticks' => [0, 1, 2, 3]], $this->called('ticks --from 0 --to 3.7 --count 5')[1]);
        foreach (
            [
                'format "{n"' => 'message.syntax', 'format x --tz Tolm' => 'arguments.wrong', 'format x --row [1]' => 'type.wrong', 'ticks --from 1 --to 1 --count 5' => 'value.range',
                'ticks --from a --to 1 --count 5' => 'arguments.wrong', "tree $data --as rss" => 'data.syntax', "tree $data --as pdf" => 'value.unknown', "rows $data --data $data" => 'field.missing',
            ] as $line => $reason
        ) {
            self::assertSame([2, $reason], array_slice($this->refusal($line, null), 0, 2), $line);
        }
    }

    public function testNamesOfAHouseStyleAreWorkedOut(): void
    {
        $style = $this->file(['format' => 'upper-pane/style@1', 'id' => 'night', 'name' => 'Night', 'extends' => 'house', 'sizes' => ['line' => ['share' => 0.05]]]);
        $house = $this->file(['format' => 'upper-pane/style@1', 'id' => 'house', 'name' => 'House', 'colours' => ['sea' => '#14665b'], 'sizes' => ['line' => ['px' => 9]]]);
        $text = ['id' => 't', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'text' => 'Pier', 'style' => ['size_px' => '@line', 'color' => '@sea']];
        $layout = $this->file(Make::layout([$text]) + ['recipe' => ['columns' => '1fr', 'rows' => '1fr', 'areas' => ['t']]]);
        [$code, $out] = $this->called("shown $layout --at 2026-06-01T10:00:00Z --style $style --style $house");
        self::assertSame([0, 54, '#14665b'], [$code, $out['things'][0]['style']['size_px'], $out['things'][0]['style']['color']]);
        $solved = $this->called("solve $layout --raster 960x540 --style $style --style $house")[1];
        self::assertSame(['size_px' => '@line', 'color' => '@sea'], $solved['elements'][0]['style'], 'names are printed as written');
        $display = $this->file(Make::display());
        self::assertSame(['exact'], [$this->called("match $layout $display --style $style --style $house")[1]['verdict']]);
        $span = '--from 2026-06-01T10:00:00Z --to 2026-06-01T10:00:01Z';
        foreach (["check $layout", "solve $layout --raster 960x540", "timeline $layout $span", "match $layout $display"] as $line) {
            self::assertSame([2, 'ref.unknown', '/elements/0/style/color'], $this->refusal($line, null), $line);
        }
        self::assertSame([2, 'ref.unknown', '/extends'], $this->refusal("check $layout --style $style", null));
    }

    public function testATemplateIsFilledIn(): void
    {
        $slots = [
            ['id' => 'head', 'name' => 'Headline', 'kind' => 'text', 'element' => 'h', 'required' => true, 'languages' => ['en', 'pt']],
            ['id' => 'price', 'name' => 'Price', 'kind' => 'number', 'element' => 'p', 'argument' => 'price', 'decimals' => 2],
        ];
        $style = ['color' => '@sea', 'size_px' => 40];
        $elements = [Make::told('h', 'Head', message: false, style: $style), Make::told('p', '{price} €', style: $style)];
        $template = $this->file(['id' => 'offer', 'name' => 'Offer', 'slots' => $slots] + Make::layout($elements));
        $house = $this->file(['format' => 'upper-pane/style@1', 'id' => 'house', 'name' => 'House', 'colours' => ['sea' => '#14665b']]);
        $document = ['format' => 'upper-pane/filled@1', 'id' => 'late', 'name' => 'Late', 'template' => 'offer', 'values' => ['head' => ['en' => 'Late', 'pt' => 'Tarde'], 'price' => 18.5]];
        $filled = $this->file($document);
        $texts = fn (string $more): array => array_column($this->called("fill $filled --with $template --style $house $more")[1]['layout']['elements'], 'text');
        self::assertSame([['Late', '18.50 €'], ['Tarde', '18,50 €'], ['Tarde', '18,50 €']], array_map($texts, ['', '--language pt', '--languages pt,en']));
        [$code, $out] = $this->called("fill - --with $template --style $house", ['values' => new \stdClass()] + $document);
        self::assertSame([1, 1, 'slot.missing'], [$code, $out['stops'], $out['findings'][0]['code']]);
        self::assertSame([2, 'ref.unknown', '/elements/0/style/color'], $this->refusal("fill $filled --with $template", null));
        self::assertSame([2, 'ref.unknown', '/template'], $this->refusal("fill $filled", null));
        $named = $this->file(Make::layout([['style' => ['color' => '@sea', 'size_px' => 9]] + Make::told('t', 'x', message: false)], id: 'other'));
        $refusal = $this->refusal("fill $filled --with $template --with $named --style $house", null);
        self::assertSame([2, 'ref.unknown', '/elements/0/style/color'], $refusal, 'a plain layout could not say what they mean');
        foreach (['check' => 0, 'shown' => 0, 'timeline' => 0] as $verb => $want) {
            $span = ['check' => '', 'shown' => '--at 1970-01-01T00:00:06Z', 'timeline' => '--from 1970-01-01T00:00:00Z --to 1970-01-01T00:00:01Z'][$verb];
            self::assertSame($want, $this->called("$verb $filled --with $template --style $house $span")[0], $verb);
        }
        self::assertSame('Tarde', $this->called("shown $filled --with $template --style $house --at 1970-01-01T00:00:06Z")[1]['things'][0]['text']);
        $outer = $this->file(Make::layout([Make::zone('z', 0, 0, 9, 9, [['id' => 'i', 'layout' => ['ref' => 'late'], 'duration_ms' => 9000]])], id: 'outer'));
        self::assertSame('Late', $this->called("shown $outer --with $filled --with $template --style $house --at 1970-01-01T00:00:00Z")[1]['things'][1]['text']);

        $rows = $this->file(['format' => 'upper-pane/rows@1', 'source' => 's', 'path' => '$.trips[*]', 'language' => 'pt']);
        $data = $this->file(['trips' => [['to' => 'Tolm', 'fare' => 12.5], ['to' => 'Vennick']]]);
        $map = json_encode(['head' => ['en' => 'to', 'pt' => 'Para {to}: {fare}'], 'price' => 'fare']);
        $many = $this->called("fill-rows $template --rows $rows --data $data --map '$map' --name 'To {to}'")[1]['filled'];
        self::assertSame([['offer-1', 'To Tolm'], ['offer-2', 'To Vennick']], array_map(static fn (array $one): array => [$one['id'], $one['name']], $many));
        self::assertSame(['head' => ['en' => 'Tolm', 'pt' => 'Para Tolm: 12,5'], 'price' => 12.5], $many[0]['values']);
        self::assertSame([2, 'type.wrong', '/rows/0/price'], $this->refusal("fill-rows $template --rows $rows --data $data --map '{\"price\": \"to\"}'", null));
    }

    public function testSettingsOfPlacesHoldOnTheirDisplays(): void
    {
        $day = ['style' => 'day', 'timezone' => 'Europe/Lisbon', 'vars' => ['phone' => '555'], 'standby' => ['layout' => 'rest']];
        $estate = $this->file(['format' => 'upper-pane/estate@1', 'id' => 'e', 'name' => 'E', 'places' => [
            ['id' => 'all', 'name' => 'All', 'settings' => $day], ['id' => 'tolm', 'name' => 'Tolm', 'parent' => 'all', 'settings' => ['style' => 'night', 'languages' => ['pt']]],
        ], 'displays' => [['id' => 'd', 'place' => 'tolm', 'settings' => ['timezone' => 'Atlantic/Azores']]]]);
        $style = fn (string $id, string $ink): string => ' --style ' . $this->file(['format' => 'upper-pane/style@1', 'id' => $id, 'name' => $id, 'colours' => ['ink' => $ink]]);
        $styles = $style('day', '#000000') . $style('night', '#ffffff');
        $display = $this->file(['id' => 'd'] + Make::display());
        $elements = [
            Make::told('t', '{place_phone}', texts: ['en' => 'call {place_phone}', 'pt' => 'ligue {place_phone}'], style: ['color' => '@ink', 'size_px' => 40]),
            ['id' => 'c', 'kind' => 'clock', 'rect' => ['x' => 0, 'y' => 0, 'width' => 99, 'height' => 99], 'pattern' => 'HH', 'style' => ['size_px' => 40]],
        ];
        $layout = $this->file(Make::layout($elements));
        $shown = $this->called("shown $layout --at 2026-06-01T10:00:00Z --display $display --estate $estate $styles")[1]['things'];
        self::assertSame(['ligue 555', '#ffffff', '10'], [$shown[0]['text'], $shown[0]['style']['color'], $shown[1]['text']], 'its languages, the style of its place, its own zone');
        $check = $this->called("check $layout --display $display --estate $estate $styles")[1]['findings'];
        self::assertContains('survey.timezone', array_column($check, 'code'), 'the zone of the document is compared');
        $span = '--from 2026-06-01T00:00:00Z --to 2026-06-01T01:00:00Z';
        $schedule = ['format' => 'upper-pane/schedule@1', 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'bookings' => []];
        $plays = fn (array $schedule): array => $this->called("plays - --display $display --estate $estate $span", $schedule)[1];
        self::assertSame([['layout' => 'rest'], 'Atlantic/Azores'], [$plays($schedule)['plays'][0]['plays'], $plays($schedule)['timezone']]);
        self::assertSame(['layout' => 'own'], $plays($schedule + ['standby' => ['layout' => 'own']])['plays'][0]['plays'], 'its own goes before');
        self::assertSame(['value' => 'night', 'from' => 'tolm', 'instead_of' => [['from' => 'all', 'value' => 'day']]], $this->called("resolve $estate --at d")[1]['settings']['style']);
        self::assertSame(['displays' => ['d']], $this->called("resolve $estate --reach all --setting vars.phone")[1]);
        self::assertSame(['displays' => []], $this->called("resolve $estate --reach all --setting vars.fax")[1]);
        $wrong = ['--at gone' => 'ref.unknown', '--reach gone --setting style' => 'ref.unknown', '--reach all --setting colour' => 'value.unknown'];
        $wrong += ['--reach all' => 'arguments.wrong', '' => 'arguments.wrong'];
        foreach ($wrong as $line => $reason) {
            self::assertSame([2, $reason, ''], $this->refusal("resolve $estate $line", null), $line);
        }
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal("check $layout --estate $estate $styles", null));
    }

    public function testOverlaysLieAboveWhatPlays(): void
    {
        $mark = $this->file(OverlayDocuments::mark('top-left', 0.1, 0.0));
        $strip = $this->file(['style' => ['size_px' => 40], 'room' => 'squeeze', 'when' => ['bookings' => [
            ['start' => '2026-06-01T08:00:00', 'end' => '2026-06-01T09:00:00'],
        ]]] + OverlayDocuments::strip());
        $takeover = $this->file(['plays' => ['media' => 'siren'], 'when' => ['bookings' => [
            ['start' => '2026-06-01T07:30:00Z', 'end' => '2026-06-01T07:45:00Z'],
        ]]] + OverlayDocuments::takeover());
        $siren = $this->file(['name' => 'siren.png', 'width' => 100, 'height' => 100]);
        $layout = $this->file(Make::layout([Make::zone('a', 0, 0, 960, 540, [Make::picture()])], 960, 540));
        $display = $this->file(['id' => 'd', 'name' => 'D'] + Make::display());
        $all = "--overlay $strip --overlay $mark --overlay $takeover";
        $told = fn (string $more): array => array_map(
            static fn (array $one): array => [$one['element'] ?? $one['overlay'], $one['rect']['width']],
            $this->called("shown $layout --at 2026-06-01T07:20:00Z $more")[1]['things'],
        );
        self::assertSame([['a', 960], ['mark', 180]], $told("--overlay $strip --overlay $mark"), 'without a display the clock is UTC, and the canvas that of the layout');
        self::assertSame([['a', 1728], ['strip', 1920], ['mark', 360]], $told("--display $display $all --media siren=$siren"), 'in Lisbon it is 8:20');
        $out = $this->called("shown $layout --display $display --at 2026-06-01T07:40:00Z $all --media siren=$siren")[1];
        self::assertSame([['takeover', ['x' => 420, 'y' => 0, 'width' => 1080, 'height' => 1080]]], array_map(static fn (array $one): array => [$one['overlay'], $one['drawn']], $out['things']));

        $schedule = $this->file(['format' => 'upper-pane/schedule@1', 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'standby' => ['layout' => 'day'], 'bookings' => [
            ['id' => 'b', 'plays' => ['layout' => 'noon'], 'rank' => 'dated', 'start' => '2026-06-01T08:35:00', 'end' => '2026-06-01T12:00:00'],
        ]]);
        $span = '--from 2026-06-01T06:00:00Z --to 2026-06-01T09:00:00Z';
        $pieces = fn (string $more): array => array_map(
            static fn (array $one): array => [substr($one['from'], 11, 5), $one['plays']['layout'], implode(' ', $one['overlays'])],
            $this->called("plays $schedule --display $display $span $more")[1]['plays'],
        );
        $want = [['06:00', 'day', 'mark'], ['07:00', 'day', 'strip mark'], ['07:30', 'day', 'takeover'], ['07:35', 'noon', 'takeover'], ['07:45', 'noon', 'strip mark'], ['08:00', 'noon', 'mark']];
        self::assertSame($want, $pieces($all));
        $estate = fn (array $overlays): string => $this->file(['format' => 'upper-pane/estate@1', 'id' => 'e', 'name' => 'E', 'places' => [
            ['id' => 'all', 'name' => 'All', 'settings' => ['overlays' => ['add' => ['mark', 'takeover']]]],
        ], 'displays' => [['id' => 'd', 'place' => 'all', 'settings' => ['overlays' => $overlays]]]]);
        self::assertSame([['06:00', 'day', 'mark'], ['07:35', 'noon', 'mark']], $pieces("$all --estate {$estate(['without' => ['takeover']])}"));
        self::assertSame([2, 'ref.unknown', ''], $this->refusal("plays $schedule --display $display $span --overlay $mark --estate {$estate(['only' => ['storm']])}", null));
        [$code, $out] = $this->called("check $layout --display $display --at 2026-06-01T07:20:00Z $all --media siren=$siren");
        $found = array_map(static fn (array $one): string => "$one[code] " . implode(' ', $one['elements']), $out['findings']);
        self::assertSame([0, ['overlay.hidden mark', 'overlay.hidden strip', 'text.contrast strip', 'text.small strip']], [
            $code, array_values(array_intersect(['overlay.hidden mark', 'overlay.hidden strip', 'text.contrast strip', 'text.small strip', 'overlay.covers a strip'], $found)),
        ]);
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal("check $layout --at 2026-06-01T07:20:00Z --overlay $mark", null));
        self::assertSame([2, 'ref.unknown', '/plays/media'], $this->refusal("shown $layout --display $display --at 2026-06-01T07:40:00Z $all", null));
        self::assertSame([2, 'value.range', '/opacity'], $this->refusal("shown $layout --at 2026-06-01T07:40:00Z --overlay -", ['opacity' => 2] + OverlayDocuments::mark()));
    }

    /** Each of several maps runs alone; of two that show in one place the later is drawn, and behind it the other goes on. */
    public function testADisplayRunsSeveralMaps(): void
    {
        $operator = static fn (string $id): array => ['id' => $id, 'kind' => 'operator'];
        $map = fn (string $id, int $lingerMs): string => $this->file(['format' => 'upper-pane/triggers@1', 'id' => $id, 'name' => $id, 'rest' => 'idle', 'states' => [
            ['id' => 'idle'], ['id' => "{$id}_on", 'plays' => ['layout' => $id], 'linger_ms' => $lingerMs],
        ], 'signals' => [$operator("{$id}_go"), $operator('both')], 'transitions' => [
            ['from' => ['*'], 'on' => "{$id}_go", 'to' => "{$id}_on"], ['from' => ['*'], 'on' => 'both', 'to' => "{$id}_on"],
        ]]);
        $film = fn (string $id): string => $this->file(Make::layout([Make::zone('z', 0, 0, 960, 540, [Make::film('f', 9000)])], 960, 540, $id));
        $layout = $this->file(Make::layout([Make::zone('a', 0, 0, 960, 540, [Make::picture()])], 960, 540));
        [$low, $high, $with] = [$map('low', 8000), $map('high', 2000), "--with {$film('low')} --with {$film('high')}"];
        $signals = $this->file([['at' => '2026-06-01T10:00:00Z', 'signal' => 'low_go'], ['at' => '2026-06-01T10:00:03Z', 'signal' => 'high_go']]);
        $shown = fn (string $at, string $maps): array => array_map(
            static fn (array $one): string => "$one[element] " . ($one['offset_ms'] ?? ''),
            array_slice($this->called("shown $layout --at 2026-06-01T10:00:0{$at}Z $maps --signals $signals $with")[1]['things'], 1),
        );
        self::assertSame(['low_on 2000', 'low_on/z 2000'], $shown('2', "--triggers $low --triggers $high"));
        self::assertSame(['high_on 1000', 'high_on/z 1000'], $shown('4', "--triggers $low --triggers $high"));
        self::assertSame(['low_on 6500', 'low_on/z 6500'], $shown('6.5', "--triggers $low --triggers $high"), 'it went on behind the other');
        self::assertSame(['low_on 4000', 'low_on/z 4000'], $shown('4', "--triggers $high --triggers $low"));

        $schedule = $this->file(['format' => 'upper-pane/schedule@1', 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'standby' => ['layout' => 'day'], 'bookings' => [
            ['id' => 'b', 'plays' => ['layout' => 'noon'], 'rank' => 'dated', 'start' => '2026-06-01T10:00:04', 'end' => '2026-06-01T12:00:00'],
        ]]);
        $span = '--from 2026-06-01T10:00:00Z --to 2026-06-01T10:00:09Z';
        $plays = $this->called("plays $schedule $span --triggers $low --triggers $high --signals $signals $with")[1]['plays'];
        self::assertSame([
            ['00Z', 'day', 'low_on', 'idle'], ['03Z', 'day', 'low_on', 'high_on'], ['04Z', 'noon', 'low_on', 'high_on'], ['05Z', 'noon', 'low_on', 'idle'], ['08Z', 'noon', 'idle', 'idle'],
        ], array_map(static fn (array $one): array => [substr($one['from'], 17), $one['plays']['layout'], $one['triggers']['low'], $one['triggers']['high']], $plays));
        self::assertSame([2, 'ref.unknown', '/1/signal'], $this->refusal("plays $schedule $span --triggers $low --signals $signals $with", null), 'no signal of this one');
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal("plays $schedule $span --triggers $low --triggers $low --signals $signals $with", null));
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal("plays $schedule $span --triggers $low $with", null));
    }

    public function testTextsStandInSeveralLanguages(): void
    {
        $layout = $this->file(Make::layout([Make::told('t', '{n}', texts: ['en' => 'from {place_x}', 'pt' => 'desde {place_x}'])]));
        $told = fn (string $more): string => $this->called("shown $layout --at 1970-01-01T00:00:06Z $more")[1]['things'][0]['text'];
        self::assertSame(['desde –', 'from –', 'desde –', 'from –'], array_map($told, ['', '--languages pt,en', '--language pt', '--language de']));
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal("check $layout --languages 'pt en'", null));
    }

    public function testRowsMakeItemsBookingsAndPictures(): void
    {
        $data = $this->file(['trips' => [['title' => 'Tolm', 'photo' => 'a.png?n=1', 'at' => '2026-06-01T10:00:00Z'], ['title' => 'Vennick', 'photo' => null, 'at' => '2026-06-01T11:00:00Z']]]);
        $rows = ['source' => 't', 'path' => '$.trips[*]'];
        $from = ['field' => 'photo', 'standby' => ['name' => 'none.png', 'width' => 9, 'height' => 9]];
        $picture = ['id' => 'p', 'kind' => 'picture', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'media' => $from];
        $item = ['id' => 'o', 'each' => $rows, 'duration_ms' => 4000, 'layout' => Make::layout([$picture, Make::told('t', '{title}')], id: 'offer')];
        $layout = $this->file(Make::layout([Make::zone('z', 0, 0, 9, 9, [$item])]));
        $media = $this->file(['name' => 'Tolm', 'width' => 40, 'height' => 30]);
        $told = fn (string $at, string $more = ''): array => array_map(
            static fn (array $one): string => $one['text'] ?? $one['media']['name'] ?? '',
            array_slice($this->called("shown $layout --data t=$data --at $at $more")[1]['things'], 1),
        );
        self::assertSame(['Tolm', 'Tolm'], $told('1970-01-01T00:00:00Z', "--media 'a.png?n=1=$media'"));
        self::assertSame(['none.png', 'Tolm'], $told('1970-01-01T00:00:00Z'));
        self::assertSame(['none.png', 'Vennick'], $told('1970-01-01T00:00:04Z'));
        $span = '--from 1970-01-01T00:00:00Z --to 1970-01-01T00:00:12Z';
        self::assertSame([0, 1, 0], array_column($this->called("timeline $layout --data t=$data $span")[1]['zones'][0]['segments'], 'row'));
        $list = $this->file(['format' => 'upper-pane/playlist@1', 'id' => 'l', 'name' => 'L', 'items' => [$item]]);
        self::assertSame(['o', 'o'], $this->called("loop $list --data t=$data")[1]['cycle']);
        $when = ['rows' => $rows + ['where' => [['field' => 'at', 'is' => 'upcoming', 'to_min' => 30]]]];
        $schedule = $this->file(['format' => 'upper-pane/schedule@1', 'id' => 's', 'name' => 'Hall', 'timezone' => 'UTC', 'bookings' => [
            ['id' => 'day', 'plays' => ['layout' => 'day'], 'rank' => 'everyday', 'start' => '2026-06-01T08:00:00', 'end' => '2026-06-01T20:00:00', 'when' => $when],
        ]]);
        $plays = $this->called("plays $schedule --data t=$data --from 2026-06-01T09:00:00Z --to 2026-06-01T12:00:00Z")[1]['plays'];
        self::assertSame([null, 'day', null, 'day', null], array_column($plays, 'booking'));
        self::assertSame(['2026-06-01T09:30:00Z', '2026-06-01T10:00:00Z', '2026-06-01T10:30:00Z', '2026-06-01T11:00:00Z', '2026-06-01T12:00:00Z'], array_column($plays, 'to'));
        foreach (
            [
                "plays $schedule --from 2026-06-01T09:00:00Z --to 2026-06-01T12:00:00Z" => ['data.unknown', '/bookings/0/when/rows/source'],
                "loop $list" => ['data.unknown', '/items/0/each/source'],
                "shown $layout --data t=$data --at 1970-01-01T00:00:00Z --media a.png=$data" => ['field.unknown', '/trips'],
                "shown $layout --data t=$data --at 1970-01-01T00:00:00Z --media a.png=" . __FILE__ => ['arguments.wrong', ''],
                "shown $layout --data t=$data --at 1970-01-01T00:00:00Z --media a.png" => ['arguments.wrong', ''],
            ] as $line => $refusal
        ) {
            self::assertSame([2, ...$refusal], $this->refusal($line, null), $line);
        }
    }

    public function testRecurGivesTheInstantsOfTheContract(): void
    {
        $span = '--from 2026-03-01T00:00:00Z --to 2026-05-01T00:00:00Z';
        [$code, $out] = $this->called("recur \"FREQ=DAILY;COUNT=3\" --start 2026-03-28T01:30:00 --tz Europe/Lisbon $span");
        self::assertSame([0, ['2026-03-28T01:30:00Z', '2026-03-30T00:30:00Z', '2026-03-31T00:30:00Z']], [$code, $out['instants']], '01:30 on the 29th does not exist');
        [, $out] = $this->called("recur \"FREQ=DAILY;COUNT=3\" --start 2026-04-10T08:00:00 --tz Atlantic/Azores $span --exdate 2026-04-11 --exdate 2026-04-12T08:00:00 --rdate 2026-04-20T09:00:00");
        self::assertSame(['2026-04-10T08:00:00Z', '2026-04-20T09:00:00Z'], $out['instants']);
        self::assertSame([2, 'rrule.wrong', ''], $this->refusal("recur FREQ=NEVER --start 2026-03-28T01:30:00 --tz UTC $span", null));
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal("recur FREQ=DAILY --start 2026-03-28T01:30:00 --tz Mars/Olympus $span", null));
        self::assertSame([2, 'budget.exceeded', '/to'], $this->refusal('recur FREQ=SECONDLY --start 1990-01-01T00:00:00 --tz UTC --from 2026-01-01T00:00:00Z --to 2027-01-01T00:00:00Z', null));
        self::assertSame([2, 'value.range', ''], $this->refusal("recur FREQ=DAILY --start 2026-03-28T01:30:00Z --tz UTC $span", null));
    }

    public function testPlaysTilesTheSpanInTheZoneOfTheDisplay(): void
    {
        $schedule = $this->file(['format' => 'upper-pane/schedule@1', 'id' => 's', 'name' => 'Hall', 'timezone' => 'Europe/Lisbon', 'standby' => ['layout' => 'night'], 'bookings' => [
            ['id' => 'day', 'plays' => ['layout' => 'day'], 'rank' => 'everyday', 'start' => '2026-01-01T08:00:00', 'end' => '2026-01-01T20:00:00', 'rrule' => 'FREQ=DAILY'],
        ]]);
        $span = '--from 2026-10-25T00:30:00Z --to 2026-10-25T12:00:00Z';
        [$code, $out] = $this->called("plays $schedule $span");
        self::assertSame(0, $code);
        self::assertSame([
            ['from' => '2026-10-25T00:30:00Z', 'to' => '2026-10-25T08:00:00Z', 'plays' => ['layout' => 'night'], 'booking' => null, 'why' => 'standby: no booking is due'],
            ['from' => '2026-10-25T08:00:00Z', 'to' => '2026-10-25T12:00:00Z', 'plays' => ['layout' => 'day'], 'booking' => 'day', 'why' => 'everyday booking "day"'],
        ], $out['plays']);
        $vennick = $this->file(['timezone' => 'Atlantic/Azores'] + Make::display());
        [, $out] = $this->called("plays $schedule --display $vennick $span");
        self::assertSame(['Atlantic/Azores', '2026-10-25T09:00:00Z'], [$out['timezone'], $out['plays'][1]['from']]);
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal("plays $schedule --zone side $span", null));
        self::assertSame([2, 'format.unknown', '/format'], $this->refusal("plays - $span", Make::harbour()));
    }

    public function testTimingGivesTheFiguresOfTheContract(): void
    {
        [$code, $out] = $this->called('timing --width 3840 --height 2160 --refresh 60');

        self::assertSame(0, $code);
        self::assertSame(
            ['pixel_clock_khz' => 712_750, 'h_total' => 5312, 'v_total' => 2237, 'h_front' => 312, 'h_sync' => 424, 'h_back' => 736, 'v_front' => 3, 'v_sync' => 5, 'v_back' => 69],
            array_slice($out, 0, 9),
            'as `edid-decode --cvt w=3840,h=2160,fps=60` prints it',
        );
        self::assertSame(59.98, round($out['refresh_hz'], 2));
        self::assertSame(138_500, $this->called('timing --width 1920 --height 1080 --refresh 60 --blanking reduced')[1]['pixel_clock_khz']);
        foreach (['--width 63', '--width 19.5', '--width 20000', '--height -4', '--refresh 9', '--refresh 1e2', '--blanking wide'] as $wrong) {
            self::assertSame([2, 'arguments.wrong', ''], $this->refusal("timing --width 1920 --height 1080 --refresh 60 $wrong", null), $wrong);
        }
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal('timing --width 1920 --height 1080', null));
    }

    public function testAnEdidIsReadFromItsBytes(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'edid');
        file_put_contents($file, MakeEdid::of([MakeEdid::fullHd(), MakeEdid::name('Quay 43')]));
        [$code, $out] = $this->called("edid $file");
        self::assertSame([0, 'Quay 43', ['width' => 1920, 'height' => 1080]], [$code, $out['name'], $out['native']]);
        file_put_contents($file, 'no EDID');
        self::assertSame([2, 'edid.length', ''], $this->refusal("edid $file", null));
        unlink($file);
    }

    public function testAWallIsPlannedAndItsStopsEndWithOne(): void
    {
        [$code, $out] = $this->called('wall -', Make::wall());
        self::assertSame([0, 1.5873, [4, 4], [4], ['width' => 5768, 'height' => 2164]], [$code, $out['density'], $out['hidden']['columns'], $out['hidden']['rows'], $out['canvas']]);
        self::assertSame([[], 0, 6], [$out['voids'], $out['stops'], $out['panels'][5]['output']]);

        $twice = Make::wall(2, 1);
        $twice['panels'][0]['output'] = $twice['panels'][1]['output'] = 1;
        [$code, $out] = $this->called('wall -', $twice);
        self::assertSame([1, 'output.twice'], [$code, $out['findings'][0]['code']]);

        $processor = ['player' => 'a', 'output' => 1, 'raster' => ['width' => 2884, 'height' => 1082]];
        self::assertSame(['width' => 0.5, 'height' => 0.5], $this->called('wall -', Make::wall(processor: $processor))[1]['processor']['factor']);
        self::assertSame([2, 'value.range', '/bezels'], $this->refusal('wall -', ['bezels' => 'butt'] + Make::freeWall(['a' => []])));
    }

    public function testALengthIsDividedAndALayoutSolvedForAnotherRaster(): void
    {
        self::assertSame([0, ['tracks' => [['start' => 0, 'size' => 1344], ['start' => 1344, 'size' => 576]]], []], $this->called("tracks '7fr 3fr' --length 1920"));
        self::assertSame([0, 52], array_column($this->called("tracks '1fr 1fr' --length 100 --gap 4")[1]['tracks'], 'start'));
        self::assertSame([2, 'tracks.syntax', ''], $this->refusal("tracks '7fr auto' --length 1920", null));
        self::assertSame([2, 'tracks.too-long', ''], $this->refusal("tracks '2000px' --length 1920", null));
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal("tracks '1fr'", null));

        $recipe = ['columns' => '7fr 3fr', 'rows' => '4fr 1fr', 'areas' => ['main side', 'foot foot']];
        [$code, $out] = $this->called('solve - --raster 1366x768', Make::harbour() + ['recipe' => $recipe]);
        self::assertSame([0, ['width' => 1366, 'height' => 768], [956, 410, 1366]], [$code, $out['canvas'], array_column(array_column($out['elements'], 'rect'), 'width')]);
        self::assertSame([2, 'recipe.missing', '/recipe'], $this->refusal('solve - --raster 1366x768', Make::harbour()));
        self::assertSame([2, 'tracks.too-long', '/recipe/rows'], $this->refusal('solve - --raster 1366x200', Make::harbour() + ['recipe' => ['rows' => '1fr 216px'] + $recipe]));
        self::assertSame([2, 'tracks.syntax', '/recipe/rows'], $this->refusal('solve - --raster 1366x200', Make::harbour() + ['recipe' => ['rows' => '1fr [a]'] + $recipe]));
    }

    public function testLegibilityAndContrastGiveTheFiguresOfTheContract(): void
    {
        [$code, $out] = $this->called('legibility --mm-per-px 0.63 --cap-px 34 --distance-mm 10000');
        self::assertSame([0, 'unreadable', ['comfortable' => 93, 'limit' => 74]], [$code, $out['verdict'], $out['needed_cap_px']]);
        self::assertSame(['ratio' => 4.478, 'normal' => false, 'large' => true], $this->called("contrast '#777777' '#ffffff'")[1]);
        self::assertSame([2, 'value.range', ''], $this->refusal('contrast teal white', null));
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal('legibility --mm-per-px 0 --cap-px 34 --distance-mm 10000', null));
    }

    public function testStandardTimingsAndAnEdidOfOurOwn(): void
    {
        self::assertSame([594_000, 88], array_values(array_intersect_key($this->called('timing --vic 97')[1], ['pixel_clock_khz' => 1, 'h_sync' => 1])));
        self::assertSame(85_500, $this->called('timing --dmt 0x51')[1]['pixel_clock_khz']);
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal('timing --vic 5', null), 'interlaced');

        $bar = '--width 1920 --height 540 --refresh 60 --width-mm 895 --height-mm 252 --year 2026';
        [$code, $out] = $this->called("edid-for $bar --name 'Deck strip'");
        self::assertSame([0, 256, ['width' => 1920, 'height' => 540], 69_750], [$code, strlen($out['hex']), $out['native'], $out['timings'][0]['pixel_clock_khz']]);
        self::assertSame([2, 'edid.range', '/name'], $this->refusal("edid-for $bar --name 'A name that is too long'", null));
    }

    public function testRefsAreGivenBesideTheLayout(): void
    {
        $list = $this->file(['format' => 'upper-pane/playlist@1', 'id' => 'offers', 'name' => 'Offers', 'items' => [Make::picture()]]);
        $layout = Make::layout([['playlist' => ['ref' => 'offers']] + Make::zone('a', 0, 0, 1600, 900)]);

        self::assertSame('i1', $this->called("shown - --at 2026-06-01T10:00:12Z --with $list", $layout)[1]['things'][0]['item']);
        self::assertSame([2, 'ref.unknown', '/elements/0/playlist/ref'], $this->refusal('shown - --at 2026-06-01T10:00:12Z', $layout));
    }

    public function testWhatIsRefusedEndsWithTwoAndSaysWhere(): void
    {
        $layout = Make::harbour();
        unset($layout['canvas']);
        self::assertSame([2, 'field.missing', '/canvas'], $this->refusal('check -', $layout));
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal('check', null));
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal('draw x', null));
        self::assertSame([2, 'file.missing', ''], $this->refusal('check /nowhere.json', null));
        self::assertSame([2, 'value.range', ''], $this->refusal('shown - --at yesterday', Make::harbour()));
        self::assertSame([2, 'json.syntax', ''], $this->refusal('check -', '{"format": '));
    }

    public function testTriggersAreRunProvenAndWritten(): void
    {
        $map = $this->file(TriggerDocuments::map(
            [['linger' => 'own'] + array_diff_key(TriggerDocuments::state('a'), ['linger_ms' => 1]), TriggerDocuments::state('b', 500)],
            [['id' => 'near', 'kind' => 'presence', 'sensor' => 's1', 'bands' => [1]], TriggerDocuments::operator('go')],
            [TriggerDocuments::way('idle', 'near', 'a'), TriggerDocuments::way('a', 'go', 'b')],
        ));
        $layout = $this->file(['id' => 'a'] + Make::layout([Make::zone('z', 0, 0, 1920, 1080, [Make::picture('i1', durationMs: 4000)])]));
        $display = $this->file(['sensors' => TriggerDocuments::SENSORS] + Make::display());
        $signals = $this->file([['at' => '2026-06-01T10:00:00Z', 'sensor' => 's1', 'mm' => 300], ['at' => '2026-06-01T10:00:10Z', 'sensor' => 's1', 'mm' => null]]);
        [$code, $out] = $this->called("react $map --signals $signals --display $display --with $layout --until 2026-06-01T10:00:20Z");
        self::assertSame([0, [
            ['at' => '2026-06-01T10:00:00Z', 'state' => 'idle', 'why' => 'start'], ['at' => '2026-06-01T10:00:00Z', 'state' => 'a', 'why' => 'near'],
            ['at' => '2026-06-01T10:00:04Z', 'state' => 'idle', 'why' => 'lapse'],
        ]], [$code, $out['states']]);
        [$code, $out] = $this->called("triggers $map --with $layout");
        self::assertSame([0, 0, 'b', null], [$code, $out['stops'], $out['table'][3]['to'], $out['table'][2]['to']]);
        self::assertSame(['trigger.flutter'], array_column($out['findings'], 'code'));
        self::assertSame(1, $this->called("triggers $map --with $layout --display " . $this->file(Make::display()))[0], 'a display without the sensor');
        $scxml = (string) tempnam(sys_get_temp_dir(), 'upper-pane');
        exec(dirname(__DIR__, 2) . "/bin/upperpane scxml $map --with $layout > $scxml");
        self::assertStringContainsString('delay="4000ms"', (string) file_get_contents($scxml));
        self::assertSame('idle', $this->called("scxml --read $scxml")[1]['rest']);
        self::assertSame([2, 'ref.unknown', '/states/1/linger'], $this->refusal("scxml $map", null));
        self::assertSame(0, $this->called("triggers $map")[0], 'to be proven nothing has to be there');
        $still = $this->file(['id' => 'a'] + Make::layout([Make::told('t', 'Still', message: false)]));
        self::assertSame([2, 'value.range', '/states/1/linger'], $this->refusal("triggers $map --with $still", null));
        self::assertSame([2, 'ref.unknown', '/0/sensor'], $this->refusal("react $map --signals $signals --with $layout --until 2026-06-01T10:00:20Z", null));
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal("react $map --signals - --with $layout --until 2026-06-01T10:00:20Z", '[]'));
    }

    public function testWhatATriggerShowsIsAPartOfWhatIsShownAndChecked(): void
    {
        $map = $this->file(TriggerDocuments::map(
            [TriggerDocuments::state('a', 3000, ['zone' => 'main'])],
            [TriggerDocuments::operator('go')],
            [TriggerDocuments::way('idle', 'go', 'a', ['carries' => true])],
        ));
        $below = $this->file(Make::layout([Make::zone('main', 0, 0, 1920, 1080)]));
        $layout = $this->file(['id' => 'a'] + Make::layout([Make::told('t', 'To {name}')]));
        $signals = $this->file([['at' => '2026-06-01T10:00:00Z', 'signal' => 'go', 'row' => ['name' => 'Tolm']]]);
        $texts = fn (string $at): array => array_column($this->called("shown $below --triggers $map --signals $signals --with $layout --at $at")[1]['things'], 'text');
        self::assertSame([[], ['To Tolm'], []], [$texts('2026-06-01T09:59:59Z'), $texts('2026-06-01T10:00:02.999Z'), $texts('2026-06-01T10:00:03Z')]);
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal("shown $below --triggers $map --at 2026-06-01T10:00:00Z", null));
        $codes = fn (string $file): array => array_column($this->called("check $file --triggers $map --signals $signals --with $layout")[1]['findings'], 'code');
        self::assertNotContains('trigger.zone', $codes($below));
        self::assertContains('trigger.zone', $codes($this->file(Make::layout([Make::zone('side', 0, 0, 1920, 1080)]))));
    }

    /** Sizes and lengths of media are those of their bytes. */
    public function testAFilmThatIsGivenIsAsLongAsItIs(): void
    {
        $film = (string) tempnam(sys_get_temp_dir(), 'film') . '.mp4';
        exec('ffmpeg -v error -y -f lavfi -i color=red:s=320x240:d=3 ' . escapeshellarg($film));
        $map = $this->file(TriggerDocuments::map([['plays' => ['media' => 'm7'], 'linger' => 'own', 'id' => 'a']], [], []));
        [$code, $out] = $this->called("react $map --signals - --from 2026-06-01T10:00:00Z --until 2026-06-01T10:00:20Z --media m7=$film", '[]');
        self::assertSame([0, 1], [$code, count($out['states'])]);
        exec(dirname(__DIR__, 2) . "/bin/upperpane scxml $map --media m7=$film", $lines);
        self::assertStringContainsString('delay="3000ms"', implode("\n", $lines));
        file_put_contents($film, 'no film');
        self::assertSame([2, 'arguments.wrong', ''], $this->refusal("scxml $map --media m7=$film", null));
    }

    /** Only what measures needs them: everything else answers without. */
    public function testFacesThatAreNotInstalledAreSaid(): void
    {
        $run = static function (string $words): array {
            [$in, $out, $error] = array_map(static fn () => fopen('php://memory', 'w+'), [0, 1, 2]);
            assert(is_resource($in) && is_resource($out) && is_resource($error));
            $code = (new UpperPane($in, $out, $error, HarfBuzz::ofTheHouse('/nowhere')))->run(explode('|', $words));
            rewind($error);

            return [$code, json_decode((string) stream_get_contents($error), true)['error']['code'] ?? null];
        };
        $words = $this->file(Make::layout([['id' => 't', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 900, 'height' => 90], 'text' => 'Berth 2', 'style' => ['size_px' => 40]]]));
        self::assertSame([2, 'faces.missing'], $run('measure|--text|Berth 2|--family|Inter|--size-px|72'));
        self::assertSame([2, 'faces.missing'], $run("check|$words"));
        self::assertSame([0, null], $run("timeline|$words|--from|2026-06-01T10:00:00Z|--to|2026-06-01T10:00:10Z"));
        self::assertSame([0, null], $run('tracks|7fr 3fr|--length|1920'));
    }

    /**
     * @param array<string, mixed>|string|null $input
     * @return array{int, string, string}
     */
    private function refusal(string $words, array|string|null $input): array
    {
        [$code, $out, $error] = $this->called($words, $input);
        self::assertSame([], $out, 'nothing is printed');

        return [$code, $error['error']['code'], $error['error']['path']];
    }

    /**
     * @param array<string, mixed>|string|null $input
     * @return array{int, array<string, mixed>, array<string, mixed>}
     */
    private function called(string $words, array|string|null $input = null): array
    {
        $process = proc_open(dirname(__DIR__, 2) . "/bin/upperpane $words", [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
        self::assertIsResource($process);
        fwrite($pipes[0], is_array($input) ? (string) json_encode($input) : (string) $input);
        fclose($pipes[0]);
        [$out, $error] = [(string) stream_get_contents($pipes[1]), (string) stream_get_contents($pipes[2])];

        return [proc_close($process), (array) json_decode($out, true), (array) json_decode($error, true)];
    }

    /** @param array<mixed> $document */
    private function file(array $document): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'upper-pane');
        file_put_contents($file, json_encode($document));

        return $file;
    }
}
