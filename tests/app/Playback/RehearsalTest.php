<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Playback;

use UpperPane\App\Data\Fetched;
use UpperPane\App\Data\Snapshots;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Playback\SheetReader;

/** What would be seen, when something is next seen, and what is known of a release afterwards. */
final class RehearsalTest extends ApiTestCase
{
    public function testANightOnWhichTheClocksChangeIsRehearsedBeforeAnythingIsHandedOver(): void
    {
        $this->signIn();
        $this->schedule();
        [$status, $told] = $this->ask('POST', '/api/rehearsal', ['display' => 'wide', 'from' => '2026-10-25T00:30:00', 'to' => '2026-10-25T03:30:00']);

        self::assertSame([200, 'schedule', 'Europe/Lisbon', '2026-10-24T23:30:00Z', '2026-10-25T03:30:00Z'], [$status, $told['source']['kind'], $told['timezone'], $told['from'], $told['to']]);
        self::assertSame([['at' => '2026-10-25T01:00:00Z', 'shift_s' => -3600]], $told['clock_changes']);
        self::assertSame(
            [['2026-10-24T23:30:00Z', 'Night'], ['2026-10-25T00:30:00Z', 'Late'], ['2026-10-25T02:00:00Z', 'Night']],
            array_map(static fn (array $one): array => [$one['from'], $one['name']], array_values(array_filter($told['course'], static fn (array $one): bool => $one['zone'] === null))),
            'from 01:30 for the first time to 02:00, an hour and a half later',
        );
        foreach (['2026-10-24T23:45:00Z' => 'quay', '2026-10-25T01:15:00Z' => 'pier', '2026-10-25T03:00:00Z' => 'quay'] as $at => $media) {
            self::assertSame($media, SheetReader::things($told['release']['run_sheet'], 1000 * (int) strtotime($at))[1]['media']['id'] ?? null, $at);
        }
        $items = $this->ask('POST', '/api/rehearsal', ['display' => 'wide', 'from' => '2026-10-25T00:30:00', 'to' => '2026-10-25T03:30:00', 'items' => true])[1];
        self::assertContains('item', array_column($items['course'], 'kind'));
        self::assertNotNull($items['release']);
        $alone = $this->ask('POST', '/api/rehearsal', ['display' => 'wide', 'from' => '2026-10-25T00:30:00', 'to' => '2026-10-25T03:30:00', 'items' => true, 'course_only' => true])[1];
        self::assertSame([$items['course'], null], [$alone['course'], $alone['release']]);
        // Another display is looked at together with it, at the same instants.
        $other = $this->ask('POST', '/api/rehearsal', ['display' => 'tall', 'from' => $told['from'], 'to' => $told['to']])[1];
        self::assertSame([$told['from'], null, [], null], [$other['from'], $other['source'], $other['course'], $other['release']], 'nothing stands there, and no schedule rules');
    }

    public function testWhatIsNamedIsRehearsedAndNonsenseIsRefused(): void
    {
        $this->signIn();
        $layout = $this->made($this->whole($this->media()), 'Morning')['id'];
        $told = $this->ask('POST', '/api/rehearsal', ['display' => 'wide', 'source' => ['kind' => 'layout', 'id' => $layout]])[1];
        self::assertSame(['Morning', 24 * 3600], [$told['source']['name'], strtotime($told['to']) - strtotime($told['from'])]);
        self::assertSame('Morning', $told['course'][0]['name']);
        $wrong = [
            [404, 'not.found', ['display' => 'none']],
            [422, 'value.range', ['display' => 'wide', 'from' => '2026-10-25T03:00:00', 'to' => '2026-10-25T03:00:00']],
            [422, 'value.range', ['display' => 'wide', 'from' => '2026-10-25T03:00:00', 'to' => '2027-10-25T03:00:00']],
            [422, 'value.range', ['display' => 'wide', 'from' => 'tomorrow']],
            [404, 'not.found', ['display' => 'wide', 'source' => ['kind' => 'layout', 'id' => 'none']]],
        ];
        foreach ($wrong as [$status, $code, $body]) {
            [$got, $answer] = $this->ask('POST', '/api/rehearsal', $body);
            self::assertSame([$status, $code], [$got, $answer['error']['code']], (string) json_encode($body));
        }
    }

