<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Overlay;

use UpperPane\App\Data\Fetched;
use UpperPane\App\Data\Snapshots;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Handover\FreshData;
use UpperPane\Core\Handover\Sheet;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Overlay\OverlayDocuments;
use UpperPane\Tests\Core\Playback\SheetReader;

/** Overlays are settings of places: what holds on a display is handed over with what plays there, and lies above it. */
final class OverlaysTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $hall = $this->entities()->find(Place::class, 'hall') ?? throw new \LogicException();
        $this->entities()->persist(new SurveyedDisplay('other', $hall, ['id' => 'other', 'name' => 'Other'] + Make::display(), 2));
        $this->entities()->flush();
        $this->signIn();
    }

    public function testWhatAPlaceAddsLiesAboveAllThatPlaysInItButWhereItIsTakenOff(): void
    {
        $mark = $this->mark('Mark');
        $strip = $this->overlay('Notices', ['room' => 'squeeze', 'style' => ['family' => 'Inter', 'size_px' => 40]] + OverlayDocuments::strip());
        $layout = $this->made(Make::layout([Make::told('head', 'Sailings', message: false)]))['id'];
        $this->show($layout, 'wide', 'other');
        self::assertSame(['head'], $this->elements('wide'));
        self::assertSame([], $this->older());

        $this->state('places/hall', ['add' => [$mark, $strip]]);
        self::assertSame(['wide', 'other'], $this->older(), 'something else holds there');
        $this->state('displays/other', ['without' => [$strip]]);
        $told = $this->ask('GET', '/api/displays/other/settings')[1]['resolved']['overlays'];
        self::assertSame([[$mark], ['hall']], [$told['value'], $told['from']], 'each says where it comes from');
        $offer = $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => 'layout', 'id' => $layout], 'displays' => ['wide']])[1]['offers'][0];
        self::assertContains('The mark "Mark" lies above.', $offer['changes']);
        $this->show($layout, 'wide', 'other');
        self::assertSame([], $this->older());
        self::assertSame(['head', $strip, $strip, $mark], $this->elements('wide'), 'the strip on its ground, then the mark');
        self::assertSame(['head', $mark], $this->elements('other'));
        $planes = $this->manifestOn('wide')['planes'];
        self::assertSame([$strip, $mark], array_column($planes['above'], 'id'));
        self::assertEqualsWithDelta([540.0, 600.0], array_map(fn (string $on): float => array_column($this->things($on), 'rect', 'element')['head']['width'], ['wide', 'other']), 0.01, 'squeezed');

        $document = $this->ask('GET', "/api/overlays/$mark")[1]['document'];
        $this->ask('PUT', "/api/overlays/$mark", ['base' => 1, 'document' => ['corner' => 'top-left'] + $document]);
        self::assertSame(['wide', 'other'], $this->older(), 'it is saved, and stands as it was handed over');
        self::assertSame([409, 'overlay.used'], [($gone = $this->ask('DELETE', "/api/overlays/$mark"))[0], $gone[1]['error']['code']]);
        $this->state('places/hall', null);
        $this->state('displays/other', null);
        self::assertSame(204, $this->ask('DELETE', "/api/overlays/$mark")[0]);
        self::assertSame(['head', $strip, $strip, $mark], $this->elements('wide'), 'what was handed over stands until something else is');
    }

    /** A window through which nothing can be seen would hide what plays: it is not handed over. */
    public function testAWindowWithoutAnOpeningIsStopped(): void
    {
        $shut = $this->made(Make::layout([]))['id'];
        $window = $this->overlay('Window', ['plays' => ['layout' => $shut]] + OverlayDocuments::window());
        $this->state('places/hall', ['add' => [$window]]);
        [$status, $said] = $this->ask('POST', '/api/handover', ['source' => ['kind' => 'layout', 'id' => $shut], 'displays' => ['wide']]);
        self::assertSame([409, 'handover.stopped'], [$status, $said['error']['code']]);
        self::assertContains('overlay.hole', array_column($said['offers'][0]['findings'], 'code'));
    }

    /** All else that stands there stays at the revision that was handed over. */
    public function testOverlaysArePutUpAloneAboveWhatStands(): void
    {
        $layout = $this->made(Make::layout([Make::told('head', 'Sailings', message: false)]));
        $this->show($layout['id'], 'wide', 'other');
        $changed = ['elements' => [Make::told('head', 'Half done', message: false)]] + $layout['document'];
        $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => $changed]);
        $mark = $this->mark('Mark');
        $this->state('places/hall', ['add' => [$mark]]);
        $told = $this->ask('GET', '/api/above')[1]['overlays'];
        self::assertSame([[$mark], [3], [3]], [array_column($told, 'id'), array_column($told, 'displays'), array_column($told, 'now')]);
        $offers = $this->ask('POST', '/api/above/preview', ['places' => ['hall']])[1]['offers'];
        self::assertSame([['The mark "Mark" lies above.']], array_column($offers, 'changes'));
        $this->handOver(['places' => ['hall']], '/api/above');
        self::assertSame(['Sailings', $mark], [$this->things('wide')[0]['text'], $this->things('wide')[1]['element']]);
        self::assertSame(['wide', 'other'], $this->older(), 'what was saved since is not handed over');
        self::assertSame([409, 'above.same'], [($again = $this->ask('POST', '/api/above', ['places' => ['hall']]))[0], $again[1]['error']['code']]);
        $this->state('displays/other', ['without' => [$mark]]);
        $this->handOver(['displays' => ['other']], '/api/above');
        self::assertSame(['head'], $this->elements('other'));
    }

    public function testItIsRefusedWhereSomethingInItIsWrongOrNotThere(): void
    {
        $wrong = [
            ['/plays/layout', ['plays' => ['layout' => 'none']] + OverlayDocuments::takeover()],
            ['/size', ['size' => 0] + OverlayDocuments::mark()],
            ['/when', ['when' => 'now and then'] + OverlayDocuments::mark()],
            ['/kind', ['kind' => 'flag'] + OverlayDocuments::mark()],
        ];
        foreach ($wrong as [$path, $document]) {
            [$status, $said] = $this->ask('POST', '/api/overlays', ['name' => 'O', 'document' => array_diff_key($document, ['id' => 1, 'name' => 1, 'format' => 1])]);
            self::assertSame([422, $path], [$status, $said['error']['path']], json_encode($said) ?: '');
        }
        foreach ([['add' => ['none']], ['only' => 'all'], ['besides' => []]] as $value) {
            self::assertSame(422, $this->ask('PUT', '/api/places/hall/settings', ['setting' => 'overlays', 'value' => $value])[0]);
        }
    }

    /** A line that tells what a source says goes on with it, whatever was handed over. */
    public function testItTellsFreshData(): void
    {
        $source = $this->ask('POST', '/api/sources', ['name' => 'Notices', 'document' => ['from' => ['address' => 'https://quay.example/notices.json'], 'every_s' => 60]])[1]['id'];
        $document = $this->ask('GET', "/api/sources/$source")[1]['document'];
        $came = static fn (string $json) => static::getContainer()->get(Snapshots::class)->take($document, new Fetched(200, $json, strlen($json), 12, null));
        $came('[{"says": "Lift out of order"}]');
        $rows = ['message' => true, 'text' => '{says}', 'rows' => ['source' => $source, 'path' => '$[*]', 'fields' => ['says' => '$.says']]];
        $strip = $this->overlay('Notices', ['style' => ['family' => 'Inter', 'size_px' => 40]] + $rows + OverlayDocuments::strip());
        $this->state('places/hall', ['add' => [$strip]]);
        $this->show($this->made(Make::layout([]))['id'], 'wide', 'other');
        static::getContainer()->get(FreshData::class)->doDue();
        self::assertSame(['Lift out of order'], array_values(array_filter(array_column($this->things('wide'), 'text'))));
        static::mockTime('+61 seconds');
        $came('[{"says": "All is well"}, {"says": "Tea at four"}]');
        static::getContainer()->get(FreshData::class)->doDue();
        $this->entities()->clear();
        self::assertSame(['All is well · Tea at four'], array_values(array_filter(array_column($this->things('wide', 90_000), 'text'))));
        self::assertSame(409, $this->ask('DELETE', "/api/sources/$source")[0], 'it is told');
    }

    private function mark(string $name): string
    {
        return $this->overlay($name, ['media' => $this->media('logo', 400, 120)->media()?->toArray()] + OverlayDocuments::mark());
    }

    /** @param array<string, mixed> $document */
    private function overlay(string $name, array $document): string
    {
        [$status, $made] = $this->ask('POST', '/api/overlays', ['name' => $name, 'document' => array_diff_key($document, ['id' => 1, 'name' => 1, 'format' => 1])]);
        self::assertSame(201, $status, json_encode($made) ?: '');

        return $made['id'];
    }

    /** @param ?array<string, list<string>> $value */
    private function state(string $at, ?array $value): void
    {
        self::assertSame(200, $this->ask('PUT', "/api/$at/settings", ['setting' => 'overlays', 'value' => $value])[0]);
    }

    private function show(string $layout, string ...$displays): void
    {
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout], 'displays' => $displays]);
        $this->entities()->clear();
    }

    /** @return list<string> */
    private function elements(string $display): array
    {
        return array_column($this->things($display), 'element');
    }

    /** @return list<array<string, mixed>> what a player draws so many ms after ten in the morning */
    private function things(string $display, int $ms = 0): array
    {
        $planes = $this->manifestOn($display)['planes'];
        $read = fn (string $url): array => (array) json_decode($this->published()->read(ltrim($url, '/')), true);
        $things = [];
        foreach ([$planes['base'], ...$planes['above']] as $plane) {
            $sheet = Sheet::inOne($read($plane['sheet']['url']), static fn (string $sha256): array => $read(Sheet::path($sha256)));
            array_push($things, ...SheetReader::things(['anchor_ms' => 0] + $sheet, (int) strtotime('2026-06-01T09:00:00Z') * 1000 + $ms));
        }

        return $things;
    }
}
