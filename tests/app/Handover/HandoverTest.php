<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Handover;

use Doctrine\DBAL\Driver\PDO\Exception;
use Doctrine\DBAL\Exception\DeadlockException;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use UpperPane\App\Display\DisplaysChanged;
use UpperPane\App\Handover\Handings;
use UpperPane\App\Handover\HandOver;
use UpperPane\App\Media\Publisher;
use UpperPane\App\Playback\Pointers;
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
        $looked = json_decode((string) $this->client->getResponse()->getContent(), true);
        $handing = $this->handOver(['source' => $source, 'displays' => ['wide']]);

        self::assertSame(['done', 1, 1, null], [$handing['state'], $handing['done'], $handing['of'], $handing['trouble']]);
        $release = $handing['releases'][0];
        self::assertSame(1, $release['number']);
        $pointer = $this->pointer($player->secret);
        self::assertSame($release['sha256'], $pointer['manifest']['sha256']);
        $read = fn (string $url): string => $this->published()->read(ltrim($url, '/'));
        self::assertSame($release['sha256'], hash('sha256', $read($pointer['manifest']['url'])));
        $manifest = json_decode($read($pointer['manifest']['url']), true);
        self::assertSame([$manifest['planes']['base']['sheet']['sha256']], array_column($manifest['sheets'], 'sha256'));
        self::assertSame($pointer['planes'], $manifest['planes']);
        foreach ([...$manifest['sheets'], ...$manifest['media']] as $file) {
            self::assertSame($file['sha256'], hash('sha256', $read($file['url'])));
        }
        self::assertSame($looked['run_sheet'], $this->fetched($release)['run_sheet'], 'what was looked at is what is handed over');

        [$again] = $this->handOver(['source' => $source, 'displays' => ['wide']])['releases'];
        self::assertSame([2, $release['sha256']], [$again['number'], $again['sha256']], 'the same inputs give the same bytes');
    }

    /** Another transaction was in the way: all of it is done again, and the handover ends as done. */
    public function testAHandoverThatHadToBeDoneAgainEndsAsDone(): void
    {
        $tries = 0;
        static::getContainer()->get('event_dispatcher')->addListener(DisplaysChanged::class, static function () use (&$tries): void {
            if (++$tries === 1) {
                throw new DeadlockException(Exception::new(new \PDOException('Deadlock found when trying to get lock')), null);
            }
        }, -100);
        $handing = $this->handOver(['source' => ['kind' => 'media', 'id' => $this->media()->id], 'displays' => ['wide', 'tall']]);
        self::assertSame([2, 'done', 2, 2], [$tries, $handing['state'], $handing['done'], count($handing['releases'])]);
        self::assertNotNull($handing['ended_at']);
    }

    /** The pages of players that are out there know `release` alone, and a release in one piece. */
    public function testAPlayerWhosePageReadsNoManifestsIsGivenTheWhole(): void
    {
        $player = $this->player('wide');
        $layout = $this->made($this->whole($this->media()));
        [$release] = $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout['id']], 'displays' => ['wide']])['releases'];
        $named = $this->pointer($player->secret)['release'];
        $whole = json_decode($this->published()->read(ltrim($named['url'], '/')), true);
        self::assertSame(['upper-pane/release@1', 'wide', 'Wide', 1], [$whole['format'], $whole['display']['id'], $whole['display']['name'], $named['number']]);
        self::assertSame($this->fetched($release)['run_sheet'], $whole['run_sheet']);
        $report = fn (array $more): int => $this->reports($player->secret, ['release' => $named['sha256'], 'output' => 1] + $more);
        $state = fn (): string => $this->estate()['displays'][0]['standing']['state'];
        self::assertSame([204, 'plays'], [$report([]), $state()], 'what it plays is what was handed over');

        self::assertSame(204, $report(['build' => 'b2', 'every_s' => 60]));
        static::getContainer()->get(Pointers::class)->doDue();
        self::assertSame($release['sha256'], $this->pointer($player->secret)['release']['sha256'], 'once it reads manifests');
        static::mockTime('+4 minutes');
        self::assertSame('plays', $state(), 'silent is who misses four of its own calls');
        static::mockTime('+1 minute');
        self::assertSame('silent', $state());
    }

    public function testFormatsAreAsTheirSchemasSay(): void
    {
        $player = $this->player('wide');
        $layout = $this->made($this->whole($this->media()))['id'];
        $schedule = ['name' => 'S', 'display' => 'wide', 'document' => ['timezone' => 'UTC', 'standby' => ['layout' => $layout], 'bookings' => [
            ['id' => 'b', 'name' => 'B', 'plays' => ['media' => 'pier'], 'rank' => 'weekly', 'start' => '2026-06-01T09:00:00', 'end' => '2026-06-01T10:00:00', 'rrule' => 'FREQ=WEEKLY'],
        ]]];
        $source = ['kind' => 'schedule', 'id' => $this->ask('POST', '/api/schedules', $schedule)[1]['id']];
        static::getContainer()->get(Pointers::class)->doDue();
        $this->fits('pointer', "pointers/$player->secret.json");
        [$release] = $this->handOver(['source' => $source, 'displays' => ['wide']])['releases'];
        $this->ask('POST', '/api/displays/wide/alignment', ['minutes' => 5]);
        $this->fits('pointer', "pointers/$player->secret.json");
        $this->fits('release', ltrim($release['url'], '/'));
        $manifest = json_decode($this->published()->read(ltrim($release['url'], '/')), true);
        self::assertCount(3, $manifest['sheets'], 'the plan, and what it books');
        foreach ($manifest['sheets'] as $sheet) {
            $this->fits('sheet', ltrim($sheet['url'], '/'));
        }
        $this->ask('DELETE', "/api/players/$player->id");
        $this->fits('pointer', "pointers/$player->secret.json");
    }

    /** Whatever is killed between the handover and the writing of the pointers. */
    public function testAPointerIsDueUntilItIsWritten(): void
    {
        $player = $this->player('wide');
        $this->handOver(['source' => ['kind' => 'media', 'id' => $this->media()->id], 'displays' => ['wide']]);
        $this->published()->delete("pointers/$player->secret.json");
        $pointers = static::getContainer()->get(Pointers::class);
        self::assertSame(0, $pointers->doDue());
        $pointers->allDue();
        self::assertSame([1, 0], [$pointers->doDue(), $pointers->doDue()]);
        self::assertSame(1, $this->pointer($player->secret)['release']['number']);
    }

    /** A worker was killed at any moment, and the job is given out again. */
    public function testAHandoverThatIsWorkedOnTwiceIsHandedOverOnce(): void
    {
        $id = $this->handOver(['source' => ['kind' => 'media', 'id' => $this->media()->id], 'displays' => ['wide', 'tall']])['id'];
        foreach (['working', 'handed', 'done'] as $killed) {
            $connection = $this->entities()->getConnection();
            $connection->update('handing', ['state' => $killed], ['id' => $id]);
            if ($killed === 'working') {
                $connection->executeStatement('UPDATE surveyed_display SET current_id = NULL');
                $connection->executeStatement('DELETE FROM handed_release');
            }
            $this->entities()->clear();
            static::getContainer()->get(Handings::class)->work(new HandOver($id));
            $this->entities()->clear();
            self::assertSame(['done', [1, 1]], [$this->ask('GET', "/api/handings/$id")[1]['state'], array_column($this->ask('GET', "/api/handings/$id")[1]['releases'], 'number')]);
        }
    }

    public function testWhatWasNotedIsHandedOverAlsoWhereItWasChangedMeanwhile(): void
    {
        $layout = $this->made($this->whole($this->media()));
        $this->ask('POST', '/api/handover', ['source' => ['kind' => 'layout', 'id' => $layout['id'], 'revision' => 1], 'displays' => ['wide']]);
        $document = ['background' => ['color' => '#ff0000']] + $layout['document'];
        $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => $document]);
        $this->work();
        $release = $this->ask('GET', '/api/displays/wide/releases')[1]['releases'][0];
        self::assertSame(1, $release['source']['revision']);
        self::assertNotSame('#ff0000', $this->fetched($release)['run_sheet']['background']);
    }

    public function testWhatIsGoneWhenItIsHandedOverIsToldAndNothingIsDone(): void
    {
        $asset = $this->media();
        [, $answer] = $this->ask('POST', '/api/handover', ['source' => ['kind' => 'media', 'id' => $asset->id], 'displays' => ['wide']]);
        $this->ask('DELETE', "/api/media/$asset->id");
        $this->work();
        $handing = $this->ask('GET', "/api/handings/{$answer['handing']['id']}")[1];
        self::assertSame(['failed', 'This media is not there, or no longer.', []], [$handing['state'], $handing['trouble'], $handing['releases']]);
        self::assertSame('failed', $this->ask('GET', '/api/handings')[1]['handings'][0]['state']);
    }

    /** Down to the last list within, as it was then, planned for the days that are to come now; and what that undoes is said before. */
    public function testAnEarlierReleaseIsPutBackWithAllThatWasInIt(): void
    {
        $item = ['id' => 'i1', 'media' => $this->media()->media()?->toArray(), 'duration_ms' => 9000, 'valid' => ['hours' => [['08:00', '20:00']]]];
        $round = $this->ask('POST', '/api/playlists', ['name' => 'Round', 'document' => ['items' => [$item]]])[1];
        $outer = $this->made(['elements' => [['playlist' => ['ref' => $round['id']]] + Make::zone('main', 0, 0, 1920, 1080)]] + Make::layout([]), 'Outer');
        $source = ['kind' => 'layout', 'id' => $outer['id']];
        [$first] = $this->handOver(['source' => $source, 'displays' => ['wide']])['releases'];
        $this->ask('PUT', "/api/playlists/{$round['id']}", ['base' => 1, 'document' => ['items' => [['duration_ms' => 12_000] + $item]] + $round['document']]);
        $this->handOver(['source' => $source, 'displays' => ['wide']]);
        static::mockTime('+30 days');

        $back = ['releases' => [['display' => 'wide', 'number' => 1]]];
        [$offer] = $this->ask('POST', '/api/handover/back/preview', $back)[1]['offers'];
        self::assertSame([1, ['Retimed: pier.png in "main" lasts 9 s, was 12 s.'], false], [$offer['back_to']['number'], $offer['changes'], $offer['unchanged']]);
        $handing = $this->handOver($back, '/api/handover/back');
        [$third] = $handing['releases'];
        self::assertSame(['Back: Outer', 3, 1], [$handing['name'], $third['number'], $third['puts_back']]);
        self::assertSame($this->fetched($first)['run_sheet']['layers'][0]['segments'], $this->fetched($third)['run_sheet']['layers'][0]['segments']);
        self::assertSame(['2026-08-31T00:00:00Z', '2026-09-30T00:00:00Z'], [$first['planned']['until'], $third['planned']['until']]);
        self::assertTrue($this->ask('POST', '/api/handover/back/preview', $back)[1]['offers'][0]['unchanged']);
        self::assertTrue($this->estate()['displays'][0]['saved_not_handed_over'], 'what is saved says something else');
    }

    public function testAHandoverToManyIsUndoneWhereItIsStillThere(): void
    {
        [$pier, $quay, $dock] = [$this->media(), $this->media('quay'), $this->media('dock')];
        $hand = fn (string $media, string ...$displays): string => $this->handOver(['source' => ['kind' => 'media', 'id' => $media], 'displays' => $displays])['id'];
        $hand($pier->id, 'wide');
        $hand($dock->id, 'tall');
        $both = $hand($quay->id, 'wide', 'tall');
        [$first, $second] = $this->ask('POST', '/api/handover/back/preview', ['handing' => $both])[1]['offers'];
        self::assertSame(['"pier.png" takes the place of "quay.png".', '"dock.png" takes the place of "quay.png".'], [$first['changes'][0], $second['changes'][0]]);
        $hand($pier->id, 'tall');
        $back = $this->handOver(['handing' => $both], '/api/handover/back');
        self::assertSame([['wide', 'pier.png', 1]], array_map(static fn (array $one): array => [$one['display'], $one['name'], $one['puts_back']], $back['releases']));
        [$status, $answer] = $this->ask('POST', '/api/handover/back', ['handing' => $both]);
        self::assertSame([409, 'back.nothing'], [$status, $answer['error']['code']]);
    }

    /** Releases of the first days: what they were made from was not recorded, but their bytes are there. */
    public function testAReleaseFromBeforePartsWereRecordedComesBackAsTheFileThatItWas(): void
    {
        $player = $this->player('wide');
        $layout = $this->made($this->whole($this->media()));
        $source = ['kind' => 'layout', 'id' => $layout['id']];
        $this->handOver(['source' => $source, 'displays' => ['wide']]);
        [$path, $sha256] = static::getContainer()->get(Publisher::class)->content('releases', '{"format":"upper-pane/release@1"}', 'json');
        $this->entities()->getConnection()->update('handed_release', ['manifest' => 0, 'made_of' => null, 'document' => '{"id":"x"}', 'file' => $path, 'sha256' => $sha256], ['number' => 1]);
        $this->handOver(['source' => ['kind' => 'media', 'id' => $this->media('quay')->id], 'displays' => ['wide']]);

        $back = ['releases' => [['display' => 'wide', 'number' => 1]]];
        self::assertStringContainsString('was not recorded', $this->ask('POST', '/api/handover/back/preview', $back)[1]['offers'][0]['changes'][0]);
        [$third] = $this->handOver($back, '/api/handover/back')['releases'];
        self::assertSame([3, $sha256], [$third['number'], $third['sha256']]);
        self::assertSame([$sha256, null], [$this->pointer($player->secret)['release']['sha256'], $this->pointer($player->secret)['manifest']]);
    }

    public function testALayoutWhereAScheduleRulesSaysInWhosePlaceItPlays(): void
    {
        $layout = $this->made($this->whole($this->media()))['id'];
        $schedule = $this->ask('POST', '/api/schedules', ['name' => 'Hall', 'display' => 'wide', 'document' => ['timezone' => 'UTC', 'standby' => ['layout' => $layout], 'bookings' => []]])[1]['id'];
        $instead = fn (): mixed => $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => 'layout', 'id' => $layout], 'displays' => ['wide']])[1]['offers'][0]['instead_of'];
        self::assertSame(['id' => $schedule, 'name' => 'Hall', 'handed_over' => false], $instead());
        $this->handOver(['source' => ['kind' => 'schedule', 'id' => $schedule], 'displays' => ['wide']]);
        self::assertSame(['id' => $schedule, 'name' => 'Hall', 'handed_over' => true], $instead());
    }

    public function testAlikeDisplaysAreToldTogetherAndShareTheirRelease(): void
    {
        $this->ask('POST', '/api/displays/wide/copies', ['count' => 3]);
        $layout = $this->made($this->whole($this->media()))['id'];
        $request = ['source' => ['kind' => 'layout', 'id' => $layout], 'displays' => ['wide', 'wide-2', 'wide-3', 'wide-4']];
        self::assertSame([['wide', 'wide-2', 'wide-3', 'wide-4']], array_column($this->ask('POST', '/api/handover/preview', $request)[1]['offers'], 'displays'));
        $releases = $this->handOver($request)['releases'];
        self::assertSame([4, 1], [count($releases), count(array_unique(array_column($releases, 'sha256')))]);
        $this->handOver(['displays' => ['wide-3']] + ['source' => ['kind' => 'media', 'id' => 'pier']] + $request);
        self::assertSame([['wide', 'wide-2', 'wide-4'], ['wide-3']], array_column($this->ask('POST', '/api/handover/preview', $request)[1]['offers'], 'displays'));
    }

    private function fits(string $schema, string $file): void
    {
        $validator = new Validator();
        $validator->resolver()?->registerPrefix('https://upper-pane.invalid/formats/', dirname(__DIR__, 3) . '/docs/formats/');
        $result = $validator->validate(json_decode($this->published()->read($file)), "https://upper-pane.invalid/formats/$schema.schema.json");
        $error = $result->error();
        self::assertNull($error, $error === null ? '' : (string) json_encode((new ErrorFormatter())->format($error)));
    }

    public function testAPortraitLayoutIsRefusedForALandscapeDisplayWithTheReason(): void
    {
        $layout = $this->made($this->whole($this->media('high', 1080, 1920), 1080, 1920));
        $request = ['source' => ['kind' => 'layout', 'id' => $layout['id']], 'places' => ['hall']];
        [, $preview] = $this->ask('POST', '/api/handover/preview', $request);
        self::assertSame(['wide' => 'crossed', 'tall' => 'exact'], array_combine(
            array_merge(...array_column($preview['offers'], 'displays')),
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
        $this->handOver(['source' => ['kind' => 'media', 'id' => 'crossing'], 'displays' => ['wide', 'tall']]);
        $sheet = $this->fetched($this->ask('GET', '/api/displays/tall/releases')[1]['releases'][0])['run_sheet'];
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
        $this->handOver(['source' => $source, 'displays' => ['wide']]);
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
        self::assertTrue($this->estate()['displays'][0]['saved_not_handed_over']);
    }

    /** Down to the last list within what lies within. */
    public function testWhatChangedWithinIsAChange(): void
    {
        $item = ['id' => 'i1', 'media' => $this->media()->media()?->toArray(), 'duration_ms' => 9000];
        $round = $this->ask('POST', '/api/playlists', ['name' => 'Round', 'document' => ['items' => [$item]]])[1];
        $inner = $this->made(['elements' => [['playlist' => ['ref' => $round['id']]] + Make::zone('in', 0, 0, 1920, 1080)]] + Make::layout([]), 'Inner');
        $outer = $this->made(Make::layout([Make::zone('main', 0, 0, 1920, 1080, [['id' => 'i1', 'layout' => ['ref' => $inner['id']], 'duration_ms' => 9000]])]), 'Outer');
        $source = ['kind' => 'layout', 'id' => $outer['id']];
        $this->handOver(['source' => $source, 'displays' => ['wide']]);
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
