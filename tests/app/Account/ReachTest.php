<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Account;

use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** What is beyond the reach of who asks is for him as if it was not there, whatever he asks. */
final class ReachTest extends ApiTestCase
{
    private const SAYING = ['id' => 't', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 900, 'height' => 90], 'text' => 'Gate closed', 'style' => ['size_px' => 40]];

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    protected function tearDown(): void
    {
        ReachOfTests::$hidden = [];
        parent::tearDown();
    }

    public function testADisplay(): void
    {
        $player = $this->player('wide');
        $media = ['kind' => 'media', 'id' => $this->media()->id];
        $layout = $this->made(Make::layout([self::SAYING]))['id'];
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout], 'displays' => ['wide']]);
        ReachOfTests::$hidden = ['display' => 'wide'];

        self::assertSame(['tall'], array_column($this->estate()['displays'], 'id'));
        self::assertSame(1, $this->ask('GET', '/api/estate/counts')[1]['of']);
        self::assertSame(['tall'], array_column($this->ask('GET', '/api/matches')[1]['displays'], 'id'));
        self::assertSame([], $this->ask('GET', '/api/players')[1]['players']);
        self::assertSame(['displays' => 0, 'older' => 0, 'some' => [], 'again' => null], $this->ask('GET', '/api/layouts')[1]['layouts'][0]['standing']);
        self::assertSame([true, 0], array_values(array_intersect_key($this->ask('GET', '/api/words?search=closed')[1]['found'][0], ['saved' => 1, 'displays' => 1])));
        self::assertSame([], $this->ask('GET', '/api/record/display/wide')[1]['acts']);
        $document = ['format' => 'upper-pane/display@1', 'id' => 'wide', 'name' => 'Mine'] + Make::display();
        $this->areNotThere([
            ['GET', '/api/displays/wide'], ['GET', '/api/displays/wide/revisions'], ['GET', '/api/displays/wide/releases'], ['GET', '/api/displays/wide/wiring'],
            ['PUT', '/api/displays/wide', ['base' => 1, 'document' => $document]], ['POST', '/api/displays/wide/copies', ['count' => 1]],
            ['POST', '/api/displays/wide/alignment', ['minutes' => 1]], ['DELETE', '/api/displays/wide'], ['DELETE', "/api/players/$player->id"],
            ['POST', '/api/rehearsal', ['display' => 'wide']], ['POST', '/api/handover/back', ['releases' => [['display' => 'wide', 'number' => 1]]]],
        ]);
        $this->areUnknown([
            ['POST', '/api/handover', ['source' => $media, 'displays' => ['wide']]], ['POST', '/api/displays/move', ['displays' => ['wide'], 'place' => 'gates']],
            ['POST', '/api/layouts', ['name' => 'X', 'document' => Make::layout([]), 'display' => 'wide']],
        ]);
        $this->handOver(['source' => $media, 'places' => ['hall']]);
        ReachOfTests::$hidden = [];
        self::assertSame([1, 1], [
            $this->ask('GET', '/api/displays/wide/releases')[1]['current'],
            $this->ask('GET', '/api/displays/tall/releases')[1]['current'],
        ], 'handed over to what is in the place, and within reach');
        self::assertSame(['id'], array_keys(array_intersect_key($this->ask('GET', '/api/displays/wide')[1], ['id' => 1])));
    }

    public function testAPlaceADesignAndAMedia(): void
    {
        $layout = $this->made(Make::layout([self::SAYING]))['id'];
        $this->media();
        ReachOfTests::$hidden = ['place' => 'gates', 'design' => $layout, 'media' => 'pier'];

        self::assertSame(['hall'], array_column($this->ask('GET', '/api/estate')[1]['places'], 'id'));
        self::assertSame([[], []], [$this->ask('GET', '/api/layouts')[1]['layouts'], $this->ask('GET', '/api/media')[1]['media']]);
        self::assertSame([[], []], [$this->ask('GET', '/api/matches')[1]['layouts'], $this->ask('GET', '/api/words?search=closed')[1]['found']]);
        $this->areNotThere([
            ['GET', "/api/layouts/$layout"], ['PUT', "/api/layouts/$layout", ['base' => 1, 'document' => Make::layout([])]], ['DELETE', "/api/layouts/$layout"],
            ['GET', "/api/layouts/$layout/revisions"], ['POST', "/api/layouts/$layout/restore", ['base' => 1, 'revision' => 1]], ['GET', "/api/layouts/$layout/design.smil"],
            ['GET', "/api/layouts/$layout/first-shown"], ['GET', "/api/layouts/$layout/meant-for"],
            ['POST', '/api/handover/preview', ['source' => ['kind' => 'layout', 'id' => $layout], 'displays' => ['wide']]],
            ['GET', '/api/media/pier'], ['DELETE', '/api/media/pier'], ['GET', '/api/media/pier/first-shown'],
            ['PUT', '/api/places/gates', ['name' => 'Mine', 'parent' => null]], ['DELETE', '/api/places/gates'],
        ]);
        $this->areUnknown([
            ['POST', '/api/displays', ['place' => 'gates', 'document' => ['name' => 'New'] + Make::display()]], ['POST', '/api/displays/move', ['displays' => ['wide'], 'place' => 'gates']],
            ['POST', '/api/places', ['name' => 'New', 'parent' => 'gates']], ['POST', '/api/handover', ['source' => ['kind' => 'media', 'id' => 'pier'], 'places' => ['gates']]],
        ], except: ['not.found']);
    }

    /** @param list<array{0: string, 1: string, 2?: array<string, mixed>}> $requests */
    private function areNotThere(array $requests): void
    {
        foreach ($requests as $request) {
            [$status, $answer] = $this->ask(...$request);
            self::assertSame([404, 'not.found'], [$status, $answer['error']['code'] ?? ''], "$request[0] $request[1]");
        }
    }

    /**
     * @param list<array{0: string, 1: string, 2?: array<string, mixed>}> $requests
     * @param list<string> $except codes that say as little
     */
    private function areUnknown(array $requests, array $except = []): void
    {
        foreach ($requests as $request) {
            self::assertContains($this->ask(...$request)[1]['error']['code'] ?? '', ['ref.unknown', ...$except], "$request[0] $request[1]");
        }
    }
}
