<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Jobs;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Stamp\DelayStamp;
use Symfony\Component\Messenger\Stamp\TransportMessageIdStamp;
use Symfony\Component\Messenger\Transport\Serialization\PhpSerializer;
use UpperPane\App\Jobs\TableTransport;
use UpperPane\App\Jobs\TableTransportFactory;
use UpperPane\App\Media\ProbeMedia;
use UpperPane\Tests\App\ApiTestCase;

final class TableTransportTest extends ApiTestCase
{
    public function testAJobIsGivenOutOnceAndGoneWhenItIsDone(): void
    {
        $queue = $this->queue();
        $queue->send(new Envelope(new ProbeMedia('first')));
        $queue->send(new Envelope(new ProbeMedia('second')));
        self::assertSame(2, $queue->getMessageCount());

        [$first] = [...$queue->get()];
        [$second] = [...$queue->get()];
        self::assertSame(['first', 'second'], [$this->asset($first), $this->asset($second)]);
        self::assertSame([], [...$queue->get()], 'both are in somebody’s hands');

        $queue->ack($first);
        $queue->reject($second);
        self::assertSame(0, $queue->getMessageCount());
    }

    public function testADelayedJobWaits(): void
    {
        $queue = $this->queue();
        $queue->send(new Envelope(new ProbeMedia('later'), [new DelayStamp(60_000)]));

        self::assertSame([], [...$queue->get()]);
        self::assertSame(1, $queue->getMessageCount());
    }

    public function testAJobOfAKilledWorkerIsGivenOutAgainAfterAWhile(): void
    {
        $queue = $this->queue();
        $queue->send(new Envelope(new ProbeMedia('once')));
        self::assertCount(1, [...$queue->get()]);
        static::mockTime('+150 seconds');
        [$again] = [...$queue->get()];
        self::assertSame('once', $this->asset($again));
    }

    public function testWhoeverLivesRenewsHisLease(): void
    {
        $queue = $this->queue();
        $queue->send(new Envelope(new ProbeMedia('long')));
        [$envelope] = [...$queue->get()];
        static::mockTime('+100 seconds');
        $queue->keepalive($envelope, 30);
        static::mockTime('+100 seconds');
        self::assertSame([], [...$queue->get()]);
        static::mockTime('+50 seconds');
        self::assertCount(1, [...$queue->get()]);
    }

    public function testJobsThatWaitCanBeListed(): void
    {
        $queue = $this->queue();
        $id = $queue->send(new Envelope(new ProbeMedia('listed')))->last(TransportMessageIdStamp::class)?->getId();
        self::assertSame(['listed'], array_map($this->asset(...), [...$queue->all()]));
        self::assertSame('listed', $this->asset($queue->find($id) ?? throw new \LogicException()));
        self::assertNull($queue->find(0));
    }

    public function testQueuesAreApartAndChosenByTheirDsn(): void
    {
        $factory = static::getContainer()->get(TableTransportFactory::class);
        self::assertTrue($factory->supports('table://default?queue=failed', []));
        self::assertFalse($factory->supports('redis://localhost', []));
        $failed = $factory->createTransport('table://default?queue=failed', [], new PhpSerializer());
        $failed->send(new Envelope(new ProbeMedia('x')));

        self::assertSame([], [...$this->queue()->get()]);
        self::assertCount(1, [...$failed->get()]);
    }

    private function queue(): TableTransport
    {
        $connection = static::getContainer()->get(Connection::class);

        return new TableTransport($connection, $connection, new PhpSerializer(), 'trial', 150, static::getContainer()->get(ClockInterface::class));
    }

    private function asset(Envelope $envelope): string
    {
        $job = $envelope->getMessage();

        return $job instanceof ProbeMedia ? $job->assetId : '';
    }
}
