<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Handover;

use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

final class HandoverTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testAReleaseIsAFileUnderItsHashAndThePointerNamesIt(): void
    {
        $player = $this->player('wide');
        $layout = $this->made($this->whole($this->media()));
        $source = ['kind' => 'layout', 'id' => $layout['id'], 'revision' => 1];
        $this->ask('POST', '/api/handover/release', ['source' => $source, 'displays' => ['wide']]);
        $looked = (string) $this->client->getResponse()->getContent();
        [$status, $answer] = $this->ask('POST', '/api/handover', ['source' => $source, 'displays' => ['wide']]);

        self::assertSame(201, $status, (string) json_encode($answer));
        $release = $answer['releases'][0];
        self::assertSame(1, $release['number']);
        $pointer = json_decode($this->published()->read("pointers/$player->secret.json"), true);
        self::assertSame($release['sha256'], $pointer['release']['sha256']);
        $bytes = $this->published()->read(ltrim($pointer['release']['url'], '/'));
        self::assertSame($release['sha256'], hash('sha256', $bytes));
        self::assertSame($bytes, $looked, 'what was looked at is what is handed over, byte for byte');
        $file = json_decode($bytes, true)['media'][0];
        self::assertSame($file['sha256'], hash('sha256', $this->published()->read(ltrim($file['url'], '/'))));

        [, $again] = $this->ask('POST', '/api/handover', ['source' => $source, 'displays' => ['wide']]);
        self::assertSame([2, $release['sha256']], [$again['releases'][0]['number'], $again['releases'][0]['sha256']], 'the same inputs give the same bytes');
    }

    public function testAPortraitLayoutIsRefusedForALandscapeDisplayWithTheReason(): void
    {
        $layout = $this->made($this->whole($this->media('high', 1080, 1920), 1080, 1920));
        $request = ['source' => ['kind' => 'layout', 'id' => $layout['id']], 'places' => ['hall']];
        [, $preview] = $this->ask('POST', '/api/handover/preview', $request);
        self::assertSame(['wide' => 'crossed', 'tall' => 'exact'], array_combine(
            array_column($preview['offers'], 'display'),
            array_column(array_column($preview['offers'], 'match'), 'verdict'),
        ));

        [$status, $answer] = $this->ask('POST', '/api/handover', $request);
        self::assertSame(409, $status);
        self::assertStringContainsString('Wide: The canvas is 1080 x 1920 px, portrait', $answer['error']['message']);
        self::assertNull($this->ask('GET', '/api/displays/tall/releases')[1]['current'], 'all or nothing');
    }

    public function testAFilmOrPlaylistIsHandedOverAsItIs(): void
    {
        $film = $this->media('crossing', 1280, 720, 8000);
        [$status] = $this->ask('POST', '/api/handover', ['source' => ['kind' => 'media', 'id' => 'crossing'], 'displays' => ['wide', 'tall']]);
        self::assertSame(201, $status);
        $release = $this->ask('GET', '/api/displays/tall/releases')[1]['releases'][0];
        $sheet = json_decode($this->published()->read(ltrim($release['url'], '/')), true)['run_sheet'];
        self::assertSame(['width' => 1080, 'height' => 1920], $sheet['canvas']);
        self::assertSame(8000, $sheet['layers'][0]['period_ms']);

        $item = ['id' => 'i1', 'media' => $film->media()?->toArray()];
        [, $playlist] = $this->ask('POST', '/api/playlists', ['name' => 'Round', 'document' => ['items' => [$item]]]);
        [, $preview] = $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => 'playlist', 'id' => $playlist['id']], 'displays' => ['wide']]);
        self::assertSame(['"Round" takes the place of "crossing.png".'], $preview['offers'][0]['changes']);
    }

    public function testThePreviewSaysInWordsWhatChanges(): void
    {
        $layout = $this->made($this->whole($this->media()));
        $source = ['kind' => 'layout', 'id' => $layout['id']];
        $this->ask('POST', '/api/handover', ['source' => $source, 'displays' => ['wide']]);
        $document = $layout['document'];
        $document['elements'][0]['rect']['height'] = 880;
        $document['elements'][0]['playlist']['items'][0]['duration_ms'] = 12_000;
        $document['elements'][] = ['id' => 'head', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 880, 'width' => 9, 'height' => 9], 'text' => 'Hello', 'style' => ['size_px' => 8]];
        $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => $document]);
        [, $preview] = $this->ask('POST', '/api/handover/preview', ['source' => $source, 'displays' => ['wide']]);

        self::assertSame([
            'Moved: "main" to 0, 0 with 1920 x 880 px, was 0, 0 with 1920 x 1080 px.',
            'Retimed: pier.png in "main" lasts 12 s, was 10 s.',
            'Added: text "head".',
        ], $preview['offers'][0]['changes']);
        self::assertTrue($this->ask('GET', '/api/estate')[1]['displays'][0]['saved_not_handed_over']);
    }

    /** Down to the last list within what lies within. */
    public function testWhatChangedWithinIsAChange(): void
    {
        $item = ['id' => 'i1', 'media' => $this->media()->media()?->toArray(), 'duration_ms' => 9000];
        $round = $this->ask('POST', '/api/playlists', ['name' => 'Round', 'document' => ['items' => [$item]]])[1];
        $inner = $this->made(['elements' => [['playlist' => ['ref' => $round['id']]] + Make::zone('in', 0, 0, 1920, 1080)]] + Make::layout([]), 'Inner');
        $outer = $this->made(Make::layout([Make::zone('main', 0, 0, 1920, 1080, [['id' => 'i1', 'layout' => ['ref' => $inner['id']], 'duration_ms' => 9000]])]), 'Outer');
        $source = ['kind' => 'layout', 'id' => $outer['id']];
        $this->ask('POST', '/api/handover', ['source' => $source, 'displays' => ['wide']]);
        $changes = fn (): array => $this->ask('POST', '/api/handover/preview', ['source' => $source, 'displays' => ['wide']])[1]['offers'][0]['changes'];
        self::assertSame([], $changes());

        $this->ask('PUT', "/api/playlists/{$round['id']}", ['base' => 1, 'document' => ['items' => [['duration_ms' => 12_000] + $item]] + $round['document']]);
        self::assertSame(['In "Inner": Retimed: pier.png in "in" lasts 12 s, was 9 s.'], $changes());
    }

    public function testHandingOverARevisionThatIsNoLongerTheNewestIsRefused(): void
    {
        $layout = $this->made($this->whole($this->media()));
        $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => $layout['document']]);
        $source = ['kind' => 'layout', 'id' => $layout['id'], 'revision' => 1];

        self::assertSame(409, $this->ask('POST', '/api/handover', ['source' => $source, 'displays' => ['wide']])[0]);
        self::assertSame(422, $this->ask('POST', '/api/handover', ['source' => ['revision' => 2] + $source, 'displays' => ['nowhere']])[0]);
        self::assertSame(422, $this->ask('POST', '/api/handover', ['source' => ['revision' => 2] + $source])[0]);
    }

    public function testMediaThatIsUsedCannotBeDeleted(): void
    {
        $asset = $this->media();
        $this->made($this->whole($asset), 'Morning');
        [$status, $answer] = $this->ask('DELETE', "/api/media/$asset->id");

        self::assertSame(409, $status);
        self::assertStringContainsString('"Morning"', $answer['error']['message']);
    }
}
