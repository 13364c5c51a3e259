<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Estate;

use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

final class EstateTest extends ApiTestCase
{
    public function testTheTreeIsToldWithWhatEachDisplayIs(): void
    {
        $this->player('tall');
        $this->signIn();
        $estate = $this->estate();

        self::assertEquals(['hall' => null, 'gates' => 'hall'], array_column($estate['places'], 'parent', 'id'));
        [$wide, $tall] = $estate['displays'];
        self::assertSame(['landscape', ['width' => 1920, 'height' => 1080], []], [$wide['orientation'], $wide['raster'], $wide['players']]);
        self::assertSame(['portrait', ['width' => 1080, 'height' => 1920], 90], [$tall['orientation'], $tall['raster'], $tall['rotation']]);
        self::assertEquals(['width' => 529.4, 'height' => 941.2], $tall['active_mm']);
        self::assertSame(['Departure hall', 'Gates'], $tall['way']);
        self::assertNull($tall['release']);
        self::assertCount(1, $tall['players']);
    }

    public function testTheEstateSaysHowEachDisplayStands(): void
    {
        $this->signIn();
        $player = $this->player('wide');
        $asset = $this->media();
        $standing = fn (): array => array_column($this->estate()['displays'], 'standing', 'id');
        self::assertSame(['blank', 'unbound'], array_column($standing(), 'state'), 'bound a moment ago, nothing handed over; the other has no player');

        $this->handOver(['source' => ['kind' => 'media', 'id' => $asset->id], 'displays' => ['wide']]);
        self::assertSame(['changing', 'warning', 'on its way to release 1'], array_values($standing()['wide']));

        $calls = function (string $when) use ($player): void {
            $this->entities()->getConnection()->update('player', [
                'called_at' => self::now($when)->format('Y-m-d H:i:s'),
                'plays_sha256' => $this->estate()['displays'][0]['release']['sha256'],
            ], ['id' => $player->id]);
            $this->entities()->clear();
        };
        $calls('+0 seconds');
        self::assertSame(['plays', null, 'plays what it should'], array_values($standing()['wide']));

        $calls('-1 minute');
        $wide = array_column($this->estate()['displays'], null, 'id')['wide'];
        self::assertSame(['silent', 'silent'], [$wide['standing']['state'], $wide['players'][0]['standing']['state']]);

        // What is wrong is told once for all stations; elements are displays.
        $counts = "JSON_OBJECT('stops', 0, 'warnings', 2, 'hints', 1)";
        $this->entities()->getConnection()->executeStatement("UPDATE surveyed_display SET summary = JSON_SET(summary, '$.found', $counts) WHERE id = 'tall'");
        $found = array_column($this->estate()['findings'], null, 'code');
        self::assertSame(['worker.silent', 'player.silent', 'display.unbound', 'survey.found', 'display.blank'], array_keys($found));
        self::assertMatchesRegularExpression('/ has been silent since (\d{4}-\d\d-\d\d )?\d\d:\d\d\. It goes on with release 1\.$/', $found['player.silent']['message']);
        self::assertSame([['tall'], 'warning'], [$found['survey.found']['elements'], $found['survey.found']['level']]);
        self::assertStringEndsWith(': 3 found in its survey.', $found['survey.found']['message']);
    }

