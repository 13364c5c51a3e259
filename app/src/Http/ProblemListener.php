<?php

declare(strict_types=1);

namespace UpperPane\App\Http;

use Doctrine\DBAL\Exception\ConnectionException;
use Doctrine\DBAL\Exception\DriverException;
use Doctrine\DBAL\Exception\RetryableException;
use Psr\Log\LoggerInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Symfony\Component\Security\Core\Exception\AccessDeniedException;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use UpperPane\Core\Document\Refused;

/** Every failure of the API is JSON with a code, a sentence and a path. */
#[AsEventListener(priority: -2)]
final readonly class ProblemListener
{
    public function __construct(private LoggerInterface $logger)
    {
    }

    public function __invoke(ExceptionEvent $event): void
    {
        $e = $event->getThrowable();
        if ($e instanceof AccessDeniedException || $e instanceof AuthenticationException || !str_starts_with($event->getRequest()->getPathInfo(), '/api')) {
            return;
        }
        if (self::isStorageAway($e)) {
            $event->setResponse(Problem::answer(503, 'storage.away', 'The database does not answer. Your change is kept in this window and saved as soon as it is back.'));

            return;
        }
        if (self::isFull($e)) {
            $event->setResponse(Problem::answer(507, 'storage.full', 'There is no room left on the disk of the server. Your change is kept in this window and saved as soon as there is.'));

            return;
        }
        if (self::find($e, RetryableException::class)) {
            $event->setResponse(Problem::answer(503, 'storage.busy', 'Somebody else changes the same at this moment. Your change is kept in this window and tried again.'));

            return;
        }
        $event->setResponse(match (true) {
            $e instanceof Problem => Problem::answer($e->status, $e->reason, $e->getMessage(), $e->path, $e->more),
            $e instanceof Refused => Problem::answer(422, $e->reason->value, $e->getMessage(), $e->path),
            $e instanceof HttpExceptionInterface => Problem::answer($e->getStatusCode(), 'request.wrong', $e->getMessage()),
            default => $this->unexpected($e),
        });
    }

    private function unexpected(\Throwable $e): Response
    {
        $this->logger->error('{class}: {message}', ['class' => $e::class, 'message' => $e->getMessage(), 'exception' => $e]);

        return Problem::answer(500, 'failed', 'Something failed on the server. It is written down there; nothing that was saved before is lost.');
    }

    /** No room for MariaDB (errors 1021 and 1114, or the operating system's), or for a file. */
    private static function isFull(\Throwable $e): bool
    {
        for (; $e !== null; $e = $e->getPrevious()) {
            if (str_contains($e->getMessage(), 'No space left on device') || ($e instanceof DriverException && in_array($e->getCode(), [1021, 1114], true))) {
                return true;
            }
        }

        return false;
    }

    /** @param class-string $kind */
    private static function find(\Throwable $e, string $kind): bool
    {
        for (; $e !== null; $e = $e->getPrevious()) {
            if ($e instanceof $kind) {
                return true;
            }
        }

        return false;
    }

    /** MariaDB gone before or in the middle of a request, also below Doctrine (sessions). */
    private static function isStorageAway(\Throwable $e): bool
    {
        for (; $e !== null; $e = $e->getPrevious()) {
            if ($e instanceof ConnectionException) {
                return true;
            }
            if ($e instanceof \PDOException && preg_match('/\[(2002|2006|2013)\]|Connection refused|gone away|Lost connection/', $e->getMessage()) === 1) {
                return true;
            }
        }

        return false;
    }
}
