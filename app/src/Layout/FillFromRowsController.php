<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Body;

/** Many at once: a template and the rows of a source. */
#[Needs(Right::Design)]
final readonly class FillFromRowsController
{
    /** So many are told before anything is filled in. */
    private const TOLD = 50;

    public function __construct(private Designs $designs, private FillFromRows $fill)
    {
    }

    #[Route('/api/layouts/{id}/rows', methods: ['GET'])]
    public function all(string $id): JsonResponse
    {
        return new JsonResponse(['fillings' => $this->fill->all($this->template($id))]);
    }

    #[Route('/api/layouts/{id}/rows/preview', methods: ['POST'])]
    public function preview(string $id, Request $request): JsonResponse
    {
        $documents = $this->fill->documents($this->template($id), Body::of($request)->object('rows', 'map', 'name', 'key'));
        $told = [];
        foreach (array_slice($documents, 0, self::TOLD, true) as $key => $document) {
            $told[] = ['key' => (string) $key, 'name' => $document['name'], 'document' => $document];
        }

        return new JsonResponse(['count' => count($documents), 'told' => $told]);
    }

    #[Route('/api/layouts/{id}/rows', methods: ['POST'])]
    public function begin(string $id, Request $request): JsonResponse
    {
        return new JsonResponse($this->fill->begin($this->template($id), Body::of($request)->object('rows', 'map', 'name', 'key')), 201);
    }

    #[Route('/api/layouts/{id}/rows/{filling}/again', methods: ['POST'])]
    public function again(string $id, string $filling): JsonResponse
    {
        return new JsonResponse($this->fill->again($this->template($id), $filling));
    }

    #[Route('/api/layouts/{id}/rows/{filling}', methods: ['DELETE'])]
    public function forget(string $id, string $filling): JsonResponse
    {
        $this->fill->forget($this->template($id), $filling);

        return new JsonResponse(null, 204);
    }

    private function template(string $id): Design
    {
        return $this->designs->of(DesignKind::Layout, $id);
    }
}