    /** What every page shows of it, without all of it; and who has it already is told that nothing changed. */
    public function testTheEstateIsCountedAndNotSentTwice(): void
    {
        $this->signIn();
        $this->player('wide');
        $counts = fn (): array => $this->ask('GET', '/api/estate/counts')[1];
        self::assertSame(['of' => 2, 'older' => 0, 'standing' => ['blank' => 1, 'unbound' => 1]], $counts());
        $layout = $this->made($this->whole($this->media()));
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout['id']], 'displays' => ['wide']]);
        $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => ['name' => 'Noon'] + $layout['document']]);
        self::assertSame(['of' => 2, 'older' => 1, 'standing' => ['changing' => 1, 'unbound' => 1]], $counts());

        $this->ask('GET', '/api/estate');
        $etag = (string) $this->client->getResponse()->headers->get('ETag');
        $this->client->request('GET', '/api/estate', server: ['HTTP_IF_NONE_MATCH' => $etag]);
        self::assertSame([304, ''], [$this->client->getResponse()->getStatusCode(), $this->client->getResponse()->getContent()]);
        static::mockTime('+1 hour');
        $this->client->request('GET', '/api/estate', server: ['HTTP_IF_NONE_MATCH' => $etag]);
        self::assertSame(200, $this->client->getResponse()->getStatusCode(), 'its player is silent by now');
    }

    public function testListsSayWhereDesignsAreShownAndWhichRevision(): void
    {
        $this->signIn();
        $layout = $this->made($this->whole($this->media()));
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout['id']], 'displays' => ['wide']]);
        [$listed] = $this->ask('GET', '/api/layouts')[1]['layouts'];

        self::assertSame(['displays' => 1, 'older' => 0, 'some' => ['Wide'], 'again' => null], $listed['standing']);
        self::assertEquals(array_diff_key($layout, ['document' => 1]), array_diff_key($listed, ['standing' => 1, 'used_in' => 1]), 'the list tells what the layout itself tells');
        [$status, $answer] = $this->ask('DELETE', "/api/layouts/{$layout['id']}");
        self::assertSame([409, 'design.shown'], [$status, $answer['error']['code']]);
        self::assertStringContainsString('is shown on Wide', $answer['error']['message']);
    }

    public function testAChangeThatIsTakenBackLeavesNothingToHandOver(): void
    {
        $this->signIn();
        $layout = $this->made($this->whole($this->media()));
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout['id']], 'displays' => ['wide']]);
        $older = fn (): array => [
            $this->estate()['displays'][0]['saved_not_handed_over'],
            $this->ask('GET', '/api/layouts')[1]['layouts'][0]['standing']['older'] === 1,
        ];
        self::assertSame([false, false], $older());
        $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => ['name' => 'Noon'] + $layout['document']]);
        self::assertSame([true, true], $older());
        $same = ['elements' => array_map(array_reverse(...), $layout['document']['elements'])] + $layout['document'];
        $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 2, 'document' => $same]);
        self::assertSame([false, false], $older(), 'revision 3 says what revision 1 said, in another order of fields');
    }

    /** What plays in a zone of something else hangs there too; what is handed over again is what was handed over. */
    public function testAListSaysWhereADesignHangsWithinAnother(): void
    {
        $this->signIn();
        $inner = $this->made($this->whole($this->media()), 'Inner');
        $outer = $this->made(Make::layout([Make::zone('z', 0, 0, 1920, 1080, [['id' => 'i', 'layout' => ['ref' => $inner['id']], 'duration_ms' => 9000]])]), 'Outer');
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $outer['id']], 'displays' => ['wide']]);
        $standing = fn (): array => array_column($this->ask('GET', '/api/layouts')[1]['layouts'], 'standing', 'name');
        $same = ['displays' => 1, 'older' => 0, 'some' => ['Wide'], 'again' => null];
        self::assertSame(['Inner' => $same, 'Outer' => $same], $standing());
        $handed = fn (): array => array_column($this->ask('GET', "/api/layouts/{$inner['id']}/revisions")[1]['revisions'], 'handed_over', 'number');
        self::assertSame([1 => ['displays' => 1, 'last' => self::now()->format('Y-m-d\TH:i:s\Z'), 'now' => 1]], $handed());

        $this->ask('PUT', "/api/layouts/{$inner['id']}", ['base' => 1, 'document' => ['background' => ['color' => '#123456']] + $inner['document']]);
        $older = ['older' => 1, 'again' => ['kind' => 'layout', 'id' => $outer['id']]] + $same;
        self::assertEquals(['Inner' => $older, 'Outer' => $older], $standing());
        $this->ask('PUT', "/api/layouts/{$inner['id']}", ['base' => 2, 'document' => $inner['document']]);
        $this->ask('PUT', "/api/layouts/{$outer['id']}", ['base' => 1, 'document' => ['background' => ['color' => '#123456']] + $outer['document']]);
        self::assertEquals(['Inner' => $same, 'Outer' => $older], $standing());

        $this->handOver(['source' => ['kind' => 'layout', 'id' => $outer['id']], 'displays' => ['wide']]);
        $revisions = $this->ask('GET', "/api/layouts/{$inner['id']}/revisions")[1]['revisions'];
        self::assertSame([[3, 1, 1], [1, 1, 0]], array_map(
            static fn (array $one): array => [$one['number'], $one['handed_over']['displays'], $one['handed_over']['now']],
            array_values(array_filter($revisions, static fn (array $one): bool => $one['handed_over'] !== null)),
        ));
    }

    public function testWhatIsShownAndItsTimelineCanBeAskedForAnyDraft(): void
    {
        $this->signIn();
        $document = Make::layout([Make::zone('a', 0, 0, 1600, 900, [Make::picture('i1'), Make::film('f1')])]);
        $shown = $this->ask('POST', '/api/shown', ['document' => $document, 'at' => '2026-06-01T10:00:12Z'])[1];
        $timeline = $this->ask('POST', '/api/timeline', ['document' => $document, 'from' => '2026-06-01T10:00:12Z', 'to' => '2026-06-01T10:01:12Z'])[1];

        self::assertSame($timeline['zones'][0]['segments'][0]['item'], $shown['things'][0]['item']);
        self::assertSame(25_000, $timeline['meets_every_ms']);
        self::assertSame(422, $this->ask('POST', '/api/timeline', ['document' => $document, 'from' => '2026-06-01T10:00:12Z', 'to' => '2026-06-03T10:00:12Z'])[0]);
        self::assertSame(422, $this->ask('POST', '/api/shown', ['document' => $document, 'at' => 'now'])[0]);
    }

    public function testAPictureOfALayoutNamesTheAddressesOfItsMedia(): void
    {
        $this->signIn();
        $asset = $this->media();
        $layout = $this->made($this->whole($asset));
        $picture = $this->ask('GET', "/api/layouts/{$layout['id']}/picture")[1];

        self::assertSame("/$asset->file", $picture['media']['pier']['url']);
        self::assertSame(10_000, $picture['run_sheet']['layers'][0]['period_ms']);
        self::assertSame(404, $this->ask('GET', '/api/layouts/nowhere/picture')[0]);
    }

    public function testUnreadyMediaAreNotHandedOver(): void
    {
        $this->signIn();
        $this->entities()->persist(new \UpperPane\App\Media\MediaAsset('raw', 'raw.mp4', 9, self::now()));
        $this->entities()->flush();

        self::assertSame(409, $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => 'media', 'id' => 'raw'], 'displays' => ['wide']])[0]);
        self::assertSame(404, $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => 'media', 'id' => 'gone'], 'displays' => ['wide']])[0]);
        self::assertSame(422, $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => 'wish', 'id' => 'raw'], 'displays' => ['wide']])[0]);
    }

    public function testALayoutWhoseMediaIsGoneIsNotHandedOver(): void
    {
        $this->signIn();
        $layout = $this->made($this->whole($this->media()));
        $this->entities()->createQuery('DELETE FROM ' . \UpperPane\App\Media\MediaAsset::class)->execute();
        $this->entities()->clear();
        [$status, $answer] = $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => 'layout', 'id' => $layout['id']], 'displays' => ['wide']]);

        self::assertSame([409, 'media.missing'], [$status, $answer['error']['code']]);
        self::assertStringContainsString('"pier.png"', $answer['error']['message']);
    }
}
