<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Body;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** Where something that is filled in is shown: on one's own displays, for how long, and taken off again. */
#[Needs(Right::FillIn)]
final readonly class ShowFilledController
{
    /** So many displays one act takes: what becomes of each is worked out, and all of it is one transaction. */
    private const MOST = 200;

    public function __construct(private Designs $designs, private Displays $displays, private ShowFilled $show, private WhereShown $where)
    {
    }

    /** On which displays, and how it could be: `search` for those that are called so, or hang in a place that is; `first` for one that is told in any case. */
    #[Route('/api/filled/{id}/shown', methods: ['GET'])]
    public function at(string $id, Request $request): JsonResponse
    {
        $asked = static fn (string $name): string => mb_substr($request->query->getString($name), 0, 200);

        return new JsonResponse($this->where->of($this->filled($id), $asked('search'), $asked('first')));
    }

    /** What showing it would mean; nothing is done. */
    #[Route('/api/filled/{id}/shown/preview', methods: ['POST'])]
    public function preview(string $id, Request $request): JsonResponse
    {
        return new JsonResponse(['told' => $this->show->look($this->filled($id), ...$this->asked($request))]);
    }

    #[Route('/api/filled/{id}/shown', methods: ['POST'])]
    public function show(string $id, Request $request): JsonResponse
    {
        return new JsonResponse(['handing' => $this->show->show($this->filled($id), ...$this->asked($request))->toArray()], 202);
    }

    #[Route('/api/filled/{id}/shown/off', methods: ['POST'])]
    public function takeOff(string $id, Request $request): JsonResponse
    {
        $displays = $this->those(Body::of($request)->object('displays')->field('displays'));

        return new JsonResponse(['handing' => $this->show->takeOff($this->filled($id), $displays)->toArray()], 202);
    }

    /** @return array{non-empty-list<SurveyedDisplay>, string, Node} */
    private function asked(Request $request): array
    {
        $body = Body::of($request)->object('displays', 'how', 'within');

        return [
            $this->those($body->field('displays')),
            $body->field('how')->oneOf(ShowFilled::BESIDE, ShowFilled::INSTEAD),
            Node::at($body->optional('within')->value ?? [], ''),
        ];
    }

    /** @return non-empty-list<SurveyedDisplay> */
    private function those(Node $node): array
    {
        $displays = array_map($this->displays->named(...), $node->items(self::MOST));

        return $displays === [] ? throw $node->refused(Reason::ValueRange, 'is empty; choose at least one display.') : $displays;
    }

    private function filled(string $id): Design
    {
        return $this->designs->of(DesignKind::Filled, $id);
    }
}
