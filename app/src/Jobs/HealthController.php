<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;

/** Whether the application stands, and whether its work is done: for the start command and for whatever watches it. Sends no cookie and needs no session. */
final readonly class HealthController
{
    #[Route('/api/health', methods: ['GET'])]
    #[Needs(null)]
    public function show(Work $work, ClockInterface $clock): JsonResponse
    {
        $now = (int) $clock->now()->format('Uv');
        $facts = $work->facts();

        return new JsonResponse([
            'stands' => true,
            'workers_heard_s_ago' => array_map(static fn (?int $ms): ?int => $ms === null ? null : intdiv($now - $ms, 1000), $facts->heardMs),
            'oldest_job_s' => $facts->oldestMs === null ? 0 : intdiv($now - $facts->oldestMs, 1000),
            'failed_jobs' => $facts->failed,
        ]);
    }
}
