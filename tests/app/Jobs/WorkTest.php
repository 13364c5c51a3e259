<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Jobs;

use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\EventDispatcher\EventDispatcherInterface;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Event\WorkerMessageFailedEvent;
use Symfony\Component\Messenger\Stamp\RedeliveryStamp;
use UpperPane\App\Jobs\Chore;
use UpperPane\App\Jobs\Chores;
use UpperPane\App\Jobs\Heartbeat;
use UpperPane\App\Jobs\Keep;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Media\ProbeMedia;
use UpperPane\App\Playback\Pointers;
use UpperPane\Tests\App\ApiTestCase;

final class WorkTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testWhatFailsForGoodSaysSoOnItsThingAndIsTriedAgain(): void
    {
        $asset = $this->waiting();
        $this->fails('No room on the disk.');
        $media = $this->ask('GET', '/api/media')[1]['media'][0];
        self::assertSame(['failed', 'It could not be looked into: No room on the disk.'], [$media['state'], $media['refusal']]);

        $work = $this->ask('GET', '/api/work')[1];
        self::assertSame(['Looking into "quay.png"', 'No room on the disk.'], [$work['failed'][0]['says'], $work['failed'][0]['why']]);
        self::assertContains('job.failed', array_column($work['findings'], 'code'));
        self::assertSame(1, $this->ask('GET', '/api/health')[1]['failed_jobs']);

        self::assertSame(204, $this->ask('POST', "/api/work/failed/{$work['failed'][0]['id']}/again")[0]);
        $work = $this->ask('GET', '/api/work')[1];
        self::assertSame([[], [['probe', 1]]], [$work['failed'], array_map(static fn (array $queue): array => [$queue['queue'], $queue['waiting']], $work['queues'])]);
        self::assertSame('waiting', $this->ask('GET', '/api/media')[1]['media'][0]['state']);
        $this->work();
        self::assertSame('failed', $this->ask('GET', '/api/media')[1]['media'][0]['state'], 'its bytes are not there: it never waits for ever');
        self::assertSame(202, $this->ask('POST', "/api/media/$asset->id/again")[0]);
        self::assertSame(409, $this->ask('POST', "/api/media/$asset->id/again")[0]);
    }

    public function testAJobThatFailedIsDropped(): void
    {
        $this->waiting();
        $this->fails('No.');
        $id = $this->ask('GET', '/api/work')[1]['failed'][0]['id'];
        self::assertSame(204, $this->ask('DELETE', "/api/work/failed/$id")[0]);
        self::assertSame(404, $this->ask('DELETE', "/api/work/failed/$id")[0]);
        self::assertSame([], $this->ask('GET', '/api/work')[1]['failed']);
    }

    public function testAWorkerIsHeardAndAJobThatWaitsIsTold(): void
    {
        static::getContainer()->get(Heartbeat::class)->beat('release');
        $this->waiting();
        static::mockTime('+50 seconds');
        $health = $this->ask('GET', '/api/health')[1];
        self::assertSame(['probe' => null, 'release' => 50, 'keeper' => null, 'renewer' => null, 'fetcher' => null], $health['workers_heard_s_ago']);
        self::assertSame(50, $health['oldest_job_s']);
        static::mockTime('+120 seconds');
        self::assertContains('A job has waited for 2 min.', array_column($this->estate()['findings'], 'message'));
    }

    public function testTheKeeperWritesPointersThatAreDue(): void
    {
        $player = $this->player('wide');
        $keep = new CommandTester(static::getContainer()->get(Keep::class));
        $keep->execute(['as' => 'renewer', '--seconds' => '0']);
        self::assertFalse($this->published()->fileExists("pointers/$player->secret.json"), 'who compiles has other work');
        self::assertSame(['renewer'], $this->entities()->getConnection()->fetchFirstColumn('SELECT name FROM worker_beat'));
        static::mockTime('+10 seconds');
        $keep->execute(['--seconds' => '0']);
        self::assertTrue($this->published()->fileExists("pointers/$player->secret.json"));
        $this->published()->delete("pointers/$player->secret.json");
        $keep->execute(['--seconds' => '0', '--all' => true]);
        self::assertTrue($this->published()->fileExists("pointers/$player->secret.json"), 'held against the database');
        self::assertSame(0, static::getContainer()->get(Pointers::class)->doDue());
        self::assertSame(0, $this->ask('GET', '/api/health')[1]['workers_heard_s_ago']['keeper']);
    }

    public function testWhatIsDoneDailyIsDoneOnceADayAndAgainSoonWhereItFailed(): void
    {
        $chore = new class () implements Chore {
            public int $times = 0;
            public bool $isBroken = false;

            public static function name(): string
            {
                return 'sweeping';
            }

            public static function everyS(): int
            {
                return 86_400;
            }

            public function run(): void
            {
                $this->times++;
                $this->isBroken && throw new \RuntimeException('The broom broke.');
            }
        };
        $given = static::getContainer();
        $chores = new Chores([$chore], $this->entities()->getConnection(), $given->get('clock'), $given->get('logger'));
        self::assertSame([['sweeping'], []], [$chores->doDue(), $chores->doDue()]);
        static::mockTime('+1 day');
        $chore->isBroken = true;
        self::assertSame([[], []], [$chores->doDue(), $chores->doDue()]);
        self::assertSame([2, 'The broom broke.'], [$chore->times, $this->ask('GET', '/api/work')[1]['chores'][0]['trouble']]);
        self::assertContains('chore.failed', array_column($this->estate()['findings'], 'code'));
        static::mockTime('+1 hour');
        $chore->isBroken = false;
        self::assertSame(['sweeping'], $chores->doDue());
        self::assertNull($this->ask('GET', '/api/work')[1]['chores'][0]['trouble']);
    }

    private function waiting(): MediaAsset
    {
        $asset = new MediaAsset('quay', 'quay.png', 10, self::now());
        $this->entities()->persist($asset);
        $this->entities()->flush();
        static::getContainer()->get('messenger.transport.probe')->send(new Envelope(new ProbeMedia('quay')));

        return $asset;
    }

    /** As a worker does when the last try has failed. */
    private function fails(string $why): void
    {
        $probe = static::getContainer()->get('messenger.transport.probe');
        [$envelope] = [...$probe->get()];
        $event = new WorkerMessageFailedEvent($envelope->with(new RedeliveryStamp(2)), 'probe', new \RuntimeException($why));
        static::getContainer()->get(EventDispatcherInterface::class)->dispatch($event);
        $probe->ack($envelope);
        $this->entities()->clear();
    }
}
