<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Data;

use Symfony\Component\HttpClient\MockHttpClient;
use Symfony\Component\HttpClient\Response\MockResponse;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use UpperPane\App\Data\BenchController;
use UpperPane\App\Data\Fetched;
use UpperPane\App\Data\PruneSources;
use UpperPane\App\Data\Snapshots;
use UpperPane\App\Data\SourceStates;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Refused;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** Sources are kept with what they said last, whatever comes of asking them again. */
final class SourcesTest extends ApiTestCase
{
    use FetchesDue;

    private const SAILINGS = '{"sailings": [{"to": "Tolm", "departs": "2026-06-01T17:05", "berth": 2}, '
        . '{"to": "Vennick", "departs": "2026-06-01T09:30", "berth": null}, {"to": "", "departs": "soon", "berth": 1}]}';

    protected function setUp(): void
    {
        parent::setUp();
        self::assertSame(200, $this->signIn());
    }

    public function testWhatIsFetchedIsKeptUntilSomethingElseComes(): void
    {
        $id = $this->source(['from' => ['address' => 'https://quay.example/sailings.json'], 'every_s' => 60, 'stale_after_s' => 600, 'zone' => 'Europe/Lisbon']);
        self::assertSame(['empty', 'source.empty'], [$this->state($id)['status'], $this->state($id)['finding']['code']]);
        self::assertSame($id, self::states()->take(1000 * self::now()->getTimestamp()), 'what was made is due at once');

        self::assertNull($this->came($id, self::SAILINGS));
        self::assertSame(['fresh', '2026-06-01T09:00:00Z', '2026-06-01T09:01:00Z', null], $this->told($id));
        static::mockTime('2026-06-01T09:02:00Z');
        self::assertStringContainsString('Line 1, column 15: no value of JSON begins like this', (string) $this->came($id, '{"sailings": [}'));
        self::assertSame(['failing', '2026-06-01T09:00:00Z', '2026-06-01T09:02:15Z', '2026-06-01T09:02:00Z'], $this->told($id), 'the last good one stays');
        static::mockTime('2026-06-01T09:11:00Z');
        self::assertSame('The server answers 500.', $this->came($id, null, 500, 'The server answers 500.'));
        self::assertSame(['stale', '2026-06-01T09:00:00Z', '2026-06-01T09:12:00Z', '2026-06-01T09:02:00Z'], $this->told($id), 'as often as it is meant to be, again');
        self::assertCount(2, $this->rows($id)['rows']);
        static::mockTime('2026-06-01T09:20:00Z');
        self::assertNull($this->came($id, null, 304));
        self::assertSame(['fresh', '2026-06-01T09:20:00Z', '2026-06-01T09:21:00Z', null], $this->told($id));
        static::mockTime('2026-06-01T09:23:00Z');
        self::assertSame('late', $this->state($id)['status'], 'nobody fetches it');

        foreach (['Sorry, we are moving house.' => 'What came is CSV, and was JSON before', " \n" => 'Nothing is in what came.', '<html>' => 'What came is RSS'] as $bytes => $why) {
            self::assertStringContainsString($why, (string) $this->came($id, $bytes));
        }
        self::assertCount(2, $this->rows($id)['rows']);
        $fetches = array_slice($this->ask('GET', "/api/sources/$id/state")[1]['fetches'], 3);
        self::assertSame(['same', 'failed', 'refused', 'read'], array_column($fetches, 'outcome'));
        self::assertSame([304, 500, 200, 200], array_column($fetches, 'status'));
        $all = $this->ask('GET', '/api/data')[1];
        self::assertContains(['C', 'F', 'K'], $all['units']);
        self::assertSame([60, 'failing'], [(int) $all['cost']['fetches_h'], $all['sources'][0]['status']]);
        $came = array_column($this->ask('GET', "/api/sources/$id/state")[1]['fetches'], 'came_bytes');
        self::assertEqualsWithDelta(60 * array_sum($came) / count($came), $all['cost']['bytes_h'], 1);
        self::assertEqualsWithDelta($all['cost']['bytes_h'] / 2, $all['cost']['half'], 1);
    }

