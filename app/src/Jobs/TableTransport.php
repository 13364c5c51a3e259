<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Exception\MessageDecodingFailedException;
use Symfony\Component\Messenger\Stamp\DelayStamp;
use Symfony\Component\Messenger\Stamp\TransportMessageIdStamp;
use Symfony\Component\Messenger\Transport\Receiver\KeepaliveReceiverInterface;
use Symfony\Component\Messenger\Transport\Receiver\ListableReceiverInterface;
use Symfony\Component\Messenger\Transport\Receiver\MessageCountAwareInterface;
use Symfony\Component\Messenger\Transport\Serialization\SerializerInterface;
use Symfony\Component\Messenger\Transport\TransportInterface;

/**
 * A queue in a table of MariaDB; several workers take from it side by side (FOR UPDATE SKIP LOCKED).
 *
 * A job is noted in whatever transaction is open where it is sent. Whoever works on it has it on a lease, which he renews while he lives.
 */
final readonly class TableTransport implements TransportInterface, KeepaliveReceiverInterface, ListableReceiverInterface, MessageCountAwareInterface
{
    /**
     * @param Connection $noting of the application: jobs are part of its transactions
     * @param Connection $taking one of its own, so that leases are renewed whatever transaction the work is in
     * @param int $leaseS a job whose worker died is given out again after so many seconds
     */
    public function __construct(
        private Connection $noting,
        private Connection $taking,
        private SerializerInterface $serializer,
        private string $queue,
        private int $leaseS,
        private ClockInterface $clock,
    ) {
    }

    public function send(Envelope $envelope): Envelope
    {
        $encoded = $this->serializer->encode($envelope);
        $delayMs = $envelope->last(DelayStamp::class)?->getDelay() ?? 0;
        $this->noting->insert('job', [
            'queue' => $this->queue,
            'body' => $encoded['body'],
            'headers' => json_encode($encoded['headers'] ?? [], JSON_THROW_ON_ERROR),
            'due_ms' => $this->nowMs() + $delayMs,
            'noted_ms' => $this->nowMs(),
        ]);

        return $envelope->with(new TransportMessageIdStamp($this->noting->lastInsertId()));
    }

    public function get(): iterable
    {
        $row = $this->taking->transactional(function (Connection $connection): array|false {
            $row = $connection->fetchAssociative(
                'SELECT id, body, headers FROM job WHERE queue = ? AND due_ms <= ? ORDER BY due_ms, id LIMIT 1 FOR UPDATE SKIP LOCKED',
                [$this->queue, $this->nowMs()],
            );
            if ($row !== false) {
                $connection->update('job', ['due_ms' => $this->nowMs() + $this->leaseS * 1000], ['id' => $row['id']]);
            }

            return $row;
        });

        return $row === false ? [] : [$this->envelope($row)];
    }

    public function keepalive(Envelope $envelope, ?int $seconds = null): void
    {
        $this->taking->update('job', ['due_ms' => $this->nowMs() + max($this->leaseS, 3 * ($seconds ?? 0)) * 1000], ['id' => self::id($envelope)]);
    }

    public function ack(Envelope $envelope): void
    {
        $this->taking->delete('job', ['id' => self::id($envelope)]);
    }

    public function reject(Envelope $envelope): void
    {
        $this->ack($envelope);
    }

    public function all(?int $limit = null): iterable
    {
        foreach ($this->taking->fetchAllAssociative('SELECT id, body, headers FROM job WHERE queue = ? ORDER BY id LIMIT ' . ($limit ?? 1000), [$this->queue]) as $row) {
            yield $this->envelope($row);
        }
    }

    public function find(mixed $id): ?Envelope
    {
        $row = $this->taking->fetchAssociative('SELECT id, body, headers FROM job WHERE queue = ? AND id = ?', [$this->queue, $id]);

        return $row === false ? null : $this->envelope($row);
    }

    public function getMessageCount(): int
    {
        $count = $this->taking->fetchOne('SELECT COUNT(*) FROM job WHERE queue = ?', [$this->queue]);

        return is_numeric($count) ? (int) $count : 0;
    }

    /** @param array<string, mixed> $row */
    private function envelope(array $row): Envelope
    {
        assert(is_string($row['body']) && is_string($row['headers']) && is_int($row['id']));
        try {
            /** @var array<string, string> $headers */
            $headers = (array) json_decode($row['headers'], true);
            $envelope = $this->serializer->decode(['body' => $row['body'], 'headers' => $headers]);
        } catch (MessageDecodingFailedException $e) {
            $this->taking->delete('job', ['id' => $row['id']]);
            throw $e;
        }

        return $envelope->with(new TransportMessageIdStamp((string) $row['id']));
    }

    private static function id(Envelope $envelope): mixed
    {
        return $envelope->last(TransportMessageIdStamp::class)?->getId();
    }

    private function nowMs(): int
    {
        return (int) $this->clock->now()->format('Uv');
    }
}
