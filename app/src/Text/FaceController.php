<?php

declare(strict_types=1);

namespace UpperPane\App\Text;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Upload;
use UpperPane\App\Storage\Deleting;

/** Type faces: those of the house, and those that are brought in. */
#[Route('/api/faces')]
final readonly class FaceController
{
    #[Route('', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function list(HouseFaces $faces): JsonResponse
    {
        return new JsonResponse(['faces' => $faces->all()]);
    }

    #[Route('', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function bringIn(Request $request, BringInFace $bringIn): JsonResponse
    {
        [$face, $identity] = $bringIn->of(Upload::of($request));

        return new JsonResponse($face->toArray() + ['variable' => $identity->isVariable], 201);
    }

    #[Route('/{id}', methods: ['DELETE'])]
    #[Needs(Right::Design)]
    public function remove(string $id, BroughtFaces $brought, Deleting $delete): JsonResponse
    {
        $delete->of($brought->one($id));

        return new JsonResponse(null, 204);
    }
}
