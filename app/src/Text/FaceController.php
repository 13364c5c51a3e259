<?php

declare(strict_types=1);

namespace UpperPane\App\Text;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;

final readonly class FaceController
{
    #[Route('/api/faces', methods: ['GET'])]
    public function list(HouseFaces $faces): JsonResponse
    {
        return new JsonResponse(['faces' => $faces->all()]);
    }
}
