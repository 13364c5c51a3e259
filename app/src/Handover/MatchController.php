<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;

/** How layouts sit on displays, and which displays are meant. */
final readonly class MatchController
{
    public function __construct(private Matches $matches)
    {
    }

    #[Route('/api/matches', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function all(): JsonResponse
    {
        return new JsonResponse($this->matches->all());
    }

    /** Which displays somebody means who hands over the variant that he is working on: `variant`, and `seen`, the display that he looks at it on. */
    #[Route('/api/layouts/{id}/meant-for', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function meantFor(string $id, Request $request): JsonResponse
    {
        $seen = $request->query->getString('seen');

        return new JsonResponse(['displays' => $this->matches->meantFor($id, $request->query->getString('variant'), $seen === '' ? null : $seen)]);
    }
}
