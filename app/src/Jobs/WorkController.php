<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;

/** The work that is done behind the desk: who does it, what waits, and what failed. */
final readonly class WorkController
{
    public function __construct(private Work $work)
    {
    }

    #[Route('/api/work', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function show(): JsonResponse
    {
        return new JsonResponse($this->work->told());
    }

    /** Tries a job again that failed for good. */
    #[Route('/api/work/failed/{id}/again', methods: ['POST'], requirements: ['id' => '\d+'])]
    #[Needs(Right::Administer)]
    public function again(string $id): JsonResponse
    {
        $this->work->again($id);

        return new JsonResponse(null, 204);
    }

    /** Drops a job that failed for good. */
    #[Route('/api/work/failed/{id}', methods: ['DELETE'], requirements: ['id' => '\d+'])]
    #[Needs(Right::Administer)]
    public function drop(string $id): JsonResponse
    {
        $this->work->drop($id);

        return new JsonResponse(null, 204);
    }
}