    /** Any kept fetch of a source can stand there, so that one sees what a bad day looked like. */
    public function testWhatASourceToldOnceIsRehearsed(): void
    {
        $this->signIn();
        $source = $this->ask('POST', '/api/sources', ['name' => 'Boats', 'document' => ['from' => ['address' => 'https://quay.example/boats.json'], 'every_s' => 60]])[1]['id'];
        $came = function (string $bytes) use ($source): void {
            $document = $this->ask('GET', "/api/sources/$source")[1]['document'];
            static::getContainer()->get(Snapshots::class)->take($document, new Fetched(200, $bytes, strlen($bytes), 12, null));
        };
        foreach (['[{"to": "Tolm"}]', '[{"to": "Vennick"}]', '[]'] as $bytes) {
            $came($bytes);
            static::mockTime('+60 seconds');
        }
        $text = Make::told('t', '{to}', rows: ['source' => $source]);
        $layout = $this->made(Make::layout([$text]))['id'];
        $body = ['display' => 'wide', 'source' => ['kind' => 'layout', 'id' => $layout], 'items' => true];
        $ask = fn (array $fetches): array => $this->ask('POST', '/api/rehearsal', $body + ['fetches' => (object) $fetches])[1];
        $kept = array_column($this->ask('GET', "/api/sources/$source/state")[1]['fetches'], 'id');
        $now = $ask([]);
        self::assertSame([['id' => $source, 'name' => 'Boats']], $now['sources']);
        $said = static fn (array $told): array => array_column(array_filter($told['course'], static fn (array $one): bool => $one['kind'] === 'rows'), 'name');
        self::assertContains('rows of "Boats"', array_column($now['course'], 'why'));
        self::assertSame('no rows', $said($now)[count($said($now)) - 1]);
        self::assertSame([['1 row: Vennick'], ['1 row: Tolm']], [$said($ask([$source => $kept[1]])), $said($ask([$source => $kept[2]]))]);
        $things = SheetReader::things($ask([$source => $kept[2]])['release']['run_sheet'], (int) strtotime('2026-06-01T12:00:00Z') * 1000);
        self::assertSame(['Tolm'], array_values(array_filter(array_column($things, 'text'))));
        foreach ([[[$source => 9_999], 409, 'fetch.gone'], [[$source => 'first'], 422, 'type.wrong']] as [$fetches, $status, $code]) {
            [$got, $answer] = $this->ask('POST', '/api/rehearsal', $body + ['fetches' => $fetches]);
            self::assertSame([$status, $code], [$got, $answer['error']['code']]);
        }
    }

    public function testAllChangesOfADayAreATable(): void
    {
        $this->signIn();
        $this->schedule();
        $this->client->request('GET', '/api/rehearsal/changes.csv?display=wide,tall&from=2026-10-25T00:00:00&to=2026-10-25T03:00:00');
        $answer = $this->client->getResponse();
        self::assertSame([200, 'text/csv; charset=utf-8'], [$answer->getStatusCode(), $answer->headers->get('Content-Type')]);
        $rows = array_map(static fn (string $line): array => str_getcsv($line, escape: ''), explode("\n", trim((string) $answer->getContent())));
        self::assertSame(['display', 'zone', 'from', 'to', 'time zone', 'from UTC', 'to UTC', 'kind', 'plays', 'booking', 'why'], $rows[0]);
        $night = ['2026-10-25 01:30:00', '2026-10-25 02:00:00', 'Europe/Lisbon', '2026-10-25T00:30:00Z', '2026-10-25T02:00:00Z'];
        self::assertContains(['Wide', '', ...$night, 'layout', 'Late', 'late', 'everyday booking "Late boat"'], $rows);
        $this->client->request('GET', '/api/rehearsal/changes.csv');
        self::assertSame(404, $this->client->getResponse()->getStatusCode());
    }

