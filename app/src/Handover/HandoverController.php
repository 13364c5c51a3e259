<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Estate\Place;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;

final readonly class HandoverController
{
    public function __construct(private EntityManagerInterface $entities, private Handover $handover, private Security $security)
    {
    }

    /** What handing this over would mean for each display; nothing is done. */
    #[Route('/api/handover/preview', methods: ['POST'])]
    public function preview(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('source', 'displays', 'places');
        $source = $this->handover->source($body->field('source'));

        return new JsonResponse(['offers' => array_map(
            fn (SurveyedDisplay $display): array => $this->offered($source, $display),
            $this->displays($body),
        )]);
    }

    /** The very bytes that would be handed over to one display, so that they can be looked at; nothing is done. */
    #[Route('/api/handover/release', methods: ['POST'])]
    public function release(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('source', 'displays');
        $source = $this->handover->source($body->field('source'));

        return new JsonResponse($this->handover->offer($source, $this->displays($body)[0])->release->json(), json: true);
    }

    /** Hands over to all displays named, or to none. */
    #[Route('/api/handover', methods: ['POST'])]
    public function handOver(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('source', 'displays', 'places');
        $source = $this->handover->source($body->field('source'));
        $offers = array_map(fn (SurveyedDisplay $display): Offer => $this->offer($source, $display), $this->displays($body));
        $stopped = array_values(array_filter($offers, static fn (Offer $offer): bool => $offer->findings->stopsHandover()));
        if ($stopped !== []) {
            throw new Problem(409, 'handover.stopped', sprintf(
                'Nothing is handed over. %s: %s',
                $stopped[0]->display->display()->name,
                $stopped[0]->findings->all[0]->message,
            ), more: ['offers' => array_map(static fn (Offer $offer): array => $offer->toArray(), $offers)]);
        }
        $releases = $this->handover->handOver($source, $offers, $this->security->getUser()?->getUserIdentifier());

        return new JsonResponse(['releases' => array_map(
            static fn (HandedRelease $release): array => ['display' => $release->display->id] + $release->toArray(),
            $releases,
        )], 201);
    }

    /** What was handed over to a display, newest first. */
    #[Route('/api/displays/{id}/releases', methods: ['GET'])]
    public function releases(string $id): JsonResponse
    {
        $display = $this->entities->find(SurveyedDisplay::class, $id) ?? throw Problem::notFound('This display');
        $releases = $this->entities->getRepository(HandedRelease::class)->findBy(['display' => $display], ['number' => 'DESC'], 100);

        return new JsonResponse([
            'current' => $display->current?->number,
            'releases' => array_map(static fn (HandedRelease $release): array => $release->toArray(), $releases),
        ]);
    }

    /** @return array<string, mixed> what cannot be worked out for a display never hides what would become of the others */
    private function offered(Playable $source, SurveyedDisplay $display): array
    {
        try {
            return $this->handover->offer($source, $display)->toArray();
        } catch (Refused $e) {
            return Offer::refused($display, $e);
        }
    }

    /** @throws Refused that says on which display: it, and all others, keep what they have */
    private function offer(Playable $source, SurveyedDisplay $display): Offer
    {
        try {
            return $this->handover->offer($source, $display);
        } catch (Refused $e) {
            throw $e->in(sprintf('On "%s": ', $display->display()->name), $e->path);
        }
    }

    /** @return non-empty-list<SurveyedDisplay> those named and those in the places named, each once */
    private function displays(Node $body): array
    {
        $displays = [];
        foreach ($body->optional('displays')?->items(10_000) ?? [] as $node) {
            $display = $this->entities->find(SurveyedDisplay::class, $node->id()) ?? throw $node->refused(Reason::RefUnknown, sprintf('is "%s", no display of the estate.', $node->id()));
            $displays[$display->id] = $display;
        }
        foreach ($body->optional('places')?->items(1000) ?? [] as $node) {
            $place = $this->entities->find(Place::class, $node->id()) ?? throw $node->refused(Reason::RefUnknown, sprintf('is "%s", no place of the estate.', $node->id()));
            foreach ($this->entities->getRepository(SurveyedDisplay::class)->findBy([], ['position' => 'ASC']) as $display) {
                if ($display->place->isIn($place)) {
                    $displays[$display->id] = $display;
                }
            }
        }

        return $displays === [] ? throw $body->refused(Reason::FieldMissing, 'names no display; choose at least one.') : array_values($displays);
    }
}
