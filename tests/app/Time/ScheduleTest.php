<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Time;

use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Layout\Design;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Playback\SheetReader;

/** Schedules from the API to the bytes that are handed over. */
final class ScheduleTest extends ApiTestCase
{
    private const DAY = ['id' => 'day', 'name' => 'Day', 'rank' => 'everyday', 'start' => '2026-01-01T06:00:00', 'end' => '2026-01-01T22:00:00', 'rrule' => 'FREQ=DAILY'];

    public function testAScheduleIsADesignThatRulesOnADisplayOrInAPlace(): void
    {
        $this->signIn();
        $layout = $this->made($this->whole($this->media()))['id'];
        $document = $this->document($layout);
        [$status, $made] = $this->ask('POST', '/api/schedules', ['name' => 'Hall', 'document' => $document, 'display' => 'wide']);
        self::assertSame([201, 'schedule', 'wide', null, 1], [$status, $made['kind'], $made['display'], $made['place'], $made['revision']]);

        self::assertSame([409, 'schedule.exists'], $this->refused('POST', '/api/schedules', ['name' => 'Other', 'document' => $document, 'display' => 'wide']));
        self::assertSame([422, 'field.missing'], $this->refused('POST', '/api/schedules', ['name' => 'Other', 'document' => $document]));
        self::assertSame([422, 'ref.unknown'], $this->refused('POST', '/api/schedules', ['name' => 'Other', 'document' => $document, 'place' => 'nowhere']));
        self::assertSame([422, 'ref.unknown'], $this->refused('POST', '/api/schedules', ['name' => 'Other', 'document' => $this->document('gone'), 'place' => 'estate']));
        self::assertSame([409, 'design.used'], $this->refused('DELETE', "/api/layouts/$layout"), 'it is booked');

        $moved = $made['document'];
        $moved['bookings'][0]['start'] = '2026-01-01T07:00:00';
        self::assertSame(2, $this->ask('PUT', "/api/schedules/{$made['id']}", ['base' => 1, 'document' => $moved])[1]['revision']);
        self::assertSame(2, $this->ask('PUT', "/api/schedules/{$made['id']}", ['base' => 1, 'document' => $moved])[1]['revision'], 'asked again: it had landed');
        $moved['bookings'][0]['start'] = '2026-01-01T08:00:00';
        self::assertSame([409, 'revision.stale'], $this->refused('PUT', "/api/schedules/{$made['id']}", ['base' => 1, 'document' => $moved]), 'two people move the same booking');
        $moved['bookings'][0]['end'] = '2026-01-01T05:00:00';
        self::assertSame([422, 'value.range'], $this->refused('PUT', "/api/schedules/{$made['id']}", ['base' => 2, 'document' => $moved]));
        self::assertSame(['Hall'], array_column($this->ask('GET', '/api/schedules')[1]['schedules'], 'name'));
    }

