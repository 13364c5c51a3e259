<?php

declare(strict_types=1);

namespace UpperPane\App\Http;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;

/** Whether the application stands: for the start command and for whatever watches it. Sends no cookie and needs no session. */
final readonly class HealthController
{
    #[Route('/api/pairing/health', methods: ['GET'], priority: 5)]
    public function show(Connection $connection): JsonResponse
    {
        $connection->executeQuery('SELECT 1');

        return new JsonResponse(['stands' => true]);
    }
}