    public function testWhoFetchesTakesWhatIsDueAndSaysWhatItKnows(): void
    {
        $id = $this->source(['from' => ['address' => 'https://quay.example/sailings.json']]);
        $this->ask('PUT', "/api/sources/$id/headers", ['headers' => ['Authorization' => 'Bearer tide']]);
        $this->source(['from' => ['address' => 'http://trap.example/']]);
        $asked = [];
        $client = new MockHttpClient(static function (string $method, string $url, array $options) use (&$asked): MockResponse {
            $asked[] = [$url, array_values(array_filter($options['headers'], static fn (string $one): bool => preg_match('/^(?:Authorization|If-None-Match)/i', $one) === 1))];

            return count($asked) === 1
                ? new MockResponse(self::SAILINGS, ['response_headers' => ['ETag' => '"1"']])
                : new MockResponse('', ['http_code' => 304]);
        });
        $this->fetchDue($client);
        $this->fetchDue($client);
        self::assertSame(['fresh', 'failing'], array_column($this->ask('GET', '/api/data')[1]['sources'], 'status'));
        static::mockTime('2026-06-01T09:05:00Z');
        $this->fetchDue($client);
        self::assertSame([
            ['https://quay.example/sailings.json', ['Authorization: Bearer tide']],
            ['https://quay.example/sailings.json', ['If-None-Match: "1"', 'Authorization: Bearer tide']],
        ], $asked, 'what leads inside is never asked');
        self::assertSame(['same', 'read'], array_column($this->ask('GET', "/api/sources/$id/state")[1]['fetches'], 'outcome'));
    }

    public function testRowsAreChosenAtAnyInstantAndOfAnyFetch(): void
    {
        $id = $this->source(['from' => ['address' => 'https://quay.example/sailings.json'], 'zone' => 'Europe/Lisbon']);
        self::assertSame(0, $this->rows($id)['count'], 'nothing is there yet');
        $this->came($id, self::SAILINGS);
        static::mockTime('2026-06-01T09:05:00Z');
        $this->came($id, '{"sailings": []}');
        $first = array_column($this->ask('GET', "/api/sources/$id/state")[1]['fetches'], 'id')[1];
        self::assertSame(0, $this->rows($id)['count']);
        $rows = $this->rows($id, ['fetch' => $first, 'at' => '2026-06-01T08:00:00Z']);
        self::assertSame([['to' => 'Vennick', 'departs' => '2026-06-01T08:30:00Z', 'berth' => null], ['to' => 'Tolm', 'departs' => '2026-06-01T16:05:00Z', 'berth' => 2]], $rows['rows']);
        self::assertSame([2, 3, 1, ['to', 'departs', 'berth'], '2026-06-01T08:30:00Z'], [$rows['count'], $rows['nodes'], $rows['unreadable'], $rows['fields'], $rows['changes_at']]);
        self::assertSame([422, '/rows/path'], $this->refused('/api/rows', ['rows' => ['source' => $id, 'path' => 'sailings']]));
        self::assertSame([422, '/rows/source'], $this->refused('/api/rows', ['rows' => ['source' => 'nobody']]));
        self::assertSame('data.unknown', $this->ask('POST', '/api/rows', ['rows' => ['source' => 'nobody']])[1]['error']['code']);
        foreach (['2026-03-29T01:30' => '2026-03-29T01:30:00Z', '2026-10-25T01:30' => '2026-10-25T00:30:00Z', '2026-06-01T10:43' => '2026-06-01T09:43:00Z'] as $local => $instant) {
            self::assertSame($instant, $this->rows($id, ['at' => $local, 'timezone' => 'Europe/Lisbon'])['at'], $local);
        }
        self::assertSame([422, '/at'], $this->refused('/api/rows', ['rows' => ['source' => $id], 'at' => 'now']));

        $outline = $this->ask('POST', "/api/sources/$id/outline", ['fetch' => $first])[1]['outline'];
        $sailings = $outline['levels'][0];
        self::assertSame(['$.sailings', 'sailings', 1, ['list' => 1]], [$sailings['path'], $sailings['name'], $sailings['count'], $sailings['types']]);
        $each = $sailings['levels'][0];
        self::assertSame(['$.sailings[*]', 3, ['object' => 3]], [$each['path'], $each['count'], $each['types']]);
        self::assertSame(
            [['to', 3, 0, ['text' => 3]], ['departs', 3, 0, ['local' => 2, 'text' => 1]], ['berth', 2, 1, ['number' => 2]]],
            array_map(static fn (array $one): array => [$one['name'], $one['count'], $one['missing'], $one['types']], $each['levels']),
        );
        self::assertSame(['2026-06-01T17:05', '2026-06-01T09:30', 'soon'], $each['levels'][1]['examples']);
    }

