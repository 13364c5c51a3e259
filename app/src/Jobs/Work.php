<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Stamp\ErrorDetailsStamp;
use Symfony\Component\Messenger\Stamp\RedeliveryStamp;
use Symfony\Component\Messenger\Stamp\TransportMessageIdStamp;
use Symfony\Component\Messenger\Transport\Receiver\ListableReceiverInterface;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Handover\WorkFacts;

/** What is known of the work behind the desk. */
final readonly class Work
{
    /** So many jobs that failed are told. */
    private const MOST_FAILED = 200;

    public function __construct(
        private Connection $connection,
        private Owners $owners,
        private ClockInterface $clock,
        #[Autowire(service: 'messenger.transport.failed')]
        private ListableReceiverInterface $failed,
    ) {
    }

    /** @return array<string, mixed> */
    public function told(): array
    {
        $facts = $this->facts();
        $failed = [];
        foreach ($this->failed->all(self::MOST_FAILED) as $envelope) {
            $failed[] = $this->failure($envelope);
        }

        return [
            'workers' => array_map(static fn (string $name, ?int $heardMs): array => ['name' => $name, 'heard_at' => self::instant($heardMs)], array_keys($facts->heardMs), $facts->heardMs),
            'queues' => $this->queues(),
            'failed' => $failed,
            'chores' => array_map(static fn (array $row): array => [
                'name' => $row['name'],
                'done_at' => self::instant(self::ms($row['done_ms'])),
                'next_at' => self::instant(self::ms($row['next_ms'])),
                'trouble' => $row['trouble'],
            ], $this->connection->fetchAllAssociative('SELECT name, done_ms, next_ms, trouble FROM chore ORDER BY name')),
            'findings' => array_map(static fn ($finding): array => $finding->toArray(), $facts->findings(1000 * $this->clock->now()->getTimestamp())),
        ];
    }

    public function facts(): WorkFacts
    {
        $heard = array_fill_keys(WorkFacts::WORKERS, null);
        foreach ($this->connection->fetchAllKeyValue('SELECT name, beat_ms FROM worker_beat') as $name => $ms) {
            if (array_key_exists($name, $heard)) {
                $heard[$name] = self::ms($ms);
            }
        }
        $oldest = $this->connection->fetchOne("SELECT MIN(due_ms) FROM job WHERE queue <> 'failed' AND due_ms <= ?", [1000 * $this->clock->now()->getTimestamp()]);
        $failed = $this->connection->fetchOne("SELECT COUNT(*) FROM job WHERE queue = 'failed'");
        $troubles = array_filter($this->connection->fetchAllKeyValue('SELECT name, trouble FROM chore WHERE trouble IS NOT NULL ORDER BY name'), is_string(...));

        return new WorkFacts($heard, self::ms($oldest), (int) self::ms($failed), $troubles);
    }

    public function again(string $id): void
    {
        $envelope = $this->failed->find($id) ?? throw Problem::notFound('This job');
        $this->connection->transactional(function (Connection $connection) use ($envelope, $id): void {
            $job = $envelope->getMessage();
            $this->owners->of($job)?->again($job);
            $connection->delete('job', ['id' => $id]);
        });
    }

    public function drop(string $id): void
    {
        $this->failed->reject($this->failed->find($id) ?? throw Problem::notFound('This job'));
    }

    /** @return list<array<string, mixed>> */
    private function queues(): array
    {
        $rows = $this->connection->fetchAllAssociative(
            "SELECT queue, SUM(due_ms <= ?) AS waiting, SUM(due_ms > ?) AS in_hand, MIN(noted_ms) AS oldest FROM job WHERE queue <> 'failed' GROUP BY queue ORDER BY queue",
            array_fill(0, 2, 1000 * $this->clock->now()->getTimestamp()),
        );

        return array_map(static fn (array $row): array => [
            'queue' => $row['queue'],
            'waiting' => (int) self::ms($row['waiting']),
            'in_hand' => (int) self::ms($row['in_hand']),
            'oldest_at' => self::instant(self::ms($row['oldest'])),
        ], $rows);
    }

    /** @return array<string, mixed> */
    private function failure(Envelope $envelope): array
    {
        $job = $envelope->getMessage();
        $at = $envelope->last(RedeliveryStamp::class)?->getRedeliveredAt();

        return [
            'id' => $envelope->last(TransportMessageIdStamp::class)?->getId(),
            'says' => $this->owners->of($job)?->says($job) ?? $job::class,
            'why' => $envelope->last(ErrorDetailsStamp::class)?->getExceptionMessage() ?? '',
            'failed_at' => self::instant($at === null ? null : 1000 * $at->getTimestamp()),
        ];
    }

    private static function ms(mixed $value): ?int
    {
        return is_numeric($value) ? (int) $value : null;
    }

    private static function instant(?int $ms): ?string
    {
        return $ms === null || $ms === 0 ? null : gmdate('Y-m-d\TH:i:s\Z', intdiv($ms, 1000));
    }
}
