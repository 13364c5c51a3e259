<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Account\Rights;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Storage\Prune;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Handover\Planned;

final readonly class HandoverController
{
    public function __construct(
        private Programmes $programmes,
        private Compiler $compiler,
        private Offers $offers,
        private Targets $targets,
        private Handings $handings,
        private BeginHandover $begin,
        private HandedReleaseRepository $handed,
        private ClockInterface $clock,
        private Rights $rights,
    ) {
    }

    /** What handing this over would mean; displays for which it means the same are told together. Nothing is done. */
    #[Route('/api/handover/preview', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function preview(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('source', 'displays', 'places');

        $offers = $this->offers->of($this->offers->now($this->source($body->field('source'))), $this->targets->named($body));

        return new JsonResponse(['offers' => array_map(static fn (Offer $offer): array => $offer->toArray(), $offers)]);
    }

    /** What would be handed over to one display, in one piece, so that it can be looked at; nothing is done. */
    #[Route('/api/handover/release', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function release(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('source', 'displays');
        $source = $this->source($body->field('source'));
        $display = $this->targets->display($this->targets->named($body)[0]);
        $contents = $this->programmes->now($source, $display);

        return new JsonResponse($this->compiler->release($contents, $display->display(), ...Planned::span(1000 * $this->clock->now()->getTimestamp()))->whole());
    }

    /** Notes that this is handed over to all displays named, or to none: a job does it, and GET /api/handings/ID tells how far it is. */
    #[Route('/api/handover', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function handOver(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('source', 'displays', 'places');
        $source = $this->source($body->field('source'));

        return $this->begun($source->name, $this->offers->of($this->offers->now($source), $this->targets->named($body)));
    }

    /** What is handed over: of what is filled in one's own; for all else there is another right, at the places of the displays. */
    private function source(Node $node): Playable
    {
        if ($node->optional('kind')?->value !== DesignKind::Filled->value) {
            $this->rights->need(Right::HandOver);
        }

        return $this->programmes->source($node);
    }

    /** What putting earlier releases back would mean. Nothing is done. */
    #[Route('/api/handover/back/preview', methods: ['POST'])]
    #[Needs(Right::HandOver)]
    public function backPreview(Request $request): JsonResponse
    {
        $releases = $this->earlier(Body::of($request));

        return new JsonResponse(['offers' => array_map(
            static fn (Offer $offer): array => ['back_to' => $releases[$offer->displays[0]]->toArray()] + $offer->toArray(),
            $this->offers->back($releases),
        )]);
    }

    /** Puts earlier releases back, each as a new one: the same revisions, planned for the days to come. */
    #[Route('/api/handover/back', methods: ['POST'])]
    #[Needs(Right::HandOver)]
    public function putBack(Request $request): JsonResponse
    {
        $releases = $this->earlier(Body::of($request));
        $names = array_unique(array_map(static fn (HandedRelease $release): string => $release->name, $releases));
        $name = count($names) === 1 ? reset($names) : sprintf('what was there before on %d displays', count($releases));

        return $this->begun("Back: $name", $this->offers->back($releases), array_map(static fn (HandedRelease $release): int => $release->number, $releases));
    }

    /**
     * Those that are named as `releases`, a display and a number each; or, with `handing`, what was on its displays before it, wherever they still have what it brought.
     *
     * @return non-empty-array<HandedRelease> by display
     */
    private function earlier(Node $body): array
    {
        $body->object('releases', 'handing');
        $earlier = [];
        if (($handing = $body->optional('handing')) !== null) {
            $earlier = $this->handed->before($handing->id());

            return $earlier === [] ? throw new Problem(409, 'back.nothing', 'On none of its displays is what it brought still there, with something before it to put back.') : $earlier;
        }
        foreach ($body->field('releases')->items(10_000) as $node) {
            $node->object('display', 'number');
            $release = $this->handed->numbered($this->targets->display($node->field('display')->id())->id, $node->field('number')->int(1));
            $earlier[$release->display->id] = $release;
        }

        foreach ($earlier as $release) {
            if ($release->pruned) {
                throw new Problem(409, 'release.gone', sprintf(
                    'Release %d of "%s" cannot be put back: it is older than %d days and not among its last %d, so what it was made of is gone.',
                    $release->number,
                    $release->display->display()->name,
                    Prune::RELEASE_DAYS,
                    Prune::RELEASES,
                ));
            }
        }

        return $earlier === [] ? throw $body->field('releases')->refused(Reason::FieldMissing, 'names no release; choose at least one.') : $earlier;
    }

    /**
     * @param list<Offer> $offers
     * @param array<int> $back numbers of the releases that are put back, by display
     */
    private function begun(string $name, array $offers, array $back = []): JsonResponse
    {
        return new JsonResponse(['handing' => $this->begin->of($name, $offers, $back)->toArray()], 202);
    }

    /** What was handed over last, the newest first, and how far it is. */
    #[Route('/api/handings', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function handings(): JsonResponse
    {
        return new JsonResponse(['handings' => $this->handings->latest()]);
    }

    #[Route('/api/handings/{id}', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function handing(string $id): JsonResponse
    {
        return new JsonResponse($this->handings->one($id)->toArray() + [
            'releases' => array_map(static fn (HandedRelease $release): array => ['display' => $release->display->id] + $release->toArray(), $this->handed->broughtBy($id)),
        ]);
    }

    /** Tries again what could not be handed over. */
    #[Route('/api/handings/{id}/again', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function again(string $id): JsonResponse
    {
        return new JsonResponse(['handing' => $this->handings->retried($id)->toArray()], 202);
    }

    /** What was handed over to a display, newest first. */
    #[Route('/api/displays/{id}/releases', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function releases(string $id): JsonResponse
    {
        $display = $this->targets->display($id);

        return new JsonResponse([
            'current' => $this->handed->on($display)?->number,
            'releases' => array_map(static fn (HandedRelease $release): array => $release->toArray(), $this->handed->of($display)),
        ]);
    }
}
