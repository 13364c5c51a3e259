<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Overlay\NowAndNext;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Units\Instant;

/** What lies above what plays, as places say: on how many displays, now and next; and how one would look. */
final readonly class AboveController
{
    /** Of a document, what says where on the screen and when. */
    private const LISTED = ['kind' => 1, 'corner' => 1, 'edge' => 1, 'room' => 1, 'place' => 1, 'when' => 1];

    public function __construct(private Designs $designs, private OverlaysHeld $held, private InForce $inForce)
    {
    }

    #[Route('/api/above', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function all(): JsonResponse
    {
        [$holds, $now] = [$this->held->all(), $this->inForce->nowMs()];
        $told = [];
        foreach ($this->designs->all(DesignKind::Overlay) as $design) {
            try {
                $own = self::told(Overlay::fromNode(Node::root($design->document)), $holds[$design->id] ?? [], $now);
            } catch (Refused $e) {
                $own = ['id' => $design->id, 'trouble' => $e->getMessage()];
            }
            $told[] = $own + ['says' => array_intersect_key($design->document, self::LISTED)];
        }

        return new JsonResponse(['overlays' => $told]);
    }

    /** What putting up the overlays that hold by now would mean on displays; all else that stands there stays as it was handed over. */
    #[Route('/api/above/preview', methods: ['POST'])]
    #[Needs(Right::HandOver)]
    public function preview(Request $request, PutAbove $put, Targets $targets): JsonResponse
    {
        $offers = $put->offers($targets->named(Body::of($request)->object('displays', 'places')));

        return new JsonResponse(['offers' => array_map(static fn (Offer $offer): array => $offer->toArray(), $offers)]);
    }

    #[Route('/api/above', methods: ['POST'])]
    #[Needs(Right::HandOver)]
    public function put(Request $request, PutAbove $put, Targets $targets, HandedReleaseRepository $releases, BeginHandover $begin): JsonResponse
    {
        $body = Body::of($request)->object('displays', 'places', 'overlay', 'name');
        $overlay = $body->optional('overlay')?->id();
        // Also where one has been taken off since.
        $displays = $overlay === null ? $targets->named($body) : array_values(array_unique([...$this->held->on($overlay), ...$releases->carrying($overlay)]));
        $offers = $put->offers($displays);
        if ($offers === []) {
            throw new Problem(409, 'above.same', 'On all of these displays just these overlays stand already.');
        }

        return new JsonResponse(['handing' => $begin->of($body->optional('name')?->name() ?? 'Overlays', $offers)->toArray()], 202);
    }

    /** How an overlay would look on those of its displays that differ most, above what will really play there, and what is found; nothing is done. */
    #[Route('/api/above/look', methods: ['POST'])]
    #[Needs(Right::Look)]
    public function look(Request $request, LookAbove $look, Targets $targets): JsonResponse
    {
        $body = Body::of($request)->object('document', 'displays', 'places');
        $document = Body::document($body->field('document'));

        return new JsonResponse($look->overlay($document, $this->meant($body, $document, $targets)));
    }

    /** Where else it could lie and cover less; nothing is done. */
    #[Route('/api/above/cures', methods: ['POST'])]
    #[Needs(Right::Look)]
    public function cures(Request $request, LookAbove $look, Targets $targets): JsonResponse
    {
        $body = Body::of($request)->object('document', 'displays', 'places');
        $document = Body::document($body->field('document'));

        return new JsonResponse(['cures' => $look->cures($document, $this->meant($body, $document, $targets))]);
    }

    /**
     * Those that are named; else those on which it holds; where it holds nowhere, all.
     *
     * @param array<string, mixed> $document
     * @return list<string>
     */
    private function meant(Node $body, array $document, Targets $targets): array
    {
        if ($body->has('displays') || $body->has('places')) {
            return $targets->named($body);
        }
        $held = is_string($document['id'] ?? null) ? $this->held->on($document['id']) : [];

        return $held === [] ? $this->held->anywhere() : $held;
    }

    /**
     * @param array<string, int> $zones displays on which it holds, by time zone
     * @return array<string, mixed>
     */
    private static function told(Overlay $overlay, array $zones, int $nowMs): array
    {
        $shown = NowAndNext::of($overlay, $zones, $nowMs);
        $instant = static fn (?int $ms): ?string => $ms === null ? null : (string) Instant::ofMs($ms);

        return [
            'id' => $overlay->id,
            'kind' => $overlay->kind,
            'displays' => array_sum($zones),
            'zones' => array_map(static fn (string|int $zone, int $count): array => ['timezone' => (string) $zone, 'displays' => $count], array_keys($zones), array_values($zones)),
            'now' => $shown->now,
            'until' => $instant($shown->untilMs),
            'next' => $instant($shown->nextMs),
            'is_over' => $shown->isOver,
            'has_no_end' => $overlay->when->hasNoEnd(),
        ];
    }
}
