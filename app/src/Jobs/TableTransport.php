<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Doctrine\DBAL\Connection;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Exception\MessageDecodingFailedException;
use Symfony\Component\Messenger\Stamp\DelayStamp;
use Symfony\Component\Messenger\Stamp\TransportMessageIdStamp;
use Symfony\Component\Messenger\Transport\Receiver\MessageCountAwareInterface;
use Symfony\Component\Messenger\Transport\Serialization\SerializerInterface;
use Symfony\Component\Messenger\Transport\TransportInterface;

/** A queue in a table of MariaDB; several workers take from it side by side (FOR UPDATE SKIP LOCKED). */
final readonly class TableTransport implements TransportInterface, MessageCountAwareInterface
{
    /** A job that a worker took and did not end, because it was killed, is given out again after so many seconds. */
    private const REDELIVER_AFTER_S = 900;

    public function __construct(private Connection $connection, private SerializerInterface $serializer, private string $queue)
    {
    }

    public function send(Envelope $envelope): Envelope
    {
        $encoded = $this->serializer->encode($envelope);
        $delayMs = $envelope->last(DelayStamp::class)?->getDelay() ?? 0;
        $this->connection->insert('job', [
            'queue' => $this->queue,
            'body' => $encoded['body'],
            'headers' => json_encode($encoded['headers'] ?? [], JSON_THROW_ON_ERROR),
            'due_ms' => self::nowMs() + $delayMs,
        ]);

        return $envelope->with(new TransportMessageIdStamp($this->connection->lastInsertId()));
    }

    public function get(): iterable
    {
        $row = $this->connection->transactional(function (Connection $connection): array|false {
            $row = $connection->fetchAssociative(
                'SELECT id, body, headers FROM job WHERE queue = ? AND due_ms <= ? ORDER BY due_ms, id LIMIT 1 FOR UPDATE SKIP LOCKED',
                [$this->queue, self::nowMs()],
            );
            if ($row !== false) {
                $connection->update('job', ['due_ms' => self::nowMs() + self::REDELIVER_AFTER_S * 1000], ['id' => $row['id']]);
            }

            return $row;
        });
        if ($row === false) {
            return [];
        }
        assert(is_string($row['body']) && is_string($row['headers']) && is_int($row['id']));
        try {
            /** @var array<string, string> $headers */
            $headers = (array) json_decode($row['headers'], true);
            $envelope = $this->serializer->decode(['body' => $row['body'], 'headers' => $headers]);
        } catch (MessageDecodingFailedException $e) {
            $this->connection->delete('job', ['id' => $row['id']]);
            throw $e;
        }

        return [$envelope->with(new TransportMessageIdStamp((string) $row['id']))];
    }

    public function ack(Envelope $envelope): void
    {
        $this->connection->delete('job', ['id' => $envelope->last(TransportMessageIdStamp::class)?->getId()]);
    }

    public function reject(Envelope $envelope): void
    {
        $this->ack($envelope);
    }

    public function getMessageCount(): int
    {
        $count = $this->connection->fetchOne('SELECT COUNT(*) FROM job WHERE queue = ?', [$this->queue]);

        return is_numeric($count) ? (int) $count : 0;
    }

    private static function nowMs(): int
    {
        return (int) floor(microtime(true) * 1000);
    }
}
