<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Jobs;

use Doctrine\DBAL\Connection;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Stamp\DelayStamp;
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
        // A quarter of an hour passes.
        static::getContainer()->get(Connection::class)->executeStatement('UPDATE job SET due_ms = due_ms - 900001');

        [$again] = [...$queue->get()];
        self::assertSame('once', $this->asset($again));
    }

    public function testQueuesAreApartAndChosenByTheirDsn(): void
    {
        $factory = new TableTransportFactory(static::getContainer()->get(Connection::class));
        self::assertTrue($factory->supports('table://default?queue=failed', []));
        self::assertFalse($factory->supports('redis://localhost', []));
        $failed = $factory->createTransport('table://default?queue=failed', [], new PhpSerializer());
        $failed->send(new Envelope(new ProbeMedia('x')));

        self::assertSame([], [...$this->queue()->get()]);
        self::assertCount(1, [...$failed->get()]);
    }

    private function queue(): TableTransport
    {
        return new TableTransport(static::getContainer()->get(Connection::class), new PhpSerializer(), 'jobs');
    }

    private function asset(Envelope $envelope): string
    {
        $job = $envelope->getMessage();

        return $job instanceof ProbeMedia ? $job->assetId : '';
    }
}
