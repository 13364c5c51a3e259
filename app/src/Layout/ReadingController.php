<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Places;
use UpperPane\App\Display\Surveys;
use UpperPane\App\Http\Body;
use UpperPane\App\Text\HouseFaces;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Layout\Type\SmallestText;

/** What the core says of a survey that is being typed, saved or not: also how far off the texts of a layout are read on it. */
final readonly class ReadingController
{
    public function __construct(private Places $places, private Surveys $surveys, private DesignLibrary $library, private HouseFaces $faces)
    {
    }

    #[Route('/api/displays/analysis', methods: ['POST'], priority: 1)]
    #[Needs(Right::Look)]
    public function analyse(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'place', 'cap_px', 'layout');
        $named = $body->given('place');
        $place = $named === null ? null : $this->places->named($named);
        $display = Display::fromNode($body->field('document'));
        $layout = $body->given('layout');
        $smallest = $layout === null ? null : $this->smallest($display, $layout);

        return new JsonResponse($this->surveys->said($display, $place?->zone(), $body->given('cap_px')?->number(0.01, 1e6, 'px') ?? $smallest?->capPx) + ['smallest' => $smallest?->toArray()]);
    }

    private function smallest(Display $display, Node $layout): ?SmallestText
    {
        $document = $this->library->document($layout->id(), DesignKind::Layout) ?? throw $layout->refused(Reason::RefUnknown, sprintf('is "%s", no layout.', $layout->id()));

        return SmallestText::of($this->library->layout($document)->for($display->raster()), $display->raster(), $this->faces->capShares());
    }
}
