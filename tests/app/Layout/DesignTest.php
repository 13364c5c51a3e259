<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Layout;

use PHPUnit\Framework\Attributes\TestWith;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

final class DesignTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testTwoVersionsAreComparedAndPutTogether(): void
    {
        $made = $this->made(Make::harbour());
        $document = $made['document'];
        [$mine, $theirs] = [$document, $document];
        $mine['elements'][0]['name'] = 'Main';
        $theirs['elements'][1]['rect']['width'] = 500;
        self::assertSame(200, $this->ask('PUT', "/api/layouts/{$made['id']}", ['base' => 1, 'document' => $theirs])[0]);
        self::assertSame(409, $this->ask('PUT', "/api/layouts/{$made['id']}", ['base' => 1, 'document' => $mine])[0]);

        [$status, $compared] = $this->ask('POST', "/api/layouts/{$made['id']}/compare", ['base' => 1, 'document' => $mine, 'take' => (object) []]);
        self::assertSame([200, ['elements/main', 'elements/side'], ['mine', 'theirs']], [$status, array_column($compared['differences'], 'key'), array_column($compared['differences'], 'by')]);
        self::assertSame(['Main', 500], [$compared['document']['elements'][0]['name'], $compared['document']['elements'][1]['rect']['width']]);
        $taken = $this->ask('POST', "/api/layouts/{$made['id']}/compare", ['base' => 1, 'document' => $mine, 'take' => ['elements/side' => 'mine']])[1];
        self::assertSame(576, $taken['document']['elements'][1]['rect']['width']);
        self::assertSame(422, $this->ask('POST', "/api/layouts/{$made['id']}/compare", ['base' => 9, 'document' => $mine])[0]);
        self::assertSame(422, $this->ask('POST', "/api/layouts/{$made['id']}/compare", ['base' => 1, 'document' => $mine, 'take' => ['name' => 'ours']])[0]);
        self::assertSame(200, $this->ask('PUT', "/api/layouts/{$made['id']}", ['base' => 2, 'document' => $compared['document']])[0]);
    }

    public function testEveryRevisionIsKeptAndCanBePutBack(): void
    {
        $layout = $this->made(Make::harbour());
        $id = $layout['id'];
        $changed = ['name' => 'Noon', 'elements' => []] + $layout['document'];
        [$status, $saved] = $this->ask('PUT', "/api/layouts/$id", ['base' => 1, 'document' => $changed]);
        self::assertSame([200, 2, 'Noon'], [$status, $saved['revision'], $saved['name']]);

        $revisions = $this->ask('GET', "/api/layouts/$id/revisions")[1]['revisions'];
        self::assertSame([2, 1], array_column($revisions, 'number'));
        $look = fn (int $nth): array => $this->ask('GET', "/api/layouts/$id/revisions/{$revisions[$nth]['id']}/picture")[1];
        self::assertSame('name: Noon', $look(0)['changes'][0]);
        self::assertContains('main: taken out', $look(0)['changes']);
        self::assertSame([[], 1920], [$look(0)['picture']['run_sheet']['layers'], $look(0)['picture']['run_sheet']['canvas']['width']]);
        self::assertSame([null, true], [$look(1)['changes'], $look(1)['picture']['run_sheet']['layers'] !== []], 'the first');
        [, $restored] = $this->ask('POST', "/api/layouts/$id/restore", ['base' => 2, 'revision' => $revisions[1]['id']]);
        self::assertSame(3, $restored['revision']);
        self::assertEquals($layout['document'], $restored['document']);
    }

    public function testAStaleWriteIsRefusedAndBothVersionsAreKept(): void
    {
        $layout = $this->made(Make::harbour());
        $id = $layout['id'];
        $this->ask('PUT', "/api/layouts/$id", ['base' => 1, 'document' => ['name' => 'Hers'] + $layout['document']]);
        [$status, $answer] = $this->ask('PUT', "/api/layouts/$id", ['base' => 1, 'document' => ['name' => 'Mine'] + $layout['document']]);

        self::assertSame([409, 'revision.stale', 'Hers'], [$status, $answer['error']['code'], $answer['current']['name']]);
        self::assertSame('Hers', $this->ask('GET', "/api/layouts/$id")[1]['name']);
        $aside = $this->ask('GET', "/api/layouts/$id/revisions")[1]['revisions'][0];
        self::assertNull($aside['number']);
        self::assertSame('Mine', $this->ask('GET', "/api/layouts/$id/revisions/{$aside['id']}")[1]['document']['name']);
    }

    public function testADocumentThatCannotBeReadIsRefusedWithItsPlace(): void
    {
        $layout = $this->made(Make::harbour());
        $broken = $layout['document'];
        $broken['elements'][1]['rect']['width'] = -5;
        [$status, $answer] = $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => $broken]);

        self::assertSame([422, '/elements/1/rect/width'], [$status, $answer['error']['path']]);
        self::assertSame(1, $this->ask('GET', "/api/layouts/{$layout['id']}")[1]['revision']);
    }

    public function testTenMegabytesAreTooMuch(): void
    {
        [$status, $answer] = $this->ask('POST', '/api/layouts', '{"name":"' . str_repeat('x', 10_000_000) . '"}');

        self::assertSame([413, 'document.too-large'], [$status, $answer['error']['code']]);
    }

    public function testLayoutsThatContainEachOtherCannotBeSaved(): void
    {
        $inner = $this->made(Make::layout([]), 'Inner');
        $outer = $this->made(Make::layout([Make::zone('z', 0, 0, 10, 10, [['id' => 'i1', 'layout' => ['ref' => $inner['id']], 'duration_ms' => 1000]])]), 'Outer');
        $cycle = ['elements' => [Make::zone('z', 0, 0, 10, 10, [['id' => 'i1', 'layout' => ['ref' => $outer['id']], 'duration_ms' => 1000]])]] + $inner['document'];
        [$status, $answer] = $this->ask('PUT', "/api/layouts/{$inner['id']}", ['base' => 1, 'document' => $cycle]);

        self::assertSame([422, 'ref.cycle'], [$status, $answer['error']['code']]);
        self::assertSame(409, $this->ask('DELETE', "/api/layouts/{$inner['id']}")[0], 'it is used in the outer one');
    }

    public function testTheAnalysisSaysWhatTheCoreSays(): void
    {
        [$status, $analysis] = $this->ask('POST', '/api/analysis', ['document' => Make::harbour(864, 864), 'display' => 'wide']);

        self::assertSame(200, $status);
        self::assertSame(['element.outside', 'zone.sum'], array_column($analysis['findings'], 'code'));
        self::assertEqualsWithDelta(0.4902, $analysis['mm_per_px'], 0.0001);
        self::assertSame('exact', $analysis['match']['verdict']);
        self::assertSame(10_000, $analysis['meets_every_ms']);
        self::assertSame([0.56, 0.24], [round($analysis['shares']['main'], 4), round($analysis['shares']['side'], 4)]);
    }

    /** From the instant that is looked at on; without one, from now. */
    public function testGapsAreLookedForFromTheInstantOfThePane(): void
    {
        $document = $this->whole($this->media());
        $document['elements'][0]['playlist']['items'][0]['valid'] = ['until' => '2026-06-05T12:00:00'];
        $gaps = function (array $at) use (&$document): array {
            $findings = $this->ask('POST', '/api/analysis', ['document' => $document] + $at)[1]['findings'];

            return array_values(array_filter($findings, static fn (array $one): bool => $one['code'] === 'zone.gap'));
        };
        self::assertSame([], $gaps(['at' => '2026-05-20T00:00:00Z']));
        self::assertSame('2026-06-05T12:00:00Z', $gaps(['at' => '2026-06-01T00:00:00Z'])[0]['measure']['from']);
        self::assertCount(1, $gaps([]), 'it is over by now');
        [$status, $answer] = $this->ask('POST', '/api/analysis', ['document' => $document, 'at' => 'noon']);
        self::assertSame([422, '/at'], [$status, $answer['error']['path']]);

        // With a standby there is none, and it is named among what plays there.
        $document['elements'][0]['standby'] = ['media' => $this->media('night')->id];
        self::assertSame([], $gaps([]));
        $scenes = $this->ask('POST', '/api/analysis', ['document' => $document])[1]['playing']['main']['scenes'];
        self::assertSame([['pier.png', false], ['night.png', true]], array_map(static fn (array $scene): array => [$scene['name'], $scene['standby'] ?? false], $scenes));
    }

    public function testALightAnalysisLeavesOutWhatMovingDoesNotChange(): void
    {
        $whole = $this->ask('POST', '/api/analysis', ['document' => Make::harbour(), 'display' => 'wide'])[1];
        $light = $this->ask('POST', '/api/analysis', ['document' => Make::harbour(), 'display' => 'wide', 'light' => true])[1];

        self::assertSame(['playing', 'loops', 'meets_every_ms', 'run_sheet', 'media'], array_keys(array_diff_key($whole, $light)));
        self::assertEquals(array_intersect_key($whole, $light), $light);
        self::assertSame(422, $this->ask('POST', '/api/analysis', ['document' => Make::harbour(), 'light' => 'yes'])[0]);
    }

    public function testADesignIsMadeForADisplayThatIsThere(): void
    {
        $document = array_diff_key(Make::harbour(), ['format' => 1, 'id' => 1, 'name' => 1]);
        [$status, $answer] = $this->ask('POST', '/api/layouts', ['name' => 'Morning', 'display' => 'gone', 'document' => $document]);
        self::assertSame([422, '/display'], [$status, $answer['error']['path']]);
        $id = $this->ask('POST', '/api/layouts', ['name' => 'Morning', 'display' => 'wide', 'document' => $document])[1]['id'];
        $put = fn (array $more): array => $this->ask('PUT', "/api/layouts/$id", ['base' => $this->ask('GET', "/api/layouts/$id")[1]['revision'], 'document' => ['name' => 'Noon'] + $document] + $more);

        self::assertSame('wide', $put([])[1]['display'], 'what is not spoken of stays');
        self::assertSame(422, $put(['display' => 'gone'])[0]);
        self::assertSame('tall', $put(['display' => 'tall'])[1]['display']);
        self::assertNull($put(['display' => null])[1]['display']);
    }

    public function testWhatIsAskedForInTheWrongPlaceIsNotThere(): void
    {
        $one = $this->made(Make::harbour(), 'One')['id'];
        $other = $this->made(Make::harbour(), 'Other')['id'];
        $revision = $this->ask('GET', "/api/layouts/$other/revisions")[1]['revisions'][0]['id'];

        self::assertSame(404, $this->ask('GET', "/api/layouts/$one/revisions/$revision")[0], 'the revision of another layout');
        self::assertSame(404, $this->ask('POST', "/api/layouts/$one/restore", ['base' => 1, 'revision' => $revision])[0]);
        self::assertSame(404, $this->ask('GET', "/api/playlists/$one/revisions")[0]);
        self::assertSame(404, $this->ask('PUT', '/api/layouts/nowhere', ['base' => 1, 'document' => Make::harbour()])[0]);
        self::assertSame(404, $this->ask('DELETE', '/api/layouts/nowhere')[0]);
        self::assertSame(404, $this->ask('GET', '/api/sketches')[0]);
    }

    public function testALayoutIsDeletedAndGone(): void
    {
        $id = $this->made(Make::harbour())['id'];

        self::assertSame(204, $this->ask('DELETE', "/api/layouts/$id")[0]);
        self::assertSame(404, $this->ask('GET', "/api/layouts/$id")[0]);
        self::assertSame([], $this->ask('GET', '/api/layouts')[1]['layouts']);
    }

    #[TestWith(['{"name": "x"', 'json.syntax', ''])]
    #[TestWith(['[1]', 'type.wrong', ''])]
    #[TestWith(['{"name": "x"}', 'field.missing', '/document'])]
    #[TestWith(['{"name": "x", "document": [1]}', 'type.wrong', '/document'])]
    #[TestWith(['{"name": "x", "document": {}, "colour": "red"}', 'field.unknown', '/colour'])]
    #[TestWith(['{"name": "", "document": {}}', 'value.range', '/name'])]
    public function testABodyThatCannotBeReadIsRefusedWithItsPlace(string $body, string $code, string $path): void
    {
        [$status, $answer] = $this->ask('POST', '/api/layouts', $body);

        self::assertSame([422, $code, $path], [$status, $answer['error']['code'], $answer['error']['path']], (string) json_encode($answer));
        self::assertNotSame('', $answer['error']['message']);
    }

    /** What was written comes back as it was, objects without fields too: `{}` is no list. */
    public function testADocumentComesBackAsItWasWritten(): void
    {
        $media = (string) json_encode($this->media()->media()?->toArray());
        $document = '{"canvas": {"width": 100, "height": 50}, "guides": {}, "elements": [{"id": "z", "kind": "zone", "rect": {"x": 0, "y": 0, "width": 100, "height": 50},
            "playlist": {"items": [{"id": "i", "media": ' . $media . ', "duration_ms": 1000, "valid": {}}]}}]}';
        [$status, $made] = $this->ask('POST', '/api/layouts', '{"name": "Braces", "document": ' . $document . '}');
        self::assertSame(201, $status);
        $this->entities()->clear();
        $this->ask('GET', "/api/layouts/{$made['id']}");
        $read = json_decode((string) $this->client->getResponse()->getContent())->document;
        self::assertEquals(json_decode($document)->guides, $read->guides);
        self::assertEquals(json_decode($document)->elements, $read->elements);
        $compared = $this->ask('POST', "/api/layouts/{$made['id']}/compare", (string) json_encode(['base' => 1, 'document' => $read]))[1];
        self::assertSame([], $compared['differences']);
    }

    public function testAPlaylistIsADesignToo(): void
    {
        [$status, $playlist] = $this->ask('POST', '/api/playlists', ['name' => 'Round', 'document' => ['items' => [Make::picture()]]]);

        self::assertSame([201, 'playlist'], [$status, $playlist['kind']]);
        self::assertSame(404, $this->ask('GET', "/api/layouts/{$playlist['id']}")[0]);
        self::assertSame(422, $this->ask('POST', '/api/playlists', ['name' => 'Round', 'document' => ['items' => [['id' => 'x']]]])[0]);
    }

    public function testAPlaylistIsUsedByZonesAndOtherPlaylistsAndSaysWhere(): void
    {
        $list = static fn (mixed ...$more): array => ['document' => ['items' => [Make::picture('a', durationMs: 4000), Make::picture('b', durationMs: 4000)], ...$more]];
        $notices = $this->ask('POST', '/api/playlists', ['name' => 'Notices'] + $list())[1]['id'];
        $round = $this->ask('POST', '/api/playlists', ['name' => 'Round'] + $list(interleave: ['every' => 2, 'ref' => $notices]))[1]['id'];
        $layout = $this->made(Make::layout([['playlist' => ['ref' => $round]] + Make::zone('z', 0, 0, 1920, 1080)]), 'Hall')['id'];

        $used = array_column($this->ask('GET', '/api/playlists')[1]['playlists'], 'used_in', 'name');
        self::assertSame(['Notices' => ['Round'], 'Round' => ['Hall']], $used);
        $analysis = $this->ask('POST', '/api/analysis', ['document' => $this->ask('GET', "/api/layouts/$layout")[1]['document']])[1];
        self::assertSame(['a', 'b', "$notices/a", 'a', 'b', "$notices/b"], $analysis['playing']['z']['cycle']);
        self::assertSame([24_000, ['a.png', 'b.png', 'a.png', 'b.png']], [$analysis['playing']['z']['cycle_ms'], array_column($analysis['playing']['z']['scenes'], 'name')]);
        self::assertSame(409, $this->ask('DELETE', "/api/playlists/$notices")[0], 'it is used');
        self::assertSame(422, $this->ask('PUT', "/api/playlists/$notices", [
            'base' => 1, 'document' => ['name' => 'Notices', 'items' => [], 'interleave' => ['every' => 1, 'ref' => $round]],
        ])[0], 'lists do not contain each other');
    }

    public function testAnItemIsCopiedBehindThoseOfAnotherPlaylist(): void
    {
        $id = $this->ask('POST', '/api/playlists', ['name' => 'Round', 'document' => ['items' => [Make::picture('i2'), Make::picture('i3')]]])[1]['id'];
        [$status, $saved] = $this->ask('POST', "/api/playlists/$id/items", ['item' => array_diff_key(Make::film('x', 9000, volume: 30), ['id' => 1])]);

        self::assertSame([200, 2, ['i2', 'i3', 'i4']], [$status, $saved['revision'], array_column($saved['document']['items'], 'id')]);
        self::assertSame(30, $saved['document']['items'][2]['volume']);
        foreach ([['media' => ['name' => 'x']], 'x', []] as $wrong) {
            self::assertSame(422, $this->ask('POST', "/api/playlists/$id/items", ['item' => $wrong])[0]);
        }
        self::assertSame(404, $this->ask('POST', '/api/playlists/nowhere/items', ['item' => Make::picture()])[0]);
    }

    public function testWhatIsDueOnlyAtTimesIsWrittenOutForTheNextTwoWeeksInTheZoneOfTheDisplay(): void
    {
        $document = Make::layout([Make::zone('z', 0, 0, 1920, 1080, [Make::picture('a'), Make::picture('b', valid: ['hours' => [['08:00', '10:00']]])])]);
        $zone = $this->ask('POST', '/api/analysis', ['document' => $document, 'display' => 'wide'])[1]['run_sheet']['layers'][0];

        // Which of the two comes first depends on the time of day at which it is asked.
        self::assertEqualsCanonicalizing([1, 2], [count($zone['loops'][0]['segments']), count($zone['loops'][1]['segments'])]);
        self::assertGreaterThanOrEqual(28, count($zone['turns']));
        self::assertGreaterThan(13 * 86_400_000, $zone['turns'][count($zone['turns']) - 1]['from_ms'] - $zone['turns'][0]['from_ms']);
    }

    /** Another spelling of an id is the id of nothing; it never gets into a document. */
    public function testIdsCompareByteByByte(): void
    {
        $layout = $this->made(Make::layout([]));
        foreach ([strtoupper($layout['id']), $layout['id'] . '%20'] as $other) {
            self::assertSame(404, $this->ask('PUT', "/api/layouts/$other", ['base' => 1, 'document' => $layout['document']])[0]);
            self::assertSame(404, $this->ask('GET', "/api/layouts/$other")[0]);
        }
        self::assertSame($layout['id'], $this->ask('GET', "/api/layouts/{$layout['id']}")[1]['document']['id']);
    }

    /** Its answer was lost on the way, and it is sent again. */
    public function testASaveThatHadLandedIsAnsweredAsLanded(): void
    {
        $layout = $this->made(Make::layout([]));
        $put = fn (string $name): array => $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => ['name' => $name] + $layout['document']]);
        self::assertSame([200, 2], [$put('Noon')[0], $put('Noon')[1]['revision']]);
        self::assertSame([200, 2], [$put('Noon')[0], $put('Noon')[1]['revision']]);
        self::assertSame(409, $put('Night')[0], 'something else is another matter');
        self::assertCount(3, $this->ask('GET', "/api/layouts/{$layout['id']}/revisions")[1]['revisions'], 'two that were saved, and one that is kept aside');
    }
}
