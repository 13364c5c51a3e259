<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Storage;

use UpperPane\App\Handover\Plans;
use UpperPane\App\Storage\Prune;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** What is deleted, and what is taken away for good. */
final class BinTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testALayoutComesBackWithItsRevisions(): void
    {
        $layout = $this->made(Make::layout([]));
        $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => ['name' => 'Noon'] + $layout['document']]);
        self::assertSame(204, $this->ask('DELETE', "/api/layouts/{$layout['id']}")[0]);
        self::assertSame(404, $this->ask('GET', "/api/layouts/{$layout['id']}")[0]);
        [$binned] = $this->ask('GET', '/api/bin')[1]['binned'];
        self::assertSame(['layout', 'Noon', 'ines', '2026-07-01T09:00:00Z'], [$binned['kind'], $binned['name'], $binned['deleted_by'], $binned['gone_at']]);

        self::assertSame(204, $this->ask('POST', "/api/bin/{$binned['id']}/back")[0]);
        self::assertSame(2, $this->ask('GET', "/api/layouts/{$layout['id']}")[1]['revision']);
        self::assertCount(2, $this->ask('GET', "/api/layouts/{$layout['id']}/revisions")[1]['revisions']);
        self::assertSame([[], 404], [$this->ask('GET', '/api/bin')[1]['binned'], $this->ask('POST', "/api/bin/{$binned['id']}/back")[0]]);
    }

    /** Whatever was pruned meanwhile: what it names is used again, and is not deleted under it. */
    public function testWhatComesBackNamesWhatItNamed(): void
    {
        $text = ['id' => 't', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 900, 'height' => 90], 'text' => 'Gate closed', 'style' => ['size_px' => 40]];
        $inner = $this->made(Make::layout([$text]));
        $outer = $this->made(Make::layout([Make::zone('z', 0, 0, 640, 360, [['id' => 'i', 'layout' => ['ref' => $inner['id']], 'duration_ms' => 9000]])]));
        $spare = $this->made(Make::layout([]));
        $this->ask('PUT', "/api/layouts/{$spare['id']}", ['base' => 1, 'document' => ['name' => 'Spare, later'] + $spare['document']]);
        foreach ([$outer, $inner] as $layout) {
            self::assertSame(204, $this->ask('DELETE', "/api/layouts/{$layout['id']}")[0]);
        }
        self::assertSame([], $this->ask('GET', '/api/words?search=closed')[1]['found']);
        static::mockTime('+29 days');
        $this->prune();
        foreach (array_column($this->ask('GET', '/api/bin')[1]['binned'], 'id') as $id) {
            self::assertSame(204, $this->ask('POST', "/api/bin/$id/back")[0]);
        }
        self::assertSame('design.used', $this->ask('DELETE', "/api/layouts/{$inner['id']}")[1]['error']['code']);
        self::assertSame([$inner['id']], array_column($this->ask('GET', '/api/words?search=closed')[1]['found'], 'id'));
    }

    public function testADisplayComesBackWithItsReleasesAndWhatIsMadeForIt(): void
    {
        $player = $this->player('tall');
        $layout = $this->made(Make::layout([], 1080, 1920));
        $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => $layout['document'], 'display' => 'tall']);
        $this->handOver(['source' => ['kind' => 'media', 'id' => $this->media()->id], 'displays' => ['tall']]);
        self::assertSame(['display.bound', 'media.shown'], array_map(fn (string $path): string => $this->ask('DELETE', $path)[1]['error']['code'], ['/api/displays/tall', '/api/media/pier']));
        $this->ask('DELETE', "/api/players/$player->id");
        self::assertSame(204, $this->ask('DELETE', '/api/displays/tall')[0]);
        self::assertNull($this->ask('GET', "/api/layouts/{$layout['id']}")[1]['display']);
        $this->ask('POST', '/api/bin/' . $this->ask('GET', '/api/bin')[1]['binned'][0]['id'] . '/back');
        self::assertSame('tall', $this->ask('GET', "/api/layouts/{$layout['id']}")[1]['display']);
        $tall = array_column($this->estate()['displays'], null, 'id')['tall'];
        self::assertSame([1, 'pier.png'], [$tall['release']['number'], $tall['release']['name']]);
    }

    public function testAPlaceThatIsTakenMeanwhileIsSaidAndNothingIsDone(): void
    {
        $schedule = fn (): string => $this->ask('POST', '/api/schedules', ['name' => 'S', 'display' => 'wide', 'document' => ['timezone' => 'UTC', 'bookings' => []]])[1]['id'];
        $first = $schedule();
        $this->ask('DELETE', "/api/schedules/$first");
        $schedule();
        $id = $this->ask('GET', '/api/bin')[1]['binned'][0]['id'];
        [$status, $answer] = $this->ask('POST', "/api/bin/$id/back");
        self::assertSame([409, 'bin.taken'], [$status, $answer['error']['code']]);
        self::assertCount(1, $this->ask('GET', '/api/bin')[1]['binned']);
    }

    /** A release plays what was in it, also what was deleted since. */
    public function testWhatLiesInTheBinIsPlannedAndPutBackStill(): void
    {
        $hours = ['id' => 'i1', 'media' => $this->media()->media()?->toArray(), 'duration_ms' => 9000, 'valid' => ['hours' => [['08:00', '12:00']]]];
        $list = $this->ask('POST', '/api/playlists', ['name' => 'L', 'document' => ['items' => [$hours]]])[1]['id'];
        $this->handOver(['source' => ['kind' => 'playlist', 'id' => $list], 'displays' => ['wide']]);
        $this->handOver(['source' => ['kind' => 'media', 'id' => $this->media('quay')->id], 'displays' => ['wide']]);
        self::assertSame(204, $this->ask('DELETE', "/api/playlists/$list")[0]);
        self::assertSame(204, $this->ask('DELETE', '/api/media/pier')[0]);
        $back = $this->handOver(['releases' => [['display' => 'wide', 'number' => 1]]], '/api/handover/back');
        self::assertSame('done', $back['state'], (string) $back['trouble']);
        static::mockTime('+29 days');
        $this->prune();
        static::mockTime('+3 days');
        $plans = static::getContainer()->get(Plans::class);
        $plans->run();
        $this->entities()->clear();
        self::assertNull($this->entities()->getConnection()->fetchOne('SELECT plan_trouble FROM handed_release WHERE number = 3'));
        $file = $this->fetched($back['releases'][0])['media'][0]['url'];
        self::assertTrue($this->published()->fileExists(ltrim($file, '/')));
    }

    public function testWhatIsOlderThanThirtyDaysIsGoneFromTheBin(): void
    {
        $layout = $this->made(Make::layout([]));
        $this->ask('DELETE', "/api/layouts/{$layout['id']}");
        static::mockTime('+30 days');
        $this->prune();
        self::assertCount(1, $this->ask('GET', '/api/bin')[1]['binned']);
        static::mockTime('+1 minute');
        $this->prune();
        self::assertSame([], $this->ask('GET', '/api/bin')[1]['binned']);
    }

    public function testRevisionsAreThinnedAndThoseThatAreHandedOverOrHaveANoteStay(): void
    {
        $layout = $this->made($this->whole($this->media()));
        $put = fn (int $base, array $more = []): int => $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => $base, 'document' => $layout['document']] + $more)[0];
        // A revision an hour for four days; the fifth is handed over, the tenth is named.
        for ($base = 1; $base < 96; $base++) {
            static::mockTime('+1 hour');
            self::assertSame(200, $put($base, $base === 9 ? ['note' => 'as the harbour master wants it'] : []));
            if ($base === 4) {
                $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout['id']], 'displays' => ['wide']]);
            }
        }
        $numbers = fn (): array => array_reverse(array_column($this->ask('GET', "/api/layouts/{$layout['id']}/revisions")[1]['revisions'], 'number'));
        $this->prune();
        self::assertCount(96, $numbers());
        static::mockTime('+40 days');
        $this->prune();
        self::assertSame([5, 10, 15, 39, 63, 87, 96], $numbers(), 'the last of each day');
        static::mockTime('+80 days');
        $this->prune();
        self::assertSame([5, 10, 96], $numbers(), 'the last of each week');
    }

    public function testTheLastTwentyReleasesAndThoseOfAHundredDaysCanBePutBack(): void
    {
        $this->media();
        for ($n = 0; $n < 22; $n++) {
            $this->handOver(['source' => ['kind' => 'media', 'id' => 'pier'], 'displays' => ['wide']]);
        }
        $gone = fn (): array => array_column(array_filter($this->ask('GET', '/api/displays/wide/releases')[1]['releases'], static fn (array $one): bool => $one['gone']), 'number');
        static::mockTime('+99 days');
        $this->prune();
        self::assertSame([], $gone());
        static::mockTime('+2 days');
        $this->prune();
        self::assertSame([2, 1], $gone());
        [$status, $answer] = $this->ask('POST', '/api/handover/back', ['releases' => [['display' => 'wide', 'number' => 1]]]);
        self::assertSame([409, 'release.gone'], [$status, $answer['error']['code']]);
    }

    public function testFilesThatNobodyNamesGoAndAllOthersStay(): void
    {
        // Files have the time of the real clock.
        static::mockTime(gmdate('Y-m-d\TH:i:s\Z'));
        $this->handOver(['source' => ['kind' => 'media', 'id' => $this->media()->id], 'displays' => ['wide']]);
        $revoked = $this->player('wide');
        $this->ask('DELETE', "/api/players/$revoked->id");
        $this->published()->write('files/ab/' . str_repeat('ab', 32) . '.png', 'nobody');
        $this->published()->write('releases/ab/half.json.0011.part', 'half');
        $isFile = static fn ($file): bool => $file->isFile();
        $all = fn (): array => array_map(static fn ($file): string => $file->path(), array_values(array_filter($this->published()->listContents('', true)->toArray(), $isFile)));
        $before = $all();
        $this->prune();
        self::assertSame($before, $all(), 'it was published a moment ago');
        static::mockTime('+3 days');
        $this->prune();
        self::assertNotContains('files/ab/' . str_repeat('ab', 32) . '.png', $all());
        self::assertNotContains('releases/ab/half.json.0011.part', $all());
        [$release] = $this->ask('GET', '/api/displays/wide/releases')[1]['releases'];
        self::assertCount(1, $this->fetched($release)['media']);
        self::assertTrue($this->published()->fileExists(ltrim($this->fetched($release)['media'][0]['url'], '/')));
        self::assertContains("pointers/$revoked->secret.json", $all(), 'its player may not have read yet that it was taken back');
        static::mockTime('+101 days');
        $this->prune();
        self::assertNotContains("pointers/$revoked->secret.json", $all());
    }

    private function prune(): void
    {
        $prune = static::getContainer()->get(Prune::class);
        $prune->run();
        $this->entities()->clear();
        // Nobody stays signed in for so long.
        $this->signIn();
    }
}