    public function testEverythingSavedSaysWhereItIsFirstShownOrWhyNever(): void
    {
        $this->signIn();
        [$schedule, $late, $night] = $this->schedule();
        self::assertSame('unhanded', $this->says("layouts/$late")['never']);
        self::assertStringStartsWith('Not handed over: by schedule "Hall" it would be seen on Wide from', $this->says("layouts/$late")['says']);
        self::assertSame(['never' => 'unhanded', 'says' => 'It is not handed over: on Wide something else stands.', 'on' => []], $this->says("schedules/$schedule"));
        $alone = $this->made($this->whole($this->media('alone')), 'Alone')['id'];
        self::assertSame('unattached', $this->says("layouts/$alone")['never']);
        self::assertSame(['unhanded', 'It is in "Alone", which is handed over to no display.'], array_slice(array_values($this->says('media/alone')), 0, 2));

        $this->handOver(['source' => ['kind' => 'schedule', 'id' => $schedule], 'displays' => ['wide']]);
        self::assertSame(['Wide'], $this->says("schedules/$schedule")['on']);
        self::assertSame(['Wide'], $this->says("layouts/$late")['on']);
        self::assertSame(['Wide'], $this->says('media/pier')['on']);
        $seen = $this->ask('GET', "/api/layouts/$night/first-shown")[1]['seen'][0];
        self::assertSame(['wide', 'Europe/Lisbon', false], [$seen['display'], $seen['timezone'], $seen['older']]);
        self::assertSame(404, $this->ask('GET', '/api/layouts/none/first-shown')[0]);
        self::assertSame(404, $this->ask('GET', "/api/playlists/$late/first-shown")[0]);
        self::assertSame(404, $this->ask('GET', '/api/media/none/first-shown')[0]);

        // It is outranked from now on: saved, it never comes.
        $document = $this->ask('GET', "/api/schedules/$schedule")[1]['document'];
        $document['bookings'][] = ['id' => 'all', 'name' => 'All day', 'plays' => ['layout' => $night], 'rank' => 'takeover']
            + ['start' => '2026-01-01T00:00:00', 'end' => '2026-01-02T00:00:00', 'rrule' => 'FREQ=DAILY'];
        $this->ask('PUT', "/api/schedules/$schedule", ['base' => 1, 'document' => $document]);
        self::assertSame(['never' => 'outranked', 'says' => 'Booking "Late boat" never gets its turn: "All day" goes before it.', 'on' => []], $this->says("layouts/$late"));
    }

    public function testAReleaseIsOlderWhenAnythingThatPlaysInItIsChangedAndNotWhenItIsTheSameAgain(): void
    {
        $this->signIn();
        [$schedule, $late] = $this->schedule();
        $this->handOver(['source' => ['kind' => 'schedule', 'id' => $schedule], 'displays' => ['wide']]);
        self::assertFalse($this->wide()['saved_not_handed_over']);
        self::assertNull($this->wide()['planned'], 'three months are far away');
        self::assertSame('Night', $this->wide()['release']['planned']['then']);
        self::assertContains($this->wide()['due'], [
            ['plays' => 'Night', 'booking' => null, 'why' => 'standby: no booking is due'],
            ['plays' => 'Late', 'booking' => 'Late boat', 'why' => 'everyday booking "Late boat"'],
        ], 'what is due now, whatever the time is');

        $document = $this->ask('GET', "/api/layouts/$late")[1]['document'];
        $this->ask('PUT', "/api/layouts/$late", ['base' => 1, 'document' => ['background' => ['color' => '#123456']] + $document]);
        self::assertTrue($this->wide()['saved_not_handed_over'], 'a layout that is booked has changed');
        $this->ask('PUT', "/api/layouts/$late", ['base' => 2, 'document' => $document]);
        self::assertFalse($this->wide()['saved_not_handed_over'], 'it is as it was');

        $this->entities()->getConnection()->executeStatement('UPDATE handed_release SET planned_until = ?', [self::now('+36 hours')->format('Y-m-d H:i:s')]);
        $found = array_column($this->estate()['findings'], null, 'code')['release.ends'];
        $said = 'What is planned ends in a day; from then on the standby "Night" plays. Hand over again.';
        self::assertSame(['warning', ['wide'], "Wide: $said", $said], [$found['level'], $found['elements'], $found['message'], $this->wide()['planned']]);
    }

