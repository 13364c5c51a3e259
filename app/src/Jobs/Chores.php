<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** Does what is due of what is done again and again: each once, however many look after it. */
final readonly class Chores
{
    /** After it failed it is tried again so much later, or when its time comes, if that is sooner. */
    private const AGAIN_S = 3600;

    /** @param iterable<Chore> $chores */
    public function __construct(
        #[AutowireIterator(Chore::class)]
        private iterable $chores,
        private Connection $connection,
        private ClockInterface $clock,
        private LoggerInterface $logger,
    ) {
    }

    /** @return list<string> names of those that were due and are done */
    public function doDue(): array
    {
        $done = [];
        foreach ($this->chores as $chore) {
            $now = 1000 * $this->clock->now()->getTimestamp();
            // Whoever notes first that it is done does it.
            $this->connection->executeStatement('INSERT IGNORE INTO chore (name, next_ms) VALUES (?, 0)', [$chore::name()]);
            if ($this->connection->executeStatement('UPDATE chore SET next_ms = ? WHERE name = ? AND next_ms <= ?', [$now + 1000 * $chore::everyS(), $chore::name(), $now]) === 0) {
                continue;
            }
            try {
                $chore->run();
                $this->connection->executeStatement('UPDATE chore SET done_ms = ?, trouble = NULL WHERE name = ?', [$now, $chore::name()]);
                $done[] = $chore::name();
            } catch (\Throwable $e) {
                $this->logger->error('Chore {name}: {message}', ['name' => $chore::name(), 'message' => $e->getMessage(), 'exception' => $e]);
                $this->connection->executeStatement('UPDATE chore SET next_ms = LEAST(next_ms, ?), trouble = ? WHERE name = ?', [$now + 1000 * self::AGAIN_S, Owners::why($e), $chore::name()]);
            }
        }

        return $done;
    }
}
