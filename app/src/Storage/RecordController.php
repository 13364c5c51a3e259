<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;

/** Who did what with a thing, and when. */
final readonly class RecordController
{
    private const MOST = 50;

    public function __construct(private Record $record)
    {
    }

    /** The last first; with `before`, the id of an act, those before it. */
    #[Route('/api/record/{kind}/{id}', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function show(string $kind, string $id, Request $request): JsonResponse
    {
        $before = $request->query->getInt('before');

        return new JsonResponse($this->record->of($kind, $id, self::MOST, $before > 0 ? $before : null));
    }
}
