<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;

/** What was deleted, and putting it back. */
final readonly class BinController
{
    public function __construct(private Bin $bin, private Transaction $transaction, private Record $record)
    {
    }

    #[Route('/api/bin', methods: ['GET'])]
    #[Needs(Right::Design)]
    public function show(): JsonResponse
    {
        return new JsonResponse(['binned' => $this->bin->all()]);
    }

    #[Route('/api/bin/{id}/back', methods: ['POST'], requirements: ['id' => '\d+'])]
    #[Needs(Right::Design)]
    public function back(int $id): JsonResponse
    {
        $this->transaction->of(fn () => $this->record->note(Did::BroughtBack, $this->bin->back($id)));

        return new JsonResponse(null, 204);
    }
}
