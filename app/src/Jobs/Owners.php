<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Messenger\Event\WorkerMessageFailedEvent;
use Symfony\Component\Messenger\Exception\HandlerFailedException;

/** Tells the owner of a job that failed for good. */
final readonly class Owners
{
    /** @param iterable<Owner> $owners */
    public function __construct(#[AutowireIterator(Owner::class)] private iterable $owners)
    {
    }

    #[AsEventListener]
    public function failed(WorkerMessageFailedEvent $event): void
    {
        if ($event->willRetry()) {
            return;
        }
        $e = $event->getThrowable();
        $job = $event->getEnvelope()->getMessage();
        $this->of($job)?->gaveUp($job, self::why($e instanceof HandlerFailedException ? $e->getPrevious() ?? $e : $e));
    }

    public function of(object $job): ?Owner
    {
        foreach ($this->owners as $owner) {
            if ($job instanceof ($owner::job())) {
                return $owner;
            }
        }

        return null;
    }

    /** What is told to a person: the log has the rest. */
    public static function why(\Throwable $e): string
    {
        return mb_strimwidth(trim((string) preg_replace('/\s+/', ' ', $e->getMessage())), 0, 400, '...');
    }
}
