<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Layout;

use UpperPane\App\Display\Place;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

final class ArrangementTest extends ApiTestCase
{
    private const RECIPE = ['columns' => '7fr 3fr', 'rows' => '4fr 1fr', 'gap' => 0, 'margin' => 0, 'areas' => ['main side', 'foot foot']];

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testEveryActGivesADocumentThatCanBeSaved(): void
    {
        $document = Make::harbour() + ['recipe' => self::RECIPE];
        $acts = [
            [['do' => 'solve', 'raster' => ['width' => 1366, 'height' => 768]], [956, 410, 1366]],
            [['do' => 'scale', 'raster' => ['width' => 960, 'height' => 540]], [672, 288, 960]],
            [['do' => 'start', 'recipe' => ['columns' => '1fr 1fr 1fr', 'areas' => ['main side foot']]], [640, 640, 640]],
            [['do' => 'write', 'recipe' => ['columns' => '1fr 1fr', 'rows' => '1fr 1fr', 'gap' => 0, 'margin' => 10]], [950, 950, 1900]],
            [['do' => 'retell'], [1344, 576, 1920]],
            [['do' => 'follow'], [1344, 576, 1920]],
            [['do' => 'shares'], [1344, 576, 1920]],
            [['do' => 'split', 'zone' => 'main', 'into' => 'columns', 'tracks' => '1fr 1fr'], [672, 672, 576, 1920]],
            [['do' => 'join', 'zones' => ['main', 'side']], [1920, 1920]],
            [['do' => 'border', 'between' => 'columns', 'from' => 1344, 'along' => 0, 'to' => 1200], [1200, 720, 1920]],
            [['do' => 'equalise', 'zones' => ['main', 'side']], [960, 960, 1920]],
            [['do' => 'swap', 'zones' => ['main', 'side']], [576, 1344, 1920]],
            [['do' => 'align', 'zones' => ['main', 'foot'], 'edge' => 'left'], [1344, 576, 1920]],
        ];
        foreach ($acts as [$act, $widths]) {
            [$status, $answer] = $this->ask('POST', '/api/arrangement', ['document' => $document, 'act' => $act]);
            self::assertSame([200, $widths], [$status, array_column(array_column($answer['document']['elements'], 'rect'), 'width')], $act['do']);
            self::assertSame(201, $this->ask('POST', '/api/layouts', ['name' => 'x', 'document' => $answer['document']])[0]);
        }
    }

    public function testWhatCannotBeDoneSaysWhere(): void
    {
        $document = Make::harbour() + ['recipe' => self::RECIPE];
        foreach (
            [
            ['tracks.syntax', '/recipe/columns', ['do' => 'write', 'recipe' => ['columns' => '1fr auto', 'rows' => '1fr', 'gap' => 0, 'margin' => 0]]],
            ['tracks.syntax', '/tracks', ['do' => 'split', 'zone' => 'main', 'into' => 'rows', 'tracks' => 'x']],
            ['zone.unknown', '/zones', ['do' => 'split', 'zone' => 'nowhere', 'into' => 'rows', 'tracks' => '1fr']],
            ['zone.apart', '/zones', ['do' => 'join', 'zones' => ['main', 'foot']]],
            ['border.unknown', '/from', ['do' => 'border', 'between' => 'columns', 'from' => 5, 'along' => 0, 'to' => 6]],
            ['zone.apart', '/zones', ['do' => 'distribute', 'zones' => ['main', 'side', 'foot'], 'way' => 'down']],
            ['value.unknown', '/act/do', ['do' => 'fold']],
            ['value.range', '/act/zones', ['do' => 'swap', 'zones' => ['main']]],
            ] as [$code, $path, $act]
        ) {
            [$status, $answer] = $this->ask('POST', '/api/arrangement', ['document' => $document, 'act' => $act]);
            self::assertSame([422, $code, $path], [$status, $answer['error']['code'], $answer['error']['path']]);
        }
    }

