<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\Transport\Serialization\SerializerInterface;
use Symfony\Component\Messenger\Transport\TransportFactoryInterface;
use Symfony\Component\Messenger\Transport\TransportInterface;

/**
 * `table://default?queue=NAME`
 *
 * @implements TransportFactoryInterface<TableTransport>
 */
final readonly class TableTransportFactory implements TransportFactoryInterface
{
    public function __construct(private Connection $noting, private Connection $taking, private int $leaseS, private ClockInterface $clock)
    {
    }

    /** @param array<mixed> $options */
    public function createTransport(#[\SensitiveParameter] string $dsn, array $options, SerializerInterface $serializer): TransportInterface
    {
        parse_str((string) parse_url($dsn, PHP_URL_QUERY), $query);

        return new TableTransport($this->noting, $this->taking, $serializer, is_string($query['queue'] ?? null) ? $query['queue'] : 'jobs', $this->leaseS, $this->clock);
    }

    /** @param array<mixed> $options */
    public function supports(#[\SensitiveParameter] string $dsn, array $options): bool
    {
        return str_starts_with($dsn, 'table://');
    }
}
