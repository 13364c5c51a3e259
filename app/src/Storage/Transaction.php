<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Doctrine\DBAL\Exception\RetryableException;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Log\LoggerInterface;

/** All of what is done, or nothing; again where somebody else was in the way at the same moment. */
final class Transaction
{
    private const TRIES = 4;
    private const PAUSE_US = 40_000;

    private int $depth = 0;

    /** @var list<\Closure(): mixed> */
    private array $afterwards = [];

    public function __construct(private readonly EntityManagerInterface $entities, private readonly LoggerInterface $logger)
    {
    }

    /**
     * Done once all is committed. What fails then must be done by somebody else later: the answer is that it holds.
     *
     * @param \Closure(): mixed $work
     */
    public function afterwards(\Closure $work): void
    {
        $this->depth > 0 ?: throw new \LogicException('Only what happens in a transaction has an afterwards.');
        $this->afterwards[] = $work;
    }

    /**
     * @template T
     * @param \Closure(): T $work finds by itself all that it changes, since it may be done again
     * @return T
     */
    public function of(\Closure $work): mixed
    {
        $connection = $this->entities->getConnection();
        // Within another one it is a part of that, which is written, and done again, as a whole.
        $tries = $connection->isTransactionActive() ? 1 : self::TRIES;
        for ($try = 1;; $try++) {
            $connection->beginTransaction();
            $this->depth++;
            try {
                $result = $work();
                $this->depth > 1 ?: $this->entities->flush();
                $connection->commit();
            } catch (\Throwable $e) {
                $this->depth--;
                $this->afterwards = [];
                if ($connection->isTransactionActive()) {
                    $connection->rollBack();
                }
                if (!$e instanceof RetryableException || $try === $tries) {
                    throw $e;
                }
                $this->entities->clear();
                usleep(random_int(0, self::PAUSE_US * $try));
                continue;
            }
            if (--$this->depth === 0) {
                $this->committed();
            }

            return $result;
        }
    }

    private function committed(): void
    {
        [$afterwards, $this->afterwards] = [$this->afterwards, []];
        foreach ($afterwards as $work) {
            try {
                $work();
            } catch (\Throwable $e) {
                $this->logger->error('After a transaction: {message}', ['message' => $e->getMessage(), 'exception' => $e]);
            }
        }
    }
}
