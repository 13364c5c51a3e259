<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;

final readonly class WordsController
{
    /** So many of the words that are typed are looked for. */
    private const MOST = 8;

    /** Which layouts say what is typed, as they are saved and as they stand on displays: `search`. */
    #[Route('/api/words', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function found(Request $request, WordsFound $words): JsonResponse
    {
        $typed = preg_split('/\s+/u', mb_substr($request->query->getString('search'), 0, 200), -1, PREG_SPLIT_NO_EMPTY) ?: [];

        return new JsonResponse(['found' => $typed === [] ? [] : $words->of(array_slice($typed, 0, self::MOST))]);
    }
}