    public function testATableIsKeptInTheSourceItself(): void
    {
        $id = $this->source(['from' => ['table' => [['ticket' => 'Car', 'price' => 24.5], ['ticket' => 'Foot', 'price' => null]]]]);
        self::assertSame('fresh', $this->state($id)['status']);
        self::assertSame([['ticket' => 'Car', 'price' => 24.5], ['ticket' => 'Foot', 'price' => null]], $this->ask('POST', '/api/rows', ['rows' => ['source' => $id]])[1]['rows']);
        self::assertSame(409, $this->ask('POST', "/api/sources/$id/fetch")[0]);
        self::assertSame([422, '/from/table/0/price'], $this->refused('/api/sources', ['name' => 'Prices', 'document' => ['from' => ['table' => [['price' => [1]]]]]]));
    }

    public function testAFileIsBroughtInOrRefusedWhole(): void
    {
        $id = $this->source(['from' => ['file' => 'lost.csv'], 'options' => ['delimiter' => ';']]);
        self::assertSame(200, $this->upload($id, "what;where\nUmbrella;Tolm\n", 'lost property.csv')[0]);
        self::assertSame([['what' => 'Umbrella', 'where' => 'Tolm']], $this->ask('POST', '/api/rows', ['rows' => ['source' => $id]])[1]['rows']);
        self::assertSame(['lost property.csv', 'fresh'], [$this->state($id)['file'], $this->state($id)['status']]);
        [$status, $answer] = $this->upload($id, "what;where\n\"Umbrella;Tolm\n", 'broken.csv');
        self::assertSame([422, 'data.unread'], [$status, $answer['error']['code']]);
        self::assertStringContainsString('"broken.csv" is not taken: Line 2, column 1', $answer['error']['message']);
        self::assertSame('lost property.csv', $this->state($id)['file']);
        self::assertSame(1, $this->ask('POST', '/api/rows', ['rows' => ['source' => $id]])[1]['count']);
    }

    public function testHeadersAreSealedAndNeverShown(): void
    {
        $id = $this->source(['from' => ['address' => 'https://quay.example/sailings.json']]);
        [$status, $answer] = $this->ask('PUT', "/api/sources/$id/headers", ['headers' => ['Authorization' => 'Bearer low tide']]);
        self::assertSame([200, ['Authorization']], [$status, $answer['sealed']]);
        $sealed = (string) self::states()->sealed($id);
        foreach (['/api/data', "/api/sources/$id/state", "/api/sources/$id", '/api/sources', "/api/record/source/$id"] as $path) {
            $this->ask('GET', $path);
            $text = (string) $this->client->getResponse()->getContent();
            self::assertStringNotContainsString('low tide', $text, $path);
            self::assertStringNotContainsString(substr($sealed, 0, 20), $text, $path);
        }
        self::assertStringNotContainsString('tide', $sealed);
        foreach ([['Host' => 'x'], ['A b' => 'x'], ['X' => "a\r\nB: c"], ['X' => '']] as $headers) {
            self::assertSame(422, $this->ask('PUT', "/api/sources/$id/headers", ['headers' => $headers])[0], (string) json_encode($headers));
        }
        self::assertSame([], $this->ask('PUT', "/api/sources/$id/headers", '{"headers": {}}')[1]['sealed'] ?? null);
        self::assertNull(self::states()->sealed($id));
    }

    public function testASourceGoesToTheBinAndComesBackWithWhatItSaid(): void
    {
        $id = $this->source(['from' => ['address' => 'https://quay.example/sailings.json'], 'zone' => 'Europe/Lisbon']);
        $this->came($id, self::SAILINGS);
        $this->ask('PUT', "/api/sources/$id/headers", ['headers' => ['X-Key' => 'tide']]);
        self::assertSame(204, $this->ask('DELETE', "/api/sources/$id")[0]);
        self::assertSame(404, $this->ask('GET', "/api/sources/$id/state")[0]);
        $this->pruned();
        $bin = $this->ask('GET', '/api/bin')[1]['binned'];
        self::assertSame('source', $bin[0]['kind']);
        self::assertSame(204, $this->ask('POST', "/api/bin/{$bin[0]['id']}/back")[0]);
        self::assertSame(['X-Key'], $this->state($id)['sealed']);
        self::assertSame(2, $this->rows($id)['count']);
    }

