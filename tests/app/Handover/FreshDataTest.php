<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Handover;

use UpperPane\App\Data\Fetched;
use UpperPane\App\Data\Snapshots;
use UpperPane\App\Data\SourceStates;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Handover\FreshData;
use UpperPane\App\Layout\Design;
use UpperPane\App\Playback\Pointers;
use UpperPane\Core\Handover\Sheet;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Playback\SheetReader;

/** What sources tell comes to the displays without a new handover: at the end of a page, once for all that are alike, and never anything wrong. */
final class FreshDataTest extends ApiTestCase
{
    private const PAGE_MS = 4000;

    private string $source;

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
        $hall = $this->entities()->find(Place::class, 'hall') ?? throw new \LogicException();
        $this->entities()->persist(new SurveyedDisplay('other', $hall, ['id' => 'other', 'name' => 'Other'] + Make::display(), 2));
        $this->entities()->flush();
        $document = ['from' => ['address' => 'https://quay.example/boats.json'], 'every_s' => 60, 'stale_after_s' => 600];
        $this->source = $this->ask('POST', '/api/sources', ['name' => 'Boats', 'document' => $document])[1]['id'];
    }

    public function testNewDataFollowAtTheEndOfAPageOnAllDisplaysThatAreAlike(): void
    {
        $this->came('[{"to": "Tolm"}, {"to": "Vennick"}, {"to": "Great Pellan"}]');
        $this->handedOver();
        $first = $this->manifest('wide');
        self::assertSame(['Tolm', 'Vennick', 'Great Pellan'], array_map($this->told(...), [0, 4000, 8000]));

        static::mockTime('+61 seconds');
        $this->came('[{"to": "Hare Skerry"}, {"to": "Vennick"}]');
        self::assertGreaterThan(0, $this->bringsData());
        $now = 1000 * self::now()->getTimestamp();
        // Until all players have it, what stood there goes on; then the page that stands ends.
        $from = $now + 5000;
        $ends = $from + (self::PAGE_MS - $from % self::PAGE_MS) % self::PAGE_MS;
        $told = array_map(fn (int $ms): string => $this->told($ms - $now + 61_000), [$now, $ends - 1, $ends, $ends + self::PAGE_MS, $ends + 2 * self::PAGE_MS]);
        self::assertContains($told[0], ['Tolm', 'Vennick', 'Great Pellan']);
        self::assertContains($told[1], ['Tolm', 'Vennick', 'Great Pellan']);
        self::assertSame(['Hare Skerry', 'Vennick', 'Hare Skerry'], array_slice($told, 2));
        self::assertNotSame($first['planes'], $this->manifest('wide')['planes']);
        self::assertSame($this->manifest('wide'), $this->manifest('other'), 'one compilation for both');
        self::assertSame(1, $this->ask('GET', '/api/displays/wide/releases')[1]['current'], 'it is the same release');
    }

    public function testWhatSaysTheSameIsTheSameSheetAndWhatFailsLeavesTheLastGoodOne(): void
    {
        $this->came('{"taken": 1, "boats": [{"to": "Tolm"}]}');
        $this->handedOver('$.boats[*]');
        $this->bringsData();
        $before = $this->manifest('wide')['planes'];
        static::mockTime('+60 seconds');
        $this->came('{"taken": 2, "boats": [{"to": "Tolm"}]}');
        self::assertSame(0, $this->bringsData(), 'the rows are the same');
        self::assertSame($before, $this->manifest('wide')['planes']);
        foreach ([null, '', 'Back soon', '{"boats": ['] as $bytes) {
            static::mockTime('+10 seconds');
            $this->came($bytes, $bytes === null ? 'The server answers 500.' : null);
            $this->bringsData();
            self::assertSame('Tolm', $this->told(200_000), (string) $bytes);
        }
    }

    /** While all is well its age need not be told at every fetch; once it fails, players know to the moment when it is too old. */
    public function testPlayersKnowWhenDataAreTooOld(): void
    {
        $this->came('[{"to": "Tolm"}]');
        $this->handedOver(more: ['stale' => ['elements' => [Make::told('late', 'Ask at the desk')]]]);
        $this->bringsData();
        static::mockTime('+250 seconds');
        $this->came('[{"to": "Tolm"}]');
        $this->bringsData();
        self::assertSame('Ask at the desk', $this->told(600_001), 'as it was told at first');
        static::mockTime('+60 seconds');
        $this->came(null, 'The server answers 500.');
        $this->bringsData();
        self::assertSame(['Tolm', 'Ask at the desk'], [$this->told(850_000), $this->told(850_001)], '600 s after it was read last');
        static::mockTime('+300 seconds');
        $this->came('[{"to": "Vennick"}]');
        $this->bringsData();
        self::assertSame('Vennick', $this->told(910_000), 'it is there again');
    }

    public function testTodaySaysWhichSourcesThatDisplaysTellAreInTrouble(): void
    {
        $this->came('[{"to": "Tolm"}]');
        static::mockTime('+3 hours');
        self::assertCount(0, $this->trouble(), 'nobody tells it yet');
        static::mockTime('-3 hours');
        $this->handedOver();
        self::assertCount(0, $this->trouble());
        static::mockTime('+3 hours');
        $this->came(null, 'The server answers 500.');
        $told = $this->trouble();
        self::assertSame(['source.stale'], array_column($told, 'code'));
        self::assertSame([$this->source, 2], [$told[0]['measure']['source'], $told[0]['measure']['displays']]);
        self::assertStringEndsWith('2 displays tell it.', $told[0]['message']);
    }

    public function testATableThatIsTypedIsToldAsSoonAsItIsSaved(): void
    {
        $table = static fn (string $to): array => ['from' => ['table' => [['to' => $to]]]];
        $this->source = $this->ask('POST', '/api/sources', ['name' => 'Notices', 'document' => $table('Tolm')])[1]['id'];
        $this->handedOver();
        $this->bringsData();
        self::assertSame('Tolm', $this->told(0));
        static::mockTime('+30 seconds');
        $document = $this->ask('GET', "/api/sources/$this->source")[1]['document'];
        self::assertSame(200, $this->ask('PUT', "/api/sources/$this->source", ['base' => 1, 'document' => $table('Vennick') + $document])[0]);
        $this->bringsData();
        self::assertSame('Vennick', $this->told(40_000));
        self::assertFalse($this->estate()['displays'][0]['saved_not_handed_over'], 'nothing needs to be handed over for it');
    }

    /** The keeper runs on, and holds what it has read: saved anew by others meanwhile, the source is told as it is saved, not as it was read. */
    public function testWhatOthersSaveMeanwhileIsTold(): void
    {
        $table = static fn (string $to): array => ['from' => ['table' => [['to' => $to]]]];
        $this->source = $this->ask('POST', '/api/sources', ['name' => 'Notices', 'document' => $table('Tolm')])[1]['id'];
        $this->handedOver();
        $this->bringsData();
        $before = $this->ask('GET', "/api/sources/$this->source")[1]['document'];
        static::mockTime('+30 seconds');
        self::assertSame(200, $this->ask('PUT', "/api/sources/$this->source", ['base' => 1, 'document' => $table('Vennick') + $before])[0]);
        // As it stood before, read by the keeper for something else.
        $held = $this->entities()->find(Design::class, $this->source) ?? throw new \LogicException();
        $held->document = $before;
        static::getContainer()->get(FreshData::class)->doDue();
        static::getContainer()->get(Pointers::class)->doDue();
        self::assertSame('Vennick', $this->told(40_000));

        $states = static::getContainer()->get(SourceStates::class);
        $then = $states->of($this->source) ?? throw new \LogicException();
        $states->telling($this->source);
        self::assertContains($this->source, $states->untold(), 'one that is killed while it tells');
        $states->tellsAnew($this->source);
        $states->told($this->source, $then->takenMs, $then);
        self::assertContains($this->source, $states->untold(), 'one that means something else since');
        $states->telling($this->source);
        $states->told($this->source, $then->takenMs, $then);
        self::assertNotContains($this->source, $states->untold());
    }

    /** An item that plays row by row goes on where it is: what runs ends, and the same rows are the same items, however often a source tells them. */
    public function testWhatPlaysRowByRowGoesOnAsDataCome(): void
    {
        $rows = static fn (string ...$names): string => (string) json_encode(array_map(static fn (string $to): array => ['to' => $to], $names));
        $this->came($rows('Tolm', 'Vennick', 'Pellan'));
        $each = ['id' => 'e', 'duration_ms' => 7000, 'each' => ['source' => $this->source], 'layout' => array_diff_key(Make::layout([Make::told('to', '{to}')], id: 'offer'), ['x' => 1])];
        $layout = $this->made(Make::layout([Make::zone('z', 0, 0, 1920, 1080, [$each])]));
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout['id']], 'displays' => ['wide', 'other']]);
        $this->bringsData();
        $said = [];
        $names = ['Tolm', 'Vennick', 'Pellan'];
        foreach ([['Tolm', 'Pellan'], ['Tolm', 'Pellan', 'Skerry'], ['Skerry', 'Tolm'], ['Quay']] as $round => $next) {
            static::mockTime('+30 seconds');
            $now = 30_000 * ($round + 1);
            // Until what is new counts all goes on as it did, and the item that runs then ends.
            $before = array_map($this->told(...), range($now, $now + 5000, 250));
            $this->came($rows(...$next));
            $this->bringsData();
            self::assertSame($before, array_map($this->told(...), range($now, $now + 5000, 250)), "round $round");
            $running = $this->told($now + 5000);
            for ($ends = $now + 5000; $this->told($ends) === $running && $ends < $now + 12_000; $ends += 250) {
            }
            $said[] = [$running, $this->told($ends)];
            self::assertContains($running, $names);
            self::assertContains($this->told($ends), $next);
            $names = $next;
            // Told twice more in other bytes, nothing is ever another than it was.
            $goesOn = array_map($this->told(...), range($now + 8000, $now + 60_000, 1000));
            foreach ([8, 8] as $later => $seconds) {
                static::mockTime("+$seconds seconds");
                $this->came(str_repeat(' ', $later + 1) . $rows(...$next));
                $this->bringsData();
                self::assertSame(array_slice($goesOn, $later * 8), array_map($this->told(...), range($now + 8000 * ($later + 1), $now + 60_000, 1000)), "round $round, again $later");
            }
            static::mockTime('-16 seconds');
        }
        self::assertSame('Quay', $this->told(150_000));
        self::assertSame('Skerry', $said[1][0] === 'Pellan' ? $said[1][1] : 'Skerry', 'what is new lies where it is told');
    }

    /** A booking begins and ends as its rows come and go, on the desk and on players, and also when a source tells something else. */
    public function testABookingIsDueWhileItsRowsAreChosen(): void
    {
        $this->came('[]');
        $words = fn (string $text): array => ['layout' => $this->made(Make::layout([Make::told('t', $text, message: false)]))['id']];
        $booking = ['id' => 'late', 'plays' => $words('Boats are late'), 'rank' => 'everyday', 'start' => '2026-06-01T00:00:00', 'end' => '2026-06-02T00:00:00'];
        $when = ['rows' => ['source' => $this->source, 'where' => [['field' => 'to', 'is' => 'present'], ['field' => 'late', 'is' => 'upcoming', 'to_min' => 60]]]];
        $document = ['timezone' => 'UTC', 'standby' => $words('All is well'), 'bookings' => [['when' => $when] + $booking]];
        $schedule = $this->ask('POST', '/api/schedules', ['name' => 'Quay', 'place' => 'hall', 'document' => $document])[1];
        $this->handOver(['source' => ['kind' => 'schedule', 'id' => $schedule['id']], 'displays' => ['wide', 'other']]);
        $this->bringsData();
        self::assertSame(['All is well', 'All is well'], [$this->told(0), $this->told(100_000)]);

        static::mockTime('+61 seconds');
        $this->came('[{"to": "Tolm", "late": "2026-06-01T09:03:00Z"}]');
        self::assertGreaterThan(0, $this->bringsData());
        $told = array_map($this->told(...), [65_999, 66_000, 179_999, 180_000]);
        self::assertSame(['All is well', 'Boats are late', 'Boats are late', 'All is well'], $told, '5 s after it came, and until the boat has left');
        $plays = $this->ask('POST', '/api/plays', ['schedule' => $schedule['id'], 'from' => '2026-06-01T09:02:00Z', 'to' => '2026-06-01T10:00:00Z'])[1];
        self::assertSame([['late', '2026-06-01T09:03:00Z'], [null, '2026-06-01T10:00:00Z']], array_map(static fn (array $one): array => [$one['booking'], $one['to']], $plays['plays']));
        self::assertStringEndsWith('only while its rows are chosen', $plays['bookings'][0]['said']);
        self::assertSame(409, $this->ask('DELETE', "/api/sources/$this->source")[0], 'a schedule looks at it');
    }

    public function testASourceThatIsUsedStays(): void
    {
        $this->came('[]');
        $this->handedOver();
        $told = array_column($this->ask('GET', '/api/sources')[1]['sources'], 'standing', 'id')[$this->source];
        self::assertSame([2, 0], [$told['displays'], $told['older']], 'it is told on both');
        self::assertSame([409, 'design.used'], [$this->ask('DELETE', "/api/sources/$this->source")[0], $this->ask('DELETE', "/api/sources/$this->source")[1]['error']['code']]);
    }

    /** @return list<array<string, mixed>> what Today says of sources */
    private function trouble(): array
    {
        return array_values(array_filter($this->ask('GET', '/api/estate')[1]['findings'], static fn (array $one): bool => str_starts_with($one['code'], 'source.')));
    }

    private function came(?string $bytes, ?string $why = null): void
    {
        $document = $this->ask('GET', "/api/sources/$this->source")[1]['document'];
        static::getContainer()->get(Snapshots::class)->take($document, new Fetched($why === null ? 200 : 500, $bytes, strlen((string) $bytes), 12, $why));
    }

    /** @param array<string, mixed> $more fields of the board */
    private function handedOver(string $path = '$[*]', array $more = []): void
    {
        $board = $more + Make::board('{to}', 100, 100, page_ms: self::PAGE_MS, at_most: 1);
        $board['rows'] = ['source' => $this->source, 'path' => $path, 'fields' => ['to' => '$.to']];
        $layout = $this->made(Make::layout([$board]));
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout['id']], 'displays' => ['wide', 'other']]);
    }

    /** @return int how many were compiled anew */
    private function bringsData(): int
    {
        $done = static::getContainer()->get(FreshData::class)->doDue();
        static::getContainer()->get(Pointers::class)->doDue();
        $this->entities()->clear();

        return $done;
    }

    /** What stands on the board so many ms after ten in the morning. */
    private function told(int $ms): string
    {
        $read = fn (string $url): array => (array) json_decode($this->published()->read(ltrim($url, '/')), true);
        $sheet = Sheet::inOne($read($this->manifest('wide')['planes']['base']['sheet']['url']), static fn (string $sha256): array => $read(Sheet::path($sha256)));

        return implode(' ', array_column(SheetReader::things($sheet, (int) strtotime('2026-06-01T09:00:00Z') * 1000 + $ms), 'text'));
    }

    /** @return array<string, mixed> */
    private function manifest(string $display): array
    {
        $file = $this->entities()->getConnection()->fetchOne('SELECT r.file FROM handed_release r JOIN surveyed_display s ON s.current_id = r.id WHERE s.id = ?', [$display]);

        return (array) json_decode($this->published()->read(is_string($file) ? $file : ''), true);
    }
}
