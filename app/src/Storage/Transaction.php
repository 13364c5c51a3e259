<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Doctrine\DBAL\Exception\RetryableException;
use Doctrine\ORM\EntityManagerInterface;

/** All of what is done, or nothing; again where somebody else was in the way at the same moment. */
final readonly class Transaction
{
    private const TRIES = 4;
    private const PAUSE_US = 40_000;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * @template T
     * @param \Closure(): T $work finds by itself all that it changes, since it may be done again
     * @return T
     */
    public function of(\Closure $work): mixed
    {
        $connection = $this->entities->getConnection();
        // Within another one it is a part of that, which is done again as a whole.
        $tries = $connection->isTransactionActive() ? 1 : self::TRIES;
        for ($try = 1;; $try++) {
            $connection->beginTransaction();
            try {
                $result = $work();
                $this->entities->flush();
                $connection->commit();

                return $result;
            } catch (\Throwable $e) {
                if ($connection->isTransactionActive()) {
                    $connection->rollBack();
                }
                if (!$e instanceof RetryableException || $try === $tries) {
                    throw $e;
                }
                $this->entities->clear();
                usleep(random_int(0, self::PAUSE_US * $try));
            }
        }
    }
}