    public function testWhatReallyPlaysIsToldWithTheDaysOfTheDisplay(): void
    {
        $this->signIn();
        $layout = $this->made($this->whole($this->media()), 'Hall day')['id'];
        $id = $this->ask('POST', '/api/schedules', ['name' => 'Hall', 'document' => $this->document($layout), 'display' => 'wide'])[1]['id'];
        [$status, $told] = $this->ask('POST', '/api/plays', ['schedule' => $id, 'from' => '2026-10-24T23:00:00Z', 'to' => '2026-10-27T00:00:00Z']);

        self::assertSame([200, 'Europe/Lisbon', 'wide'], [$status, $told['timezone'], $told['display']]);
        self::assertSame(['2026-10-25', '2026-10-26'], array_column($told['days'], 'date'));
        self::assertSame([[0, 0], [7_200_000, 60]], $told['days'][0]['steps'], 'at 01:00 UTC the clock goes back from 02:00 to 01:00');
        self::assertSame(['2026-10-25T06:00:00Z', '2026-10-25T22:00:00Z'], [$told['plays'][1]['from'], $told['plays'][1]['to']]);
        self::assertSame([null, 'day', null, 'day', null], array_column($told['plays'], 'booking'));
        self::assertSame('Hall day', $told['names']["layout:$layout"]);
        self::assertSame('2026-10-25T06:00:00Z', $told['bookings'][0]['occurrences'][0]['from']);
        self::assertSame([true, true], array_column($told['bookings'][0]['occurrences'], 'turn'));
        self::assertContains('schedule.gap', array_column($told['findings'], 'code'));

        // The Azores show midnight twice on that day: the first begins it.
        $azores = ['timezone' => 'Atlantic/Azores', 'id' => $id, 'name' => 'x'] + $this->document($layout);
        $display = $this->entities()->find(SurveyedDisplay::class, 'wide');
        self::assertNotNull($display);
        $display->take(['timezone' => 'Atlantic/Azores'] + $display->document, new \DateTimeImmutable('2026-01-01'), null);
        $this->entities()->flush();
        $there = $this->ask('POST', '/api/plays', ['schedule' => $id, 'document' => $azores, 'day' => '2026-10-25', 'days' => 1])[1];
        self::assertSame(['2026-10-25T00:00:00Z', '2026-10-26T01:00:00Z'], [$there['days'][0]['from'], $there['days'][0]['to']]);
        self::assertSame('2026-10-19', $this->ask('POST', '/api/plays', ['schedule' => $id, 'day' => '2026-10-25', 'days' => 7])[1]['days'][0]['date'], 'a week begins on Monday');

        $unsaved = ['bookings' => []] + $this->document($layout);
        $told = $this->ask('POST', '/api/plays', ['schedule' => $id, 'document' => ['id' => $id, 'name' => 'x'] + $unsaved, 'from' => '2026-10-24T23:00:00Z', 'to' => '2026-10-25T23:00:00Z'])[1];
        self::assertSame([null], array_column($told['plays'], 'booking'), 'as it stands, not as it is saved');
        self::assertSame(422, $this->ask('POST', '/api/plays', ['schedule' => $id, 'from' => '2026-10-24T23:00:00Z', 'to' => '2027-10-27T00:00:00Z'])[0]);
        self::assertSame(404, $this->ask('POST', '/api/plays', ['schedule' => 'none', 'from' => '2026-10-24T23:00:00Z', 'to' => '2026-10-25T00:00:00Z'])[0]);
    }

    public function testABookingSaysWhenItHasItsNextTurn(): void
    {
        $this->signIn();
        $layout = $this->made($this->whole($this->media()))['id'];
        $document = $this->document($layout);
        $document['bookings'][] = ['id' => 'once', 'name' => 'Once', 'plays' => ['layout' => $layout], 'rank' => 'dated', 'start' => '2020-01-01T06:00:00', 'end' => '2020-01-01T07:00:00'];
        $id = $this->ask('POST', '/api/schedules', ['name' => 'Hall', 'document' => $document, 'display' => 'wide'])[1]['id'];
        $first = $this->ask('POST', '/api/plays/first', ['schedule' => $id, 'booking' => 'day'])[1];
        self::assertSame(['2026-06-01T09:00:00Z', 'everyday booking "Day"'], [$first['at'], $first['why']]);
        self::assertSame(
            ['at' => null, 'never' => 'expired', 'why' => 'booking "Once" is over since 2020-01-01 07:00'],
            $this->ask('POST', '/api/plays/first', ['schedule' => $id, 'booking' => 'once'])[1],
        );
        self::assertSame(404, $this->ask('POST', '/api/plays/first', ['schedule' => $id, 'booking' => 'none'])[0]);
    }

    public function testOnADisplayItsOwnScheduleAndThoseOfItsPlacesStandTogether(): void
    {
        $this->signIn();
        $day = $this->made($this->whole($this->media()), 'Day')['id'];
        $night = $this->made($this->whole($this->media('quay')), 'Night')['id'];
        $display = $this->entities()->find(SurveyedDisplay::class, 'wide');
        self::assertNotNull($display);
        $place = $display->place->id;
        $this->ask('POST', '/api/schedules', ['name' => 'Place', 'place' => $place, 'document' => ['standby' => ['layout' => $night]] + $this->document($day)]);
        $own = $this->ask('POST', '/api/schedules', ['name' => 'Own', 'display' => 'wide', 'document' => [
            'bookings' => [['rank' => 'dated', 'start' => '2026-06-03T12:00:00', 'end' => '2026-06-03T13:00:00', 'plays' => ['media' => 'pier']] + array_diff_key(self::DAY, ['rrule' => 1])],
        ] + $this->document($day)])[1]['id'];
        $told = $this->ask('POST', '/api/plays', ['schedule' => $own, 'from' => '2026-06-02T23:00:00Z', 'to' => '2026-06-03T23:00:00Z'])[1];

        self::assertSame([['layout' => $night], ['layout' => $day], ['media' => 'pier'], ['layout' => $day], ['layout' => $night]], array_column($told['plays'], 'plays'));
        self::assertStringEndsWith('/day', $told['plays'][1]['booking'], 'of the place');
    }

