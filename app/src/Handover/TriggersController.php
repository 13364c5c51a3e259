<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Download;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Trigger\Scxml;

/** Maps of triggers: looked at and tried before anybody stands before them. */
final readonly class TriggersController
{
    /** A trial is no longer. */
    private const LONGEST_MS = 3_600_000;

    public function __construct(private Displays $displays, private LookTriggers $look)
    {
    }

    /** What is found in a map, what its states show and how far that is read, and ready traces to try it with; nothing is done. */
    #[Route('/api/reactions/look', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function look(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'display');

        return new JsonResponse($this->look->map(Body::document($body->field('document')), $this->display($body)));
    }

    /** The states that it comes to when something happens, and how that looks; nothing is done. */
    #[Route('/api/reactions/run', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function run(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'display', 'entries', 'until_ms');
        $until = $body->field('until_ms')->int(1, self::LONGEST_MS, 'ms');

        return new JsonResponse($this->look->run(Body::document($body->field('document')), $this->display($body), $body->field('entries'), $until));
    }

    /** As a general interpreter of state charts runs it. */
    #[Route('/api/triggers/{id}/scxml', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function scxml(string $id, Designs $designs, Programmes $programmes): Response
    {
        $design = $designs->of(DesignKind::Trigger, $id);

        return Download::of(Scxml::of($programmes->trying($design->document, null)[1]->lasting()), 'application/scxml+xml; charset=utf-8', "$design->name.scxml");
    }

    private function display(Node $body): ?SurveyedDisplay
    {
        $display = $body->given('display');

        return $display === null ? null : $this->displays->named($display);
    }
}
