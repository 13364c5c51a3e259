<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Handover;

use UpperPane\App\Account\Role;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Handover\Beforehand;
use UpperPane\App\Playback\Pointers;
use UpperPane\Core\Handover\Sheet;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Overlay\OverlayDocuments;
use UpperPane\Tests\Core\Playback\SheetReader;

/** In a hurry: what is put up is in the pointers at once, above what was handed over, ends by itself, and can be ended before. */
final class InForceTest extends ApiTestCase
{
    private const ID = '01jd0000000000000000000001';

    private string $layout;

    protected function setUp(): void
    {
        parent::setUp();
        $hall = $this->entities()->find(Place::class, 'hall') ?? throw new \LogicException();
        $this->entities()->persist(new SurveyedDisplay('other', $hall, ['id' => 'other', 'name' => 'Other'] + Make::display(), 2));
        $this->entities()->persist(new SurveyedDisplay('west', $hall, ['id' => 'west', 'name' => 'West', 'timezone' => 'Atlantic/Azores'] + Make::display(960, 540), 3));
        $this->entities()->flush();
        $this->signIn();
        $this->layout = $this->made(Make::layout([Make::told('head', 'Sailings', message: false)]))['id'];
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $this->layout], 'displays' => ['wide', 'other', 'west']]);
    }

    public function testANoticeStandsUntilItsHourInEachTimeZoneAndGoesByItself(): void
    {
        [$wide, $west] = [$this->bound('wide'), $this->bound('west')];
        $said = $this->put('notices', ['text' => 'The lift is out of order', 'until' => '2026-06-01T10:30:00', 'displays' => ['wide', 'west']]);
        self::assertSame(['displays' => 2, 'dark' => 0], array_diff_key($said, ['id' => 1]));
        // It is ten in Lisbon, nine on the Azores.
        $drawn = fn (string $secret, string $at): array => array_values(array_filter(array_map(
            static fn (array $one): ?string => isset($one['overlay']) ? $one['text'] ?? null : null,
            $this->things($secret, $at),
        )));
        $text = ['The lift is out of order'];
        self::assertSame([$text, $text], [$drawn($wide, '09:00:05'), $drawn($west, '09:00:05')]);
        self::assertSame([$text, []], [$drawn($wide, '09:29:59'), $drawn($wide, '09:30:00')], 'half past ten in Lisbon');
        self::assertSame([$text, []], [$drawn($west, '10:29:59'), $drawn($west, '10:30:00')], 'half past ten on the Azores');
        self::assertContains('head', array_column($this->things($wide, '09:00:05'), 'element'), 'what lies below goes on');
        $told = $this->ask('GET', '/api/in-force')[1]['in_force'];
        $wanted = ['stands' => true, 'begun_by' => 'ines', 'until_first' => '2026-06-01T09:30:00Z', 'until' => '2026-06-01T10:30:00Z', 'displays' => 2];
        self::assertEquals($wanted, array_intersect_key($told[0], $wanted));
        self::assertCount(2, $this->ask('GET', '/api/in-force/planes')[1]['planes']);

        static::mockTime('+91 minutes');
        self::assertFalse($this->ask('GET', '/api/in-force/' . self::ID)[1]['stands']);
        self::assertSame([], (array) $this->ask('GET', '/api/in-force/planes')[1]['planes']);
        static::mockTime('-91 minutes');
    }

    public function testPlayersKeepWhatAPreparedTakeoverTakesBeforeItIsNeeded(): void
    {
        $wide = $this->bound('wide');
        $beforehand = static::getContainer()->get(Beforehand::class);
        $told = function () use ($wide, $beforehand): array {
            $beforehand->allDue();
            $beforehand->doDue();
            static::getContainer()->get(Pointers::class)->doDue();

            return array_column($this->pointer($wide)['beforehand'], 'name');
        };
        $before = $told();
        self::assertNotContains('siren.png', $before);
        $picture = ['id' => 'light', 'kind' => 'picture', 'rect' => ['x' => 0, 'y' => 900, 'width' => 320, 'height' => 180], 'media' => $this->media('siren')->media()?->toArray()];
        $inner = $this->made(Make::layout([$picture]))['id'];
        $prepared = $this->ask('POST', '/api/overlays', [
            'name' => 'Evacuation', 'document' => ['plays' => ['layout' => $inner]] + array_diff_key(OverlayDocuments::takeover(), ['id' => 1, 'name' => 1, 'format' => 1]),
        ])[1]['id'];
        self::assertEqualsCanonicalizing(['siren.png'], array_diff($told(), $before), 'and nothing else');
        $siren = array_values(array_filter($this->pointer($wide)['beforehand'], static fn (array $one): bool => $one['name'] === 'siren.png'))[0];
        self::assertSame([hash('sha256', 'content of siren'), '/files/'], [$siren['sha256'], substr($siren['url'], 0, 7)]);
        self::assertSame(0, $beforehand->doDue(), 'nothing is told again');
        self::assertSame(204, $this->ask('DELETE', "/api/overlays/$prepared")[0]);
        self::assertSame($before, $told());
    }

    public function testUntilClosingTimeIsWhenEachPlaceCloses(): void
    {
        $open = fn (string $path, array $hours): int => $this->ask('PUT', "/api/$path/settings", ['setting' => 'hours', 'value' => $hours])[0];
        $where = function (string $kind): array {
            $all = $this->ask('GET', '/api/in-force/where')[1][$kind];

            return array_column($all, 'closes', 'id');
        };
        self::assertSame([null], array_values(array_unique($where('places'), SORT_REGULAR)), 'nobody says when it is open');
        $refused = $this->ask('POST', '/api/notices', ['id' => '01jd0000000000000000000007', 'text' => 'Lift', 'until' => 'closing', 'displays' => ['wide']]);
        self::assertSame([422, '/until'], [$refused[0], $refused[1]['error']['path']]);
        self::assertStringContainsString('On "', $refused[1]['error']['message']);

        // It is ten in Lisbon, nine on the Azores.
        self::assertSame(200, $open('places/hall', [['hours' => ['08:00', '19:00']]]));
        self::assertSame(200, $open('displays/wide', [['hours' => ['08:00', '12:00']]]));
        self::assertSame(['wide' => ['2026-06-01T11:00:00Z', '2026-06-01T11:00:00Z'], 'west' => ['2026-06-01T19:00:00Z', '2026-06-01T19:00:00Z']], array_intersect_key(
            $where('displays'),
            ['wide' => 1, 'west' => 1],
        ));
        self::assertSame(['2026-06-01T11:00:00Z', '2026-06-01T19:00:00Z'], $where('places')['hall']);
        $this->put('notices', ['text' => 'Lift', 'until' => 'closing', 'places' => ['hall']]);
        $told = $this->ask('GET', '/api/in-force')[1]['in_force'][0];
        self::assertSame(['2026-06-01T11:00:00Z', '2026-06-01T19:00:00Z'], [$told['until_first'], $told['until']]);
        $reach = $this->ask('POST', '/api/places/hall/settings/reach', ['setting' => 'hours', 'value' => [['hours' => ['08:00', '20:00']]]])[1]['displays'];
        self::assertContains('west', array_column($reach, 'id'));
        self::assertSame([false], array_values(array_unique(array_column($reach, 'other'))), 'nothing looks otherwise for it');
        $wrong = $this->ask('PUT', '/api/places/hall/settings', ['setting' => 'hours', 'value' => [['hours' => ['25:00', '26:00']]]]);
        self::assertSame(422, $wrong[0]);
    }

    private function bound(string $display): string
    {
        $secret = $this->player($display)->secret;
        static::getContainer()->get(Pointers::class)->allDue();
        static::getContainer()->get(Pointers::class)->doDue();

        return $secret;
    }

    public function testATakeoverHidesAllAndIsEndedEverywhere(): void
    {
        $wide = $this->bound('wide');
        $picture = ['id' => 'light', 'kind' => 'picture', 'rect' => ['x' => 0, 'y' => 900, 'width' => 320, 'height' => 180], 'media' => $this->media('siren')->media()?->toArray()];
        $alarm = $this->made(['background' => ['color' => '#a3262a']] + Make::layout([
            $picture, Make::told('leave', 'Leave the building', message: false, style: ['family' => 'Inter', 'size_px' => 80]),
        ]))['id'];
        $prepared = $this->ask('POST', '/api/overlays', [
            'name' => 'Evacuation', 'document' => ['plays' => ['layout' => $alarm]] + array_diff_key(OverlayDocuments::takeover(), ['id' => 1, 'name' => 1, 'format' => 1]),
        ])[1]['id'];
        $before = $this->manifest($wide);
        $this->put('takeovers', ['overlay' => $prepared, 'reason' => 'Smoke in the hall', 'for_min' => 15, 'places' => ['hall']]);
        $things = $this->things($wide, '09:00:01');
        self::assertSame([self::ID], array_values(array_unique(array_column($things, 'overlay'))));
        self::assertNotContains('head', array_column($things, 'element'), 'nothing below it is drawn');
        self::assertSame($before, $this->manifest($wide), 'nothing is handed over for it');
        self::assertContains('head', array_column($this->things($wide, '09:15:00'), 'element'), 'it ends by itself');
        $planes = $this->pointer($wide)['planes'];
        self::assertSame(['siren'], array_column($planes['above'][0]['media'], 'id'), 'with the files that it takes');
        $told = $this->ask('GET', '/api/in-force')[1]['in_force'][0];
        self::assertSame(['Smoke in the hall', 'takeover', 3], [$told['reason'], $told['kind'], $told['displays']]);

        // A second one at the same moment lies above the first; once it is ended the first is seen again.
        $second = '01jd0000000000000000000002';
        static::mockTime('+1 second');
        $this->put('takeovers', ['plays' => ['layout' => $this->layout], 'reason' => 'Drill', 'for_min' => 5, 'displays' => ['wide']], $second);
        self::assertSame([$second], array_values(array_unique(array_column($this->things($wide, '09:00:02'), 'overlay'))));
        self::assertSame(200, $this->ask('POST', "/api/takeovers/$second/end")[0]);
        self::assertSame([self::ID], array_values(array_unique(array_column($this->things($wide, '09:00:02'), 'overlay'))));
        self::assertSame(404, $this->ask('POST', '/api/notices/' . self::ID . '/end')[0], 'it is no notice');
        self::assertSame([200, false], [($ended = $this->ask('POST', '/api/takeovers/' . self::ID . '/end'))[0], $ended[1]['stands']]);
        self::assertSame([], $this->pointer($wide)['planes']['above']);
        $record = array_column($this->ask('GET', '/api/record/display/wide')[1]['acts'], 'says');
        self::assertContains('put up the takeover "Evacuation": Smoke in the hall', $record);
        self::assertContains('took the takeover "Evacuation" down', $record);
    }

    public function testAskingTwiceDoesItOnceAndWhatIsWrongIsSaid(): void
    {
        $this->put('notices', ['text' => 'Lift', 'for_min' => 15, 'displays' => ['wide']]);
        $this->put('notices', ['text' => 'Lift', 'for_min' => 15, 'displays' => ['wide']]);
        self::assertCount(1, $this->ask('GET', '/api/in-force')[1]['in_force'], 'whoever got no answer asks again');
        self::assertSame(404, $this->ask('GET', '/api/in-force/01jd0000000000000000000009')[0], 'it did not count');
        $wrong = [
            ['/until', 'notices', ['text' => 'Lift', 'until' => '2026-05-31T10:30:00', 'displays' => ['wide']]],
            ['/until', 'notices', ['text' => 'Lift', 'until' => '2026-08-31T10:30:00Z', 'displays' => ['wide']]],
            ['/text', 'notices', ['text' => '  ', 'for_min' => 15, 'displays' => ['wide']]],
            ['/displays/0', 'notices', ['text' => 'Lift', 'for_min' => 15, 'displays' => ['none']]],
            ['/until', 'notices', ['text' => 'Lift', 'displays' => ['wide']]],
            ['/place', 'notices', ['text' => 'Lift', 'for_min' => 15, 'place' => 'aside', 'displays' => ['wide']]],
            ['/reason', 'takeovers', ['plays' => ['layout' => $this->layout], 'for_min' => 15, 'displays' => ['wide']]],
            ['/plays/layout', 'takeovers', ['plays' => ['layout' => 'gone'], 'reason' => 'Drill', 'for_min' => 15, 'displays' => ['wide']]],
        ];
        foreach ($wrong as [$path, $what, $body]) {
            [$status, $said] = $this->ask('POST', "/api/$what", $body + ['id' => '01jd0000000000000000000009']);
            self::assertSame([422, $path], [$status, $said['error']['path'] ?? null], json_encode($said) ?: '');
        }
        self::assertStringContainsString('it is 2026-06-01 10:00', $this->ask('POST', '/api/notices', $wrong[0][2] + ['id' => '01jd0000000000000000000009'])[1]['error']['message']);
        $this->entities()->persist(new SurveyedDisplay('bare', $this->entities()->find(Place::class, 'hall') ?? throw new \LogicException(), ['id' => 'bare', 'name' => 'Bare'] + Make::display(), 4));
        $this->entities()->flush();
        $dark = $this->ask('POST', '/api/notices', ['id' => '01jd0000000000000000000009', 'text' => 'Lift', 'for_min' => 5, 'displays' => ['bare']]);
        self::assertSame([409, 'in-force.dark'], [$dark[0], $dark[1]['error']['code']]);
    }

    public function testItIsSeenBeforeOnTheDisplaysThatDifferMost(): void
    {
        $look = $this->ask('POST', '/api/notices/look', ['text' => 'Lift', 'for_min' => 15, 'displays' => ['wide', 'other', 'west']])[1];
        self::assertSame([3, 0, ['west', 'wide']], [$look['displays'], $look['dark'], array_column(array_column($look['looks'], 'display'), 'id')]);
        self::assertEqualsCanonicalizing([['timezone' => 'Europe/Lisbon', 'displays' => 2], ['timezone' => 'Atlantic/Azores', 'displays' => 1]], $look['zones']);
        $texts = array_column(SheetReader::things($look['looks'][1]['picture']['run_sheet'], (int) strtotime($look['looks'][1]['at']) * 1000), 'text');
        self::assertSame(['Sailings', 'Lift'], $texts);
        // At the top it lies over the heading, and it is said from when on.
        $over = $this->ask('POST', '/api/notices/look', ['text' => str_repeat('The lift is out of order. ', 4), 'place' => 'top-left', 'for_min' => 15, 'displays' => ['wide']])[1]['looks'][0];
        self::assertContains('overlay.covers', array_column($over['findings'], 'code'));
        $mark = ['id' => 'x', 'name' => 'X'] + OverlayDocuments::mark('top-left');
        $cures = $this->ask('POST', '/api/above/cures', ['document' => $mark, 'displays' => ['wide']])[1]['cures'];
        self::assertSame([['corner' => 'top-right'], 0], [$cures[0]['fields'], $cures[0]['covers']], 'in another corner nothing is covered');
        self::assertSame([], $this->ask('GET', '/api/in-force')[1]['in_force'], 'nothing is done');
        $strip = ['id' => 'x', 'name' => 'X', 'style' => ['family' => 'Inter', 'size_px' => 12]] + OverlayDocuments::strip();
        $codes = array_column($this->ask('POST', '/api/above/look', ['document' => $strip, 'displays' => ['wide']])[1]['looks'][0]['findings'], 'code');
        self::assertContains('text.small', $codes, 'for those who read it there');
    }

    public function testAnEditorPutsUpNoticesAtHerOwnPlacesAlone(): void
    {
        $gate = $this->entities()->find(Place::class, 'gates') ?? throw new \LogicException();
        $this->entities()->persist(new SurveyedDisplay('gate', $gate, ['id' => 'gate', 'name' => 'Gate'] + Make::display(), 5));
        $this->entities()->flush();
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $this->layout], 'displays' => ['gate']]);
        $this->put('notices', ['text' => 'All', 'for_min' => 15, 'displays' => ['wide', 'gate']]);
        $this->somebody('marta', Role::Editor, 'gates');
        self::assertSame(404, $this->ask('POST', '/api/takeovers', ['id' => self::ID, 'plays' => ['layout' => $this->layout], 'reason' => 'x', 'for_min' => 1, 'displays' => ['gate']])[0]);
        self::assertSame(422, $this->ask('POST', '/api/notices', ['id' => '01jd0000000000000000000003', 'text' => 'Lift', 'for_min' => 15, 'displays' => ['wide']])[0], 'not one of hers');
        $this->put('notices', ['text' => 'Gate closed', 'for_min' => 15, 'displays' => ['gate']], '01jd0000000000000000000004');
        $told = array_column($this->ask('GET', '/api/in-force')[1]['in_force'], 'displays', 'text');
        self::assertEquals(['Gate closed' => 1, 'All' => 1], $told, 'of others she sees what stands on hers');
        self::assertSame([409, 'in-force.wider'], [($wider = $this->ask('POST', '/api/notices/' . self::ID . '/end'))[0], $wider[1]['error']['code'] ?? '']);
        self::assertSame(200, $this->ask('POST', '/api/notices/01jd0000000000000000000004/end')[0]);
    }

    /**
     * @param array<string, mixed> $body
     * @return array<string, mixed>
     */
    private function put(string $what, array $body, string $id = self::ID): array
    {
        [$status, $said] = $this->ask('POST', "/api/$what", ['id' => $id] + $body);
        self::assertSame(201, $status, json_encode($said) ?: '');
        $this->entities()->clear();

        return $said;
    }

    /** @return array<string, mixed> */
    private function manifest(string $secret): array
    {
        return $this->pointer($secret)['manifest'];
    }

    /** @return list<array<string, mixed>> what a player draws at an instant of the first of June, UTC, as its pointer says */
    private function things(string $secret, string $at): array
    {
        $ms = (int) strtotime("2026-06-01T{$at}Z") * 1000;
        $planes = $this->pointer($secret)['planes'];
        $read = fn (string $url): array => (array) json_decode($this->published()->read(ltrim($url, '/')), true);
        $sheets = [];
        foreach ([$planes['base'], ...array_filter($planes['above'], static fn (array $one): bool => $one['until'] === null || $ms < (int) strtotime($one['until']) * 1000)] as $plane) {
            $sheets[] = Sheet::inOne($read($plane['sheet']['url']), static fn (string $sha256): array => $read(Sheet::path($sha256)));
        }

        return SheetReader::things(['anchor_ms' => 0, 'layers' => array_merge(...array_column($sheets, 'layers'))], $ms);
    }
}