    /** Acts are done in the layout, or in one of its variants; a cure as it is offered. */
    public function testAnActIsDoneInAVariant(): void
    {
        $ask = fn (array $document, ?string $variant, array $act): array => $this->ask('POST', '/api/arrangement', ['document' => $document, 'variant' => $variant, 'act' => $act]);
        $document = Make::harbour(864, 206) + ['recipe' => self::RECIPE];
        $document['elements'][2]['playlist'] = ['items' => []];
        $whole = $ask($document, null, ['do' => 'vary', 'raster' => ['width' => 1080, 'height' => 1920]])[1];
        self::assertSame(['portrait', 1080], [$whole['variant'], $whole['seen']['canvas']['width']]);
        $less = $ask($whole['document'], 'portrait', ['do' => 'remove', 'elements' => ['side']])[1];
        self::assertSame([['main', 'side', 'foot'], ['main', 'foot'], []], [array_column($less['document']['elements'], 'id'), array_column($less['seen']['elements'], 'id'), $less['chosen']]);
        $cures = $this->ask('POST', '/api/cures', ['document' => $less['document'], 'variant' => null])[1];
        $fix = array_column($cures['findings'], 'fix', 'code')['recipe.differs'];
        $cured = $ask($less['document'], null, ['do' => 'cure', 'fix' => $fix])[1];
        self::assertSame(216, $cured['document']['elements'][2]['rect']['height']);
        $left = $this->ask('POST', '/api/analysis', ['document' => $cured['document'], 'light' => true])[1]['findings'];
        self::assertNotContains('recipe.differs', array_column($left, 'code'));
        self::assertSame([], array_column($left, 'fix'), 'cures are asked for apart');
        foreach (['analysis', 'cures', 'as-seen'] as $question) {
            self::assertSame(422, $this->ask('POST', "/api/$question", ['document' => $less['document'], 'variant' => 'square'])[0], $question);
        }
        self::assertSame(2, count($this->ask('POST', '/api/analysis', ['document' => $less['document'], 'variant' => 'portrait'])[1]['shares']));
    }

    public function testWhatIsSavedBehindRefsIsKnownToAnArrangement(): void
    {
        $inner = $this->made(Make::layout([Make::zone('a', 0, 0, 1920, 1080)]), 'Inner');
        $document = Make::layout([Make::zone('main', 0, 0, 1920, 1080, [['id' => 'i1', 'layout' => ['ref' => $inner['id']], 'lasts' => 'leader']])]);

        self::assertSame(200, $this->ask('POST', '/api/arrangement', ['document' => $document, 'act' => ['do' => 'retell']])[0]);
    }

    public function testAnAnalysisTellsBordersAndTracks(): void
    {
        $said = $this->ask('POST', '/api/analysis', ['document' => Make::harbour() + ['recipe' => self::RECIPE], 'light' => true])[1];

        self::assertSame([[0, 1344, 1920], [0, 864, 1080]], [$said['tracks']['columns'], $said['tracks']['rows']]);
        self::assertSame(
            [['between' => 'columns', 'at' => 1344, 'gap' => 0, 'before' => ['main'], 'behind' => ['side'], 'from' => 0, 'to' => 864, 'least' => 1, 'most' => 1919]],
            array_slice($said['borders'], 0, 1),
        );
        self::assertSame(['main', 'side'], $said['borders'][1]['before']);
    }

    public function testATypedFigureIsWorkedOut(): void
    {
        self::assertSame([200, ['px' => 1344]], $this->ask('POST', '/api/figure', ['text' => '1920-30%', 'side_px' => 1920]));
        self::assertSame([200, ['px' => 20]], $this->ask('POST', '/api/figure', ['text' => '10mm', 'side_px' => 1920, 'mm_per_px' => 0.5]));
        [$status, $answer] = $this->ask('POST', '/api/figure', ['text' => '10 mm', 'side_px' => 1920, 'mm_per_px' => null]);
        self::assertSame([422, 'figure.syntax', '/text'], [$status, $answer['error']['code'], $answer['error']['path']]);
    }

    public function testElementsAreRepeatedAndSaidOf(): void
    {
        $document = Make::harbour();
        $act = ['do' => 'repeat', 'zones' => ['side'], 'columns' => 2, 'rows' => 3, 'gap_x' => -600, 'gap_y' => 0];
        [$status, $answer] = $this->ask('POST', '/api/arrangement', ['document' => $document, 'act' => $act]);
        self::assertSame([200, 8], [$status, count($answer['document']['elements'])]);
        self::assertSame(422, $this->ask('POST', '/api/arrangement', ['document' => $document, 'act' => ['columns' => 0] + $act])[0]);

        $code = ['id' => 'k', 'kind' => 'code', 'rect' => ['x' => 0, 'y' => 0, 'width' => 290, 'height' => 290], 'text' => 'HTTPS://UP.EXAMPLE'];
        $said = $this->ask('POST', '/api/analysis', ['document' => Make::layout([$code]), 'display' => 'wide'])[1];
        self::assertSame('version 1, 21 modules of 10 px (4.9 mm), scanned from about 1 m', $said['says']['k']);
        self::assertCount(21, $said['run_sheet']['layers'][0]['part']['code']['modules'], 'and it is drawn');
    }