    public function testDisplaysOfAPlaceAreToldTogetherAndEachInItsOwnZone(): void
    {
        $this->signIn();
        [$day, $night] = [$this->media()->id, $this->media('quay')->id];
        [$wide, $tall] = array_map(fn (string $id): SurveyedDisplay => $this->entities()->find(SurveyedDisplay::class, $id) ?? self::fail("no $id"), ['wide', 'tall']);
        $tall->take(['timezone' => 'Pacific/Chatham'] + $tall->document, new \DateTimeImmutable('2026-01-01'), null);
        $tall->hang($wide->place);
        $this->entities()->flush();
        // Booked for now as Lisbon has it; half the world away that hour is another one.
        $booking = ['id' => 'b', 'name' => 'Now there', 'plays' => ['media' => $day], 'rank' => 'everyday', 'rrule' => 'FREQ=DAILY', 'start' => '2026-01-01T10:00:00', 'end' => '2026-01-01T12:00:00'];
        $schedule = $this->ask('POST', '/api/schedules', ['name' => 'Place', 'place' => $wide->place->id, 'document' => [
            'format' => Schedule::FORMAT, 'timezone' => 'Europe/Lisbon', 'standby' => ['media' => $night], 'bookings' => [$booking],
        ]])[1]['id'];
        $this->handOver(['source' => ['kind' => 'schedule', 'id' => $schedule], 'displays' => ['wide', 'tall']]);
        $due = fn (): array => array_column($this->estate()['displays'], 'due', 'id');
        self::assertSame(['everyday booking "Now there"', 'standby: no booking is due'], [$due()['wide']['why'], $due()['tall']['why']]);
        self::assertStringStartsWith('pier', $due()['wide']['plays']);
        $seen = fn (string $media): array => array_column($this->ask('GET', "/api/media/$media/first-shown")[1]['seen'], 'at', 'display');
        self::assertSame(['wide', 'tall'], array_keys($seen($day)), 'the earlier first');
        self::assertGreaterThan(3600, strtotime($seen($day)['tall']) - strtotime($seen($day)['wide']));
        self::assertSame(['tall', 'wide'], array_keys($seen($night)));

        // One of its own rules there beside that of the place: what it books is told of it alone.
        $takeover = ['id' => 'o', 'name' => 'Own', 'plays' => ['media' => $day], 'rank' => 'takeover', 'start' => '2026-01-01T00:00:00', 'end' => '2030-01-01T00:00:00'];
        $this->ask('POST', '/api/schedules', ['name' => 'Own', 'display' => 'wide', 'document' => ['format' => Schedule::FORMAT, 'timezone' => 'Europe/Lisbon', 'bookings' => [$takeover]]]);
        self::assertSame('takeover booking "Own"', $due()['wide']['why']);
        self::assertSame(['tall'], array_keys($seen($night)));
    }

    /**
     * @phpstan-impure
     * @return array{never: ?string, says: string, on: list<string>}
     */
    private function says(string $path): array
    {
        $answer = $this->ask('GET', "/api/$path/first-shown")[1];

        return ['never' => $answer['never'], 'says' => $answer['says'], 'on' => array_column($answer['seen'], 'name')];
    }

    /**
     * @phpstan-impure
     * @return array<string, mixed> what the estate says of the display
     */
    private function wide(): array
    {
        return array_column($this->estate()['displays'], null, 'id')['wide'];
    }

    /** @return array{string, string, string} ids of the schedule, of the layout booked late, and of the standby */
    private function schedule(): array
    {
        $late = $this->made($this->whole($this->media()), 'Late')['id'];
        $night = $this->made($this->whole($this->media('quay')), 'Night')['id'];
        self::assertNotNull($this->entities()->find(SurveyedDisplay::class, 'wide'));
        $id = $this->ask('POST', '/api/schedules', ['name' => 'Hall', 'display' => 'wide', 'document' => [
            'format' => Schedule::FORMAT, 'timezone' => 'Europe/Lisbon', 'standby' => ['layout' => $night],
            'bookings' => [['id' => 'late', 'name' => 'Late boat', 'plays' => ['layout' => $late], 'rank' => 'everyday']
                + ['start' => '2026-01-01T01:30:00', 'end' => '2026-01-01T02:00:00', 'rrule' => 'FREQ=DAILY']],
        ]])[1]['id'];

        return [$id, $late, $night];
    }
}
