<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Body;
use UpperPane\Core\Layout\Arrange\Acts;
use UpperPane\Core\Layout\Layout;

/** What a designer does to a layout, saved or not: the document comes back, and what changed beside what was asked for. */
final readonly class ArrangementController
{
    #[Route('/api/arrangement', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function arrange(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'variant', 'act');
        $layout = Layout::fromArray(Body::document($body->field('document')));

        return new JsonResponse(Acts::done($layout, $body->given('variant')?->id(), $body->field('act'))->toArray());
    }
}