    public function testOldFetchesAreForgottenButTheLastGoodOne(): void
    {
        $id = $this->source(['from' => ['address' => 'https://quay.example/sailings.json'], 'zone' => 'Europe/Lisbon']);
        $this->came($id, self::SAILINGS);
        static::mockTime('2026-07-01T09:00:00Z');
        $this->came($id, null, 500, 'The server answers 500.');
        $this->pruned();
        self::assertSame(['failed'], array_column($this->ask('GET', "/api/sources/$id/state")[1]['fetches'], 'outcome'));
        self::assertSame(2, $this->rows($id)['count']);
    }

    public function testTheBenchIsToldOrSaidToBeAway(): void
    {
        $told = [];
        $client = new MockHttpClient(static function (string $method, string $url, array $options) use (&$told): MockResponse {
            $told[] = [$method, $url, $options['body'] ?? ''];

            return match (count($told)) {
                1 => new MockResponse('{"notices.xml": "well"}'),
                2 => new MockResponse('{"notices.xml": "slow"}'),
                3 => new MockResponse('{}', ['http_code' => 422]),
                default => new MockResponse('', ['error' => 'refused']),
            };
        });
        $bench = new BenchController($client, 'http://feeds.test');
        $tell = static fn (string $feeds): string => (string) $bench->tell(Request::create('/', 'PUT', server: ['CONTENT_TYPE' => 'application/json'], content: "{\"feeds\": $feeds}"))->getContent();
        self::assertStringContainsString('"notices.xml":"well"', (string) $bench->show()->getContent());
        self::assertStringContainsString('"notices.xml":"slow"', $tell('{"notices.xml": "slow"}'));
        self::assertSame(['PUT', 'http://feeds.test/switches', '{"notices.xml":"slow"}'], $told[1]);
        foreach (['names a feed or a switch', 'The feeds of the Bench do not answer'] as $why) {
            try {
                $tell('{"x": "slow"}');
                self::fail($why);
            } catch (Refused | Problem $e) {
                self::assertStringContainsString($why, $e->getMessage());
            }
        }
    }

    /** Of another shape all rows would be gone that screens tell: the last good one stays. An empty list is no other shape, and what nobody tells may come as it likes. */
    public function testWhatComesInAnotherShapeIsNotTakenWhereRowsOfItAreTold(): void
    {
        $id = $this->source(['from' => ['address' => 'https://quay.example/a']]);
        self::assertNull($this->came($id, self::SAILINGS));
        $other = '{"data": {"list": [{"destination": "Tolm"}]}}';
        self::assertNull($this->came($id, $other), 'nobody tells it');
        self::assertNull($this->came($id, self::SAILINGS));
        $rows = ['source' => $id, 'path' => '$.sailings[*]', 'fields' => ['to' => '$.to', 'at' => '$.departs']];
        $this->made(Make::layout([Make::told('t', '{to}', rows: $rows)]));

        self::assertStringContainsString('What came has no $.sailings, of which rows are told', (string) $this->came($id, $other));
        self::assertStringContainsString('no $.sailings[*].to,', (string) $this->came($id, '{"sailings": [{"destination": "Tolm"}]}'));
        self::assertCount(2, $this->rows($id)['rows'], 'the last good one stays');
        self::assertNull($this->came($id, '{"sailings": [{"to": null}]}'), 'a field that is not known is there');
        self::assertNull($this->came($id, self::SAILINGS));
        self::assertNull($this->came($id, '{"sailings": []}'), 'no sailings are no other shape');
        self::assertNull($this->came($id, self::SAILINGS));
        // Once something is changed at the source it is meant.
        $document = $this->ask('GET', "/api/sources/$id")[1]['document'];
        self::assertSame(200, $this->ask('PUT', "/api/sources/$id", ['base' => 1, 'document' => ['as' => 'json'] + $document])[0]);
        self::assertNull($this->came($id, $other));
    }

