<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Playback;

use UpperPane\App\Playback\SeenThings;
use UpperPane\App\Storage\Prune;
use UpperPane\Tests\App\ApiTestCase;

/** What players say they drew, told by display, day and thing. */
final class SeenTest extends ApiTestCase
{
    public function testWhatWasSeenIsAddedUpByDayAndThing(): void
    {
        $this->signIn();
        $player = $this->player('wide');
        self::assertSame([], $this->ask('GET', '/api/displays/wide/seen')[1]['days']);
        self::assertSame(204, $this->said($player->secret, 'b1', [
            self::seen('main:i1', '2026-06-01T08:00:00Z', 30),
            self::seen('main:i2', '2026-06-01T08:00:10Z', 29, 1),
            self::seen('main:i1', '2026-05-31T12:00:00Z', 7),
        ]));
        // Its answer was lost, and it says the same again, then more.
        $this->said($player->secret, 'b1', [self::seen('main:i1', '2026-06-01T08:00:00Z', 30)]);
        $this->said($player->secret, 'b2', [self::seen('main:i1', '2026-06-01T08:15:00Z', 3)]);

        [, $told] = $this->ask('GET', '/api/displays/wide/seen');
        self::assertSame([['2026-06-01', 2, 62, 1], ['2026-05-31', 1, 7, 0]], array_map(array_values(...), $told['days']));
        self::assertSame('2026-06-01', $told['day']);
        $things = array_map(static fn (array $one): array => [$one['item'], $one['media'], $one['times'], $one['ms'], $one['missed'], $one['first'], $one['last']], $told['things']);
        self::assertSame([
            ['i1', 'main:i1.png', 33, 330_000, 0, '2026-06-01T08:00:00Z', '2026-06-01T08:15:30Z'],
            ['i2', 'main:i2.png', 29, 290_000, 1, '2026-06-01T08:00:10Z', '2026-06-01T08:05:00Z'],
        ], $things);
        self::assertSame([7], array_column($this->ask('GET', '/api/displays/wide/seen?day=2026-05-31')[1]['things'], 'times'));
        self::assertSame([], $this->ask('GET', '/api/displays/wide/seen?day=2026-01-01')[1]['things']);
        self::assertSame([422, '/day'], [$this->ask('GET', '/api/displays/wide/seen?day=june')[0], $this->ask('GET', '/api/displays/wide/seen?day=june')[1]['error']['path']]);
        self::assertSame(404, $this->ask('GET', '/api/displays/none/seen')[0]);
        $this->client->request('GET', '/api/displays/wide/seen-2026-05-31.csv');
        self::assertSame(
            "display,day,element,item,media,times,ms,missed,missed_ms,first,last\n"
            . "Wide,2026-05-31,main,i1,main:i1.png,7,70000,0,0,2026-05-31T12:00:00Z,2026-05-31T12:01:10Z\n",
            $this->client->getResponse()->getContent(),
        );
    }

    /** A wrong clock is not believed; and after thirty days nobody asks any more. */
    public function testWhatCannotBeIsLeftOutAndWhatIsOldIsPruned(): void
    {
        $this->signIn();
        $player = $this->player('wide');
        $this->said($player->secret, 'b1', [
            self::seen('a', '1970-01-02T00:00:00Z', 1),
            self::seen('a', '2026-06-03T00:00:00Z', 1),
            self::seen('a', '2026-04-20T00:00:00Z', 1),
            self::seen('a', '2026-05-03T00:00:00Z', 1),
        ]);
        $days = fn (): array => array_column($this->ask('GET', '/api/displays/wide/seen')[1]['days'], 'day');
        self::assertSame(['2026-05-03'], $days());
        static::mockTime('2026-06-03T09:00:00Z');
        static::getContainer()->get(Prune::class)->run();
        self::assertSame([], $days());
    }

    /** A page that makes things up fills no disk. */
    public function testOfADayNoMoreIsKeptThanADisplayCanShow(): void
    {
        $this->signIn();
        $player = $this->player('wide');
        $connection = $this->entities()->getConnection();
        $connection->executeStatement(
            "INSERT INTO seen_thing SELECT 'wide', '2026-06-01', 1, LPAD(seq, 32, '0'), seq, 'main', NULL, NULL, 0, 0, 1, 1, 0, 0 FROM seq_1_to_" . (SeenThings::MOST_A_DAY - 1),
        );
        $this->said($player->secret, 'b1', array_map(static fn (int $n): array => self::seen("x$n", '2026-06-01T08:00:00Z', 1), range(10, 30)));
        $rows = static fn (): mixed => $connection->fetchOne("SELECT COUNT(*) FROM seen_thing WHERE display_id = 'wide'");
        self::assertSame(SeenThings::MOST_A_DAY, $rows());
        $this->said($player->secret, 'b2', [self::seen('x99', '2026-05-31T08:00:00Z', 1)]);
        self::assertSame(SeenThings::MOST_A_DAY + 1, $rows(), 'another day has room of its own');
    }

    public function testTroublesAreToldByElementAndItemAndTheMachineInSentences(): void
    {
        $this->signIn();
        $player = $this->player('wide');
        $this->reports($player->secret, [
            'format' => 'upper-pane/report@1', 'release' => null, 'trouble' => '"quay.mp4" cannot be decoded (main, i3)',
            'troubles' => [['of' => 'part main:i3', 'says' => '"quay.mp4" cannot be decoded', 'element' => 'main', 'item' => 'i3']],
            'clock_ms' => 200, 'kept_bytes' => 1000, 'room_bytes' => 3_000_000_000,
        ]);
        [, $told] = $this->ask('GET', '/api/displays/wide/seen');
        self::assertCount(1, $told['players']);
        self::assertSame([['of' => 'part main:i3', 'says' => '"quay.mp4" cannot be decoded', 'element' => 'main', 'item' => 'i3']], $told['players'][0]['troubles']);
        self::assertSame(['Its clock is right to the second.', 'It keeps 1 kB of the 3.0 GB that its browser lets it keep.'], $told['players'][0]['machine']);
        $this->reports($player->secret, ['release' => null, 'trouble' => 'A page of before.']);
        self::assertSame([['of' => 'all', 'says' => 'A page of before.']], $this->ask('GET', '/api/displays/wide/seen')[1]['players'][0]['troubles']);
    }

    /** @param list<array<string, mixed>> $seen */
    private function said(string $secret, string $batch, array $seen): int
    {
        return $this->reports($secret, ['format' => 'upper-pane/report@1', 'release' => null, 'batch' => ['id' => $batch, 'seen' => $seen]]);
    }

    /** @return array<string, mixed> so many turns of 10 s, one after the other */
    private static function seen(string $id, string $first, int $times, int $missed = 0): array
    {
        $last = gmdate('Y-m-d\TH:i:s\Z', (int) strtotime($first) + 10 * $times);

        return [
            'id' => $id, 'element' => 'main', 'item' => substr($id, -2), 'media' => "$id.png", 'quarter' => $first, 'first' => $first, 'last' => $last,
            'times' => $times, 'ms' => 10_000 * $times, 'missed' => $missed, 'missed_ms' => 10_000 * $missed,
        ];
    }
}
