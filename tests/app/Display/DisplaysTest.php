<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Display;

use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** Displays as a designer surveys them: typed, analysed, kept with revisions, copied, moved, taken away. */
final class DisplaysTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testASurveyIsAnalysedBeforeItIsSaved(): void
    {
        [$status, $said] = $this->ask('POST', '/api/displays/analysis', ['document' => Make::wall(), 'place' => 'hall', 'cap_px' => 111]);

        self::assertSame([200, ['width' => 5768, 'height' => 2164], [4, 4]], [$status, $said['wall']['canvas'], $said['wall']['hidden']['columns']]);
        self::assertSame(138_500, $said['feeds'][1]['timing']['pixel_clock_khz']);
        self::assertSame(111, $said['reading']['comfortable']['cap_px'] - 28, 'at 15 m 139 px of 0.63 mm are 20 arc minutes');
        self::assertSame('limit', $said['reading']['text']['verdict']);
        self::assertSame([422, '/document/panels/0/native/width'], $this->refusedAt('POST', '/api/displays/analysis', ['document' => self::with(['panels', 0, 'native', 'width'], 0)]));
    }

    /** A survey is begun with a size and a grid, in the time zone of whoever asks where its place has none, and worked on by acts; nothing but what is saved stays. */
    public function testASurveyIsBegunAndActedOn(): void
    {
        $begin = ['name' => 'Gate 9', 'timezone' => 'America/Lima', 'size' => 'wide-43', 'columns' => 2, 'rows' => 1, 'rotation' => 0];
        [$status, $made] = $this->ask('POST', '/api/displays', ['place' => 'hall', 'begin' => $begin]);
        self::assertSame([201, 'gate-9', ['A1', 'A2'], 'America/Lima'], [$status, $made['id'], array_column($made['document']['panels'], 'id'), $made['document']['timezone']]);
        $act = fn (array $act): array => $this->ask('POST', '/api/displays/act', ['document' => $made['document'], 'act' => $act]);
        self::assertCount(4, $act(['do' => 'grid', 'columns' => 2, 'rows' => 2])[1]['document']['panels']);
        [$status, $answer] = $act(['do' => 'remove', 'panels' => ['A1', 'A2']]);
        self::assertSame([422, 'value.range', 'A display has at least one panel.'], [$status, $answer['error']['code'], $answer['error']['message']]);
        self::assertSame(2, count($this->ask('GET', '/api/displays/gate-9')[1]['document']['panels']));
        self::assertSame('/begin/size', $this->ask('POST', '/api/displays', ['place' => 'hall', 'begin' => ['size' => 'huge'] + $begin])[1]['error']['path']);
    }

    public function testTheSmallestTextOfALayoutIsToldAsItIsSeenOnTheDisplay(): void
    {
        $text = ['id' => 'words', 'kind' => 'text', 'text' => 'Berth 2', 'rect' => ['x' => 0, 'y' => 0, 'width' => 90, 'height' => 90], 'style' => ['size_px' => 50]];
        $layout = $this->made(Make::layout([$text]));
        [$status, $said] = $this->ask('POST', '/api/displays/analysis', ['document' => Make::display(3840, 2160), 'layout' => $layout['id']]);

        self::assertSame([200, 'words', 100], [$status, $said['smallest']['element'], (int) $said['smallest']['type_px']], 'twice as large on a display of twice the px');
        self::assertSame($said['smallest']['cap_px'], $said['reading']['text']['cap_px']);
        self::assertSame([422, '/layout'], $this->refusedAt('POST', '/api/displays/analysis', ['document' => Make::display(), 'layout' => 'none']));
    }

    public function testAWallIsSavedWithRevisionsAndAStaleOneIsKeptAside(): void
    {
        [$status, $wall] = $this->ask('POST', '/api/displays', ['place' => 'hall', 'document' => array_diff_key(Make::wall(), ['id' => 1])]);
        self::assertSame([201, 'hall-wall', 1], [$status, $wall['id'], $wall['revision']]);

        $changed = ['bezels' => 'butt'] + $wall['document'];
        [$status, $saved] = $this->ask('PUT', '/api/displays/hall-wall', ['base' => 1, 'document' => $changed]);
        self::assertSame([200, 2, ['width' => 5760, 'height' => 2160]], [$status, $saved['revision'], $saved['wall']['canvas']]);
        [$listed] = array_values(array_filter($this->estate()['displays'], static fn (array $d): bool => $d['id'] === 'hall-wall'));
        self::assertSame([['width' => 5760, 'height' => 2160], 6], [$listed['raster'], count($listed['sources'])]);

        [$status, $stale] = $this->ask('PUT', '/api/displays/hall-wall', ['base' => 1, 'document' => ['name' => 'Mine'] + $wall['document']]);
        self::assertSame([409, 'revision.stale', 2], [$status, $stale['error']['code'], $stale['current']['revision']]);
        $revisions = $this->ask('GET', '/api/displays/hall-wall/revisions')[1]['revisions'];
        self::assertSame([[null, 'Mine'], [2, 'Hall wall'], [1, 'Hall wall']], array_map(static fn (array $r): array => [$r['number'], $r['document']['name']], $revisions));

        self::assertSame([422, '/panels/1/id'], $this->refusedAt('PUT', '/api/displays/hall-wall', ['base' => 2, 'document' => self::with(['panels', 1, 'id'], 'A1')]));
    }

    public function testFourMoreLikeThisAreNumberedOn(): void
    {
        $this->ask('PUT', '/api/displays/wide', ['base' => 1, 'document' => ['name' => 'Check-in 1'] + Make::display()]);
        $this->ask('PUT', '/api/displays/tall', ['base' => 1, 'document' => ['name' => 'Check-in 3'] + Make::display()]);
        $copies = $this->ask('POST', '/api/displays/wide/copies', ['count' => 4, 'place' => 'gates'])[1]['displays'];

        self::assertSame(['Check-in 2', 'Check-in 4', 'Check-in 5', 'Check-in 6'], array_column($copies, 'name'), 'there is a Check-in 3 already');
        self::assertSame('gates', $this->ask('GET', '/api/displays/' . $copies[3]['id'])[1]['place']);
        self::assertSame([422, '/count'], $this->refusedAt('POST', '/api/displays/wide/copies', ['count' => 0]));
    }

    public function testMovingTellsWhetherTheTimeZoneFitsThere(): void
    {
        $this->ask('PUT', '/api/places/gates', ['name' => 'Gates', 'parent' => 'hall', 'timezone' => 'Atlantic/Azores']);
        self::assertSame(0, $this->found('wide')['hints']);
        self::assertSame(204, $this->ask('POST', '/api/displays/move', ['displays' => ['wide'], 'place' => 'gates'])[0]);
        self::assertSame(1, $this->found('wide')['hints'], 'Europe/Lisbon at a place of Atlantic/Azores');
        $this->ask('PUT', '/api/places/gates', ['name' => 'Gates', 'parent' => 'hall', 'timezone' => null]);
        self::assertSame(0, $this->found('wide')['hints'], 'changing the place changes what is found of its displays');
    }

    public function testPlacesAreATree(): void
    {
        [$status, $place] = $this->ask('POST', '/api/places', ['name' => 'Quay', 'parent' => 'gates', 'timezone' => 'Atlantic/Azores']);
        self::assertSame([201, 'Atlantic/Azores'], [$status, $place['zone']]);
        self::assertSame([422, '/parent'], $this->refusedAt('PUT', '/api/places/hall', ['name' => 'Hall', 'parent' => $place['id']]), 'a place does not lie in itself');
        self::assertSame([422, '/timezone'], $this->refusedAt('PUT', '/api/places/hall', ['name' => 'Hall', 'parent' => null, 'timezone' => 'Sea/Deep']));
        self::assertSame(409, $this->ask('DELETE', '/api/places/gates')[0], 'a display hangs there');
        self::assertSame(204, $this->ask('DELETE', '/api/places/' . $place['id'])[0]);
    }

    public function testTheEstateIsSearchedAndFiltered(): void
    {
        $this->ask('POST', '/api/displays', ['place' => 'gates', 'document' => ['name' => 'Great wall'] + array_diff_key(Make::wall(), ['id' => 1])]);
        $names = fn (string $query): array => array_column($this->estate($query)['displays'], 'name');

        self::assertSame(['Wide', 'Tall', 'Great wall'], $names(''));
        self::assertSame(['Tall'], $names('orientation=portrait'));
        self::assertSame(['Great wall'], $names('kind=wall'));
        self::assertSame(['Tall', 'Great wall'], $names('place=gates'));
        self::assertSame(['Wide', 'Tall', 'Great wall'], $names('place=hall'), 'with all that lies in it');
        self::assertSame(['Great wall'], $names('search=5768x21'));
        self::assertSame([], $names('search=nowhere'));
    }

    public function testADisplayWithPlayersStaysAndOneWithoutGoesWithItsReleases(): void
    {
        $player = $this->player('wide');
        $this->handOver(['source' => ['kind' => 'media', 'id' => $this->media()->id], 'displays' => ['wide']]);
        $layout = $this->made($this->whole($this->media('quay')));
        $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => $layout['document'], 'display' => 'wide']);
        self::assertSame('display.bound', $this->ask('DELETE', '/api/displays/wide')[1]['error']['code']);

        $this->ask('DELETE', "/api/players/$player->id");
        self::assertSame(204, $this->ask('DELETE', '/api/displays/wide')[0]);
        self::assertSame(404, $this->ask('GET', '/api/displays/wide')[0]);
        self::assertSame([200, null], [$this->ask('GET', "/api/layouts/{$layout['id']}")[0], $this->ask('GET', "/api/layouts/{$layout['id']}")[1]['display']]);
    }

    public function testAReleaseIsOlderOnceItsWallIsSurveyedAnew(): void
    {
        $this->ask('POST', '/api/displays', ['place' => 'hall', 'document' => ['id' => 'wall'] + Make::wall(2, 1)]);
        $this->handOver(['source' => ['kind' => 'media', 'id' => $this->media()->id], 'displays' => ['wall']]);
        $older = fn (): bool => array_column($this->estate()['displays'], 'saved_not_handed_over', 'id')['wall'];
        self::assertFalse($older());

        $moved = ['name' => 'Renamed'] + Make::wall(2, 1);
        $this->ask('PUT', '/api/displays/wall', ['base' => 1, 'document' => $moved]);
        self::assertFalse($older(), 'a name changes no release');
        $moved['panels'][0]['output'] = 2;
        $this->ask('PUT', '/api/displays/wall', ['base' => 2, 'document' => $moved]);
        self::assertTrue($older());
        [$offer] = $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => 'media', 'id' => 'pier'], 'displays' => ['wall']])[1]['offers'];
        self::assertSame([false, ['The display was surveyed anew: its raster, panels or outputs are others.']], [$offer['unchanged'], $offer['changes']]);
    }

    public function testAStopOfTheSurveyKeepsReleasesFromTheDisplay(): void
    {
        $twice = ['id' => 'wall'] + Make::wall(2, 1);
        $twice['panels'][0]['output'] = $twice['panels'][1]['output'] = 1;
        $this->ask('POST', '/api/displays', ['place' => 'hall', 'document' => $twice]);
        [$status, $answer] = $this->ask('POST', '/api/handover', ['source' => ['kind' => 'media', 'id' => $this->media()->id], 'displays' => ['wall']]);

        self::assertSame([409, 'handover.stopped'], [$status, $answer['error']['code']]);
        self::assertStringContainsString('Output 1 feeds A1 and A2', $answer['error']['message']);
    }

    public function testTheWiringSheetIsDrawnAndPrinted(): void
    {
        $this->ask('POST', '/api/displays', ['place' => 'hall', 'document' => ['id' => 'wall', 'name' => 'Wall <1> & more'] + Make::wall(players: [['id' => 'a']])]);
        $pages = $this->ask('GET', '/api/displays/wall/wiring')[1]['pages'];
        self::assertCount(2, $pages);
        foreach ($pages as $page) {
            $svg = simplexml_load_string($page);
            self::assertNotFalse($svg);
            self::assertSame('Wiring sheet, Wall <1> & more', (string) $svg->title);
        }
        self::assertSame(6, substr_count($pages[1], '>player a, output '));
        self::assertSame(12, substr_count($pages[0], '>a → '), 'from the front and from behind');

        $this->client->request('GET', '/api/displays/wall/wiring.pdf');
        self::assertStringStartsWith('%PDF-', (string) $this->client->getResponse()->getContent());
        $this->client->request('GET', '/api/displays/wall/panels/A2/edid');
        self::assertSame([1920, 1080], array_values(\UpperPane\Core\Display\Edid::fromBytes((string) $this->client->getResponse()->getContent())->native()?->toArray() ?? []));
    }

    public function testAnEdidIsReadFromItsBytes(): void
    {
        $edid = \UpperPane\Tests\Core\MakeEdid::of([\UpperPane\Tests\Core\MakeEdid::fullHd()], [\UpperPane\Tests\Core\MakeEdid::cta([16, 97, 5])]);
        [$status, $said] = $this->ask('POST', '/api/survey/edid', $edid);
        self::assertSame([200, ['width' => 1920, 'height' => 1080], [1920, 3840]], [$status, $said['native'], array_column($said['vic_timings'], 'width')]);
        self::assertSame('edid.length', $this->ask('POST', '/api/survey/edid', substr($edid, 0, 127))[1]['error']['code']);
    }

    public function testTheMatchTableMatchesEachLayoutWithEachDisplay(): void
    {
        $this->made($this->whole($this->media(), 1920, 1080), 'Landscape');
        $this->made($this->whole($this->media('b'), 540, 960), 'Small portrait');
        $table = $this->ask('GET', '/api/matches')[1];
        $verdict = static fn (int $layout, int $display): array => array_slice($table['matches'][$table['layouts'][$layout]['size']][$table['displays'][$display]['size']], 0, 2);

        self::assertSame(['Landscape', 'Small portrait'], array_column($table['layouts'], 'name'));
        self::assertEquals([['exact', 1.0], ['crossed', 0.5625], ['crossed', 1.125], ['scaled', 2.0]], [$verdict(0, 0), $verdict(0, 1), $verdict(1, 0), $verdict(1, 1)]);
    }

    public function testTheAlignmentPictureIsToldToThePlayersForAWhile(): void
    {
        $player = $this->player('wide');
        $this->ask('POST', '/api/displays/wide/alignment', ['minutes' => 10]);
        $pointer = fn (): array => (array) json_decode($this->published()->read("pointers/$player->secret.json"), true);
        self::assertSame(['p1'], $pointer()['alignment']['outputs'][0]['panels']);
        self::assertNotNull($this->ask('GET', '/api/displays/wide')[1]['alignment_until']);

        $this->ask('POST', '/api/displays/wide/alignment', ['minutes' => 0]);
        self::assertNull($pointer()['alignment']);
    }

    /** @return array{stops: int, warnings: int, hints: int} */
    private function found(string $display): array
    {
        $this->entities()->clear();

        return $this->entities()->find(SurveyedDisplay::class, $display)->summary['found'] ?? [];
    }

    /**
     * @param array<string, mixed> $body
     * @return array{int, string}
     */
    private function refusedAt(string $method, string $path, array $body): array
    {
        [$status, $answer] = $this->ask($method, $path, $body);

        return [$status, $answer['error']['path']];
    }

    /**
     * @param list<string|int> $at
     * @return array<string, mixed>
     */
    private static function with(array $at, mixed $value): array
    {
        $document = Make::wall();
        $place = &$document;
        foreach ($at as $step) {
            $place = &$place[$step];
        }
        $place = $value;

        return $document;
    }
}
