<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Component\Console\Event\ConsoleAlarmEvent;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Messenger\Event\WorkerRunningEvent;
use Symfony\Component\Messenger\Event\WorkerStartedEvent;

/** Each worker notes now and then that it lives, also in the middle of a long job; by a connection of its own, whatever transaction that is in. */
final class Heartbeat
{
    private const EVERY_MS = 5_000;

    private string $name = '';
    private int $lastMs = 0;

    public function __construct(#[Autowire(service: 'app.jobs_connection')] private readonly Connection $connection, private readonly ClockInterface $clock)
    {
    }

    #[AsEventListener]
    public function started(WorkerStartedEvent $event): void
    {
        $this->name = implode(' ', array_filter($event->getWorker()->getMetadata()->getTransportNames(), is_string(...)));
        $this->beat($this->name);
    }

    #[AsEventListener(WorkerRunningEvent::class)]
    #[AsEventListener(ConsoleAlarmEvent::class)]
    public function running(): void
    {
        if ($this->name !== '') {
            $this->beat($this->name);
        }
    }

    /** @param string $name of a worker */
    public function beat(string $name): void
    {
        $now = (int) $this->clock->now()->format('Uv');
        if ($now - $this->lastMs >= self::EVERY_MS) {
            $this->connection->executeStatement('REPLACE INTO worker_beat (name, beat_ms) VALUES (?, ?)', [$name, $now]);
            $this->lastMs = $now;
        }
    }
}