    public function testASourceHasRevisionsAndALateOneIsKeptAside(): void
    {
        $id = $this->source(['from' => ['address' => 'https://quay.example/a']]);
        $whole = $this->ask('GET', "/api/sources/$id")[1];
        self::assertSame(200, $this->ask('PUT', "/api/sources/$id", ['base' => 1, 'document' => ['every_s' => 60] + $whole['document']])[0]);
        self::assertSame(409, $this->ask('PUT', "/api/sources/$id", ['base' => 1, 'document' => ['every_s' => 90] + $whole['document']])[0]);
        self::assertSame([422, '/every_s'], $this->refused("/api/sources/$id", ['base' => 2, 'document' => ['every_s' => 1] + $whole['document']], 'PUT'));
        self::assertSame([60, 'Sailings'], [$this->state($id)['every_s'], $this->state($id)['name']]);
        $this->came($id, self::SAILINGS);
        self::assertSame(200, $this->ask('PUT', "/api/sources/$id", ['base' => 2, 'document' => $whole['document']])[0]);
        self::assertNull($this->came($id, "to\nTolm\n"), 'what was changed may come in another format');
        self::assertSame([422, '/source/kind'], $this->refused('/api/handover', ['source' => ['kind' => 'source', 'id' => $id], 'displays' => ['wide']]), 'data are not handed over');
    }

    private static function states(): SourceStates
    {
        return static::getContainer()->get(SourceStates::class);
    }

    private function pruned(): void
    {
        static::getContainer()->get(PruneSources::class)->run();
    }

    /** @param array<string, mixed> $document */
    private function source(array $document): string
    {
        [$status, $answer] = $this->ask('POST', '/api/sources', ['name' => 'Sailings', 'document' => $document]);
        self::assertSame(201, $status, (string) json_encode($answer));

        return $answer['id'];
    }

    private function came(string $id, ?string $bytes, int $status = 200, ?string $why = null): ?string
    {
        $document = $this->ask('GET', "/api/sources/$id")[1]['document'];

        return static::getContainer()->get(Snapshots::class)->take($document, new Fetched($status, $bytes, strlen((string) $bytes), 12, $why));
    }

    /** @return array<string, mixed> */
    private function state(string $id): array
    {
        return $this->ask('GET', "/api/sources/$id/state")[1];
    }

    /** @return array{string, ?string, ?string, ?string} */
    private function told(string $id): array
    {
        $state = $this->state($id);

        return [$state['status'], $state['taken_at'], $state['due_at'], $state['failing_since']];
    }

    /**
     * @param array<string, mixed> $more
     * @return array<string, mixed>
     */
    private function rows(string $id, array $more = []): array
    {
        $rows = [
            'source' => $id, 'path' => '$.sailings[*]', 'fields' => ['to' => '$.to', 'departs' => ['of' => '$.departs', 'type' => 'local'], 'berth' => '$.berth'],
            'where' => [['field' => 'departs', 'is' => 'upcoming', 'from_min' => 0, 'to_min' => 100_000]], 'sort' => [['by' => 'departs']],
        ];
        [$status, $answer] = $this->ask('POST', '/api/rows', ['rows' => $rows, 'at' => '2026-06-01T00:00:00Z', 'timezone' => 'UTC', ...$more]);
        self::assertSame(200, $status, (string) json_encode($answer));

        return $answer;
    }

    /**
     * @param array<string, mixed> $body
     * @return array{int, ?string}
     */
    private function refused(string $path, array $body, string $method = 'POST'): array
    {
        [$status, $answer] = $this->ask($method, $path, $body);

        return [$status, $answer['error']['path'] ?? null];
    }

    /** @return array{int, array<string, mixed>} */
    private function upload(string $id, string $bytes, string $name): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'data');
        file_put_contents($file, $bytes);
        $this->client->request('POST', "/api/sources/$id/file", files: ['file' => new UploadedFile($file, $name, test: true)], server: ['HTTP_X_CSRF_TOKEN' => $this->csrf]);

        return [$this->client->getResponse()->getStatusCode(), (array) json_decode((string) $this->client->getResponse()->getContent(), true)];
    }
}