    public function testAClockSaysWhatItWouldBeforeItIsTaken(): void
    {
        $at = ['at' => '2026-06-01T08:05:00Z'];
        self::assertSame([200, ['says' => 'Monday 09:05']], $this->ask('POST', '/api/clock', $at + ['pattern' => 'EEEE HH:mm', 'timezone' => 'Europe/Lisbon']));
        self::assertSame(['says' => '26:55'], $this->ask('POST', '/api/clock', $at + ['pattern' => 'H:mm', 'until' => '2026-06-02T11:00:00Z'])[1]);
        foreach ([['pattern' => 'HH:mm Q'], ['pattern' => 'HH', 'locale' => 'xx-nowhere'], ['pattern' => 'HH', 'timezone' => 'Moon/Sea']] as $wrong) {
            self::assertSame(422, $this->ask('POST', '/api/clock', $at + $wrong)[0]);
        }
    }

    public function testForAWallThoseAtItsPanelsComeFirst(): void
    {
        $place = $this->entities()->find(Place::class, 'hall');
        self::assertNotNull($place);
        $this->entities()->persist(new SurveyedDisplay('wall', $place, ['id' => 'wall', 'name' => 'Wall'] + Make::wall()));
        $this->entities()->flush();
        $names = fn (string $query): array => array_column($this->ask('GET', "/api/divisions?$query")[1]['divisions'], 'name');
        self::assertSame(['A zone for each panel', 'A zone for each column', 'A zone for each row', 'One zone'], array_slice($names('width=5768&height=2164&display=wall'), 0, 4));
        self::assertSame('One zone', $names('width=1920&height=1080&display=wall')[0], 'not for another raster');
        self::assertSame('One zone', $names('width=5768&height=2164&display=nowhere')[0]);

        // What lies behind the frames is not missed in its sums.
        $recipe = $this->ask('GET', '/api/divisions?width=5768&height=2164&display=wall')[1]['divisions'][0]['recipe'];
        $document = $this->ask('POST', '/api/arrangement', ['document' => Make::layout([], 5768, 2164), 'act' => ['do' => 'start', 'recipe' => $recipe]])[1]['document'];
        $analysis = $this->ask('POST', '/api/analysis', ['document' => $document, 'display' => 'wall'])[1];
        self::assertSame([[-8, 8], [-4, 4]], array_map(static fn (array $sum): array => [$sum['difference'], $sum['behind_frames']], $analysis['sums']));
        self::assertSame(['zone.empty'], array_values(array_unique(array_column($analysis['findings'], 'code'))));
    }

    public function testDivisionsAreOfferedAndKept(): void
    {
        $offered = $this->ask('GET', '/api/divisions?width=1366&height=768')[1]['divisions'];
        self::assertSame(['x' => 956, 'y' => 0, 'width' => 410, 'height' => 614], $offered[2]['areas']['side']);

        $recipe = ['columns' => '1fr 800px', 'areas' => ['board main']] + self::RECIPE;
        $recipe['rows'] = '1fr';
        [$status, $kept] = $this->ask('POST', '/api/divisions', ['name' => 'House board', 'recipe' => $recipe]);
        self::assertSame(201, $status);
        self::assertSame([409, 'division.exists'], [$this->ask('POST', '/api/divisions', ['name' => 'House board', 'recipe' => $recipe])[0], 'division.exists']);
        self::assertSame(422, $this->ask('POST', '/api/divisions', ['name' => 'Nothing', 'recipe' => ['columns' => '1fr']])[0]);
        $offered = $this->ask('GET', '/api/divisions?width=600&height=1000')[1]['divisions'];
        self::assertSame(['House board', $kept['id'], 'ines'], [end($offered)['name'], end($offered)['id'], end($offered)['saved_by']]);
        self::assertStringContainsString('200 px too many', end($offered)['trouble']);
        self::assertSame(204, $this->ask('DELETE', "/api/divisions/{$kept['id']}")[0]);
        self::assertSame(404, $this->ask('DELETE', "/api/divisions/{$kept['id']}")[0]);
        self::assertSame(422, $this->ask('GET', '/api/divisions')[0], 'for no raster');
    }
}
