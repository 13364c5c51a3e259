<?php

declare(strict_types=1);

namespace UpperPane\App\Time;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Body;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Time\ItemActs;

/** What a hand does to the items of a list, saved or not. */
final readonly class ItemController
{
    #[Route('/api/items', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function act(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('items', 'taken', 'act');
        $items = array_map(static fn (Node $item): array => $item->fields(), $body->field('items')->items());
        $taken = array_map(static fn (Node $id): string => $id->id(), $body->optional('taken')?->items() ?? []);

        return new JsonResponse(['items' => ItemActs::done($items, $taken, $body->field('act'))]);
    }
}