    /** A yearly rule that would be worked out for hours is not saved; one that was saved before this was held opens, is told, and can be mended. */
    public function testARuleBeyondTheBoundsIsRefusedAndOneThatIsStoredHarmsNobody(): void
    {
        $this->signIn();
        $layout = $this->made($this->whole($this->media()), 'Day')['id'];
        $numbers = static fn (int $from, int $to): string => implode(',', range($from, $to));
        $endless = sprintf('FREQ=YEARLY;BYMONTH=%s;BYMONTHDAY=%s;BYHOUR=%s;BYMINUTE=%s;BYSECOND=%3$s;BYSETPOS=-1', $numbers(1, 12), $numbers(1, 31), $numbers(0, 23), $numbers(0, 59));
        $good = ['standby' => ['layout' => $layout]] + $this->document($layout);
        $bad = $good;
        $bad['bookings'][0]['rrule'] = $endless;
        foreach (['FREQ=SECONDLY' => '/bookings/0/rrule', $endless => '/bookings/0/rrule'] as $rule => $path) {
            $bad['bookings'][0]['rrule'] = $rule;
            [$status, $answer] = $this->ask('POST', '/api/schedules', ['name' => 'Bad', 'display' => 'wide', 'document' => $bad]);
            self::assertSame([422, 'budget.exceeded', $path], [$status, $answer['error']['code'], $answer['error']['path']]);
        }

        // Saved before: everybody else is answered as ever, and it can be made smaller.
        $id = $this->ask('POST', '/api/schedules', ['name' => 'Hall', 'display' => 'wide', 'document' => $good])[1]['id'];
        $this->handOver(['source' => ['kind' => 'schedule', 'id' => $id], 'displays' => ['wide']]);
        $stands = $this->ask('GET', '/api/displays/wide/releases')[1]['current'];
        $design = $this->entities()->find(Design::class, $id);
        self::assertNotNull($design);
        $design->document = ['bookings' => $bad['bookings']] + $design->document;
        $this->entities()->flush();
        $this->entities()->clear();

        $estate = $this->estate();
        self::assertStringContainsString('cannot be told: ', array_column($estate['displays'], 'due', 'id')['wide']['why']);
        self::assertSame(200, $this->ask('GET', "/api/layouts/$layout/first-shown")[0]);
        self::assertSame([409, 'handover.stopped'], $this->refused('POST', '/api/handover', ['source' => ['kind' => 'schedule', 'id' => $id], 'displays' => ['wide']]));
        self::assertSame($stands, $this->ask('GET', '/api/displays/wide/releases')[1]['current'], 'the display keeps what it has');
        [$status, $preview] = $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => 'schedule', 'id' => $id], 'displays' => ['wide']]);
        $offer = $preview['offers'][0];
        self::assertSame([200, null, 1, 'budget.exceeded'], [$status, $offer['match'], $offer['stops'], $offer['findings'][0]['code']], 'and says why, beside other displays');

        [$status, $opened] = $this->ask('GET', "/api/schedules/$id");
        self::assertSame(200, $status);
        $renamed = ['name' => 'Renamed'] + $opened['document'];
        self::assertSame(200, $this->ask('PUT', "/api/schedules/$id", ['base' => 1, 'document' => $renamed])[0], 'no worse');
        $worse = $renamed;
        $worse['bookings'][0]['rrule'] = 'FREQ=SECONDLY';
        self::assertSame([422, 'budget.exceeded'], $this->refused('PUT', "/api/schedules/$id", ['base' => 2, 'document' => $worse]));
        self::assertSame(200, $this->ask('PUT', "/api/schedules/$id", ['base' => 2, 'document' => $good + ['name' => 'Renamed']])[0], 'mended');
    }

    public function testWhatIsHandedOverIsPlayedByTheClockForThreeMonths(): void
    {
        $this->signIn();
        $item = ['id' => 'i1', 'media' => ['id' => $this->media()->id, 'name' => 'pier.png', 'width' => 1920, 'height' => 1080], 'duration_ms' => 9000];
        $layout = $this->made(Make::layout([Make::zone('main', 0, 0, 1920, 1080, [$item])]))['id'];
        $standby = $this->media('quay');
        $document = ['standby' => ['media' => $standby->id]] + $this->document($layout);
        $id = $this->ask('POST', '/api/schedules', ['name' => 'Hall', 'document' => $document, 'display' => 'wide'])[1]['id'];
        $source = ['kind' => 'schedule', 'id' => $id];
        [$offer] = $this->ask('POST', '/api/handover/preview', ['source' => $source, 'displays' => ['wide']])[1]['offers'];
        self::assertSame([0, ['The schedule "Hall" takes over, with 1 booking.'], 'exact'], [$offer['stops'], $offer['changes'], $offer['match']['verdict']]);

        [$handed] = $this->handOver(['source' => $source, 'displays' => ['wide']])['releases'];
        self::assertSame('schedule', $handed['source']['kind']);
        $release = $this->fetched($handed);
        self::assertSame([RunSheet::FORMAT, ['pier', 'quay']], [$release['run_sheet']['format'], array_column($release['media'], 'id')]);
        self::assertSame('2026-08-31T00:00:00Z', $release['planned']['to']);
        foreach ([7 => 'i1', 3 => 'i1', 23 => 'i1'] as $hour => $item) {
            $at = 1000 * (int) strtotime(sprintf('2026-06-06 %02d:30:00 Europe/Lisbon', $hour));
            $things = SheetReader::things($release['run_sheet'], $at);
            self::assertSame($hour === 7 ? 'main' : 'whole', $things[1]['element'], "at $hour:30");
            self::assertSame($item, $things[1]['item']);
        }
        self::assertTrue($this->ask('POST', '/api/handover/preview', ['source' => $source, 'displays' => ['wide']])[1]['offers'][0]['unchanged'], 'the same bytes again');
        self::assertSame([409, 'schedule.elsewhere'], $this->refused('POST', '/api/handover', ['source' => $source, 'displays' => ['tall']]));

        $booked = $this->ask('GET', "/api/schedules/$id")[1]['document'];
        $booked['bookings'][] = ['id' => 'late', 'name' => 'Late', 'plays' => ['media' => 'quay'], 'rank' => 'dated', 'start' => '2026-12-01T08:00:00', 'end' => '2026-12-01T09:00:00'];
        $this->ask('PUT', "/api/schedules/$id", ['base' => 1, 'document' => $booked]);
        [$offer] = $this->ask('POST', '/api/handover/preview', ['source' => $source, 'displays' => ['wide']])[1]['offers'];
        self::assertSame(['Added: booking "Late".'], $offer['changes']);

        self::assertStringStartsWith('quay', $offer['planned']['then']);
    }

    /** Acts on bookings and on the items of lists come back as documents; nothing is saved. */
    public function testActsComeBackAsDocuments(): void
    {
        $this->signIn();
        $document = ['format' => 'upper-pane/schedule@1', 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'bookings' => []];
        $made = $this->ask('POST', '/api/plays/act', ['document' => $document, 'act' => [
            'do' => 'make', 'plays' => ['layout' => 'x'], 'start' => '2026-06-01T09:00:00', 'end' => '2026-06-01T10:00:00',
        ]])[1];
        self::assertSame(['b1', 'dated', 'b1'], [$made['booking'], $made['document']['bookings'][0]['rank'], $made['document']['bookings'][0]['id']]);
        $daily = $this->ask('POST', '/api/plays/act', ['document' => $made['document'], 'act' => ['do' => 'repeat', 'booking' => 'b1', 'rrule' => 'FREQ=DAILY']])[1];
        self::assertSame('everyday', $daily['document']['bookings'][0]['rank']);
        self::assertSame([422, 'value.unknown'], $this->refused('POST', '/api/plays/act', ['document' => $document, 'act' => ['do' => 'fold']]));

        $items = $this->ask('POST', '/api/items', ['items' => [], 'taken' => ['i1'], 'act' => ['do' => 'add', 'items' => [['layout' => ['ref' => 'x']]]]])[1]['items'];
        self::assertSame([['id' => 'i2', 'layout' => ['ref' => 'x'], 'duration_ms' => 10_000, 'fit' => 'contain']], $items);
        self::assertSame([422, 'ref.unknown'], $this->refused('POST', '/api/items', ['items' => $items, 'act' => ['do' => 'move', 'item' => 'i9', 'by' => 1]]));
    }

    public function testFilesForOthersAndFromOthers(): void
    {
        $this->signIn();
        $layout = $this->made($this->whole($this->media()), 'Day')['id'];
        $id = $this->ask('POST', '/api/schedules', ['name' => 'Hall, week', 'document' => $this->document($layout), 'display' => 'wide'])[1]['id'];
        $this->client->request('GET', "/api/schedules/$id/calendar.ics");
        $answer = $this->client->getResponse();
        self::assertSame([200, 'text/calendar; charset=utf-8'], [$answer->getStatusCode(), $answer->headers->get('Content-Type')]);
        self::assertStringContainsString('attachment; filename="Hall, week.ics"', (string) $answer->headers->get('Content-Disposition'));
        $document = $this->ask('GET', "/api/schedules/$id")[1]['document'];
        $read = $this->ask('POST', '/api/plays/calendar', ['document' => $document, 'calendar' => (string) $answer->getContent(), 'timezone' => 'Europe/Lisbon', 'plays' => ['layout' => 'x']])[1];
        self::assertSame([1, ['day', 'b2']], [$read['count'], array_column($read['document']['bookings'], 'id')], 'behind what is booked');
        self::assertEquals(['id' => 'b2', 'plays' => ['layout' => $layout]] + self::DAY, $read['document']['bookings'][1]);
        foreach (['Europe/Lisbon' => 'calendar.syntax', 'Mars/Olympus' => 'value.unknown'] as $zone => $code) {
            $wrong = ['document' => $document, 'calendar' => 'x', 'timezone' => $zone, 'plays' => ['layout' => 'x']];
            self::assertSame([422, $code], $this->refused('POST', '/api/plays/calendar', $wrong));
        }

        $this->client->request('GET', "/api/schedules/$id/plan.csv?day=2026-10-25&days=1");
        $rows = array_map(static fn (string $line): array => str_getcsv($line, escape: ''), explode("\n", trim((string) $this->client->getResponse()->getContent())));
        self::assertSame(['display', 'zone', 'from', 'to', 'time zone', 'from UTC', 'to UTC', 'plays', 'booking', 'why'], $rows[0]);
        self::assertSame(
            ['Wide', '', '2026-10-25 06:00:00', '2026-10-25 22:00:00', 'Europe/Lisbon', '2026-10-25T06:00:00Z', '2026-10-25T22:00:00Z', 'Day', 'Day', 'everyday booking "Day"'],
            $rows[2],
        );
        self::assertCount(4, $rows);
        foreach (['day=2026-13-01' => 422, 'day=2026-10-25&days=90' => 422, 'day=2026-10-25&display=none' => 404] as $query => $status) {
            $this->client->request('GET', "/api/schedules/$id/plan.csv?$query");
            self::assertSame($status, $this->client->getResponse()->getStatusCode(), $query);
        }
    }

    public function testADesignIsWrittenAsSmilWithTheAddressesOfItsMedia(): void
    {
        $this->signIn();
        $asset = $this->media();
        $layout = $this->made($this->whole($asset), 'Day')['id'];
        $this->client->request('GET', "/api/layouts/$layout/design.smil");
        self::assertSame('application/smil+xml', $this->client->getResponse()->headers->get('Content-Type'));
        self::assertStringContainsString("src=\"http://localhost/$asset->file\"", (string) $this->client->getResponse()->getContent());
        self::assertSame(404, $this->ask('GET', "/api/playlists/$layout/design.smil")[0]);
    }

    public function testOneOccurrenceIsMovedByTheCoreAndNothingIsSaved(): void
    {
        $this->signIn();
        $document = ['id' => 's', 'name' => 'S'] + $this->document('x');
        $act = ['document' => $document, 'booking' => 'day', 'occurrence' => '2026-06-03T06:00:00', 'which' => 'one'];
        [$status, $answer] = $this->ask('POST', '/api/plays/edit', $act + ['start' => '2026-06-04T07:00:00', 'end' => '2026-06-04T08:00:00']);
        self::assertSame([200, ['2026-06-03T06:00:00'], '2026-06-04T07:00:00'], [$status, $answer['document']['bookings'][0]['exdates'], $answer['document']['bookings'][1]['start']]);
        self::assertSame([], $this->ask('POST', '/api/plays/edit', ['which' => 'all'] + $act)[1]['document']['bookings']);
        self::assertSame([422, 'occurrence.unknown'], $this->refused('POST', '/api/plays/edit', ['occurrence' => '2026-06-03T06:30:00'] + $act));
        self::assertSame([422, 'value.range'], $this->refused('POST', '/api/plays/edit', $act + ['start' => '2026-06-04T07:00:00', 'end' => '2026-06-04T07:00:00']));
        self::assertSame([], $this->ask('GET', '/api/schedules')[1]['schedules']);
    }

    /** @return array<string, mixed> */
    private function document(string $layout): array
    {
        return ['format' => Schedule::FORMAT, 'timezone' => 'Europe/Lisbon', 'bookings' => [['plays' => ['layout' => $layout]] + self::DAY]];
    }

    /**
     * @param array<string, mixed>|null $body
     * @return array{int, string}
     */
    private function refused(string $method, string $path, ?array $body = null): array
    {
        [$status, $answer] = $this->ask($method, $path, $body);

        return [$status, $answer['error']['code'] ?? ''];
    }
}
