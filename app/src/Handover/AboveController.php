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
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** What lies above what plays, as places say: on how many displays, now and next; and how one would look. */
final readonly class AboveController
{
    /** So far ahead it is looked for when one is shown next. */
    private const AHEAD_MS = 366 * 86_400_000;

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
                $told[] = self::told(Overlay::fromNode(Node::root($design->document)), $holds[$design->id] ?? [], $now);
            } catch (Refused $e) {
                $told[] = ['id' => $design->id, 'trouble' => $e->getMessage()];
            }
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
    public function put(Request $request, PutAbove $put, Targets $targets, BeginHandover $begin): JsonResponse
    {
        $body = Body::of($request)->object('displays', 'places', 'name');
        $offers = $put->offers($targets->named($body));
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

        return new JsonResponse($look->overlay(Body::document($body->field('document')), $targets->named($body)));
    }

    /**
     * @param array<string, int> $zones displays on which it holds, by time zone
     * @return array<string, mixed>
     */
    private static function told(Overlay $overlay, array $zones, int $nowMs): array
    {
        [$now, $next, $until] = [0, null, null];
        foreach ($zones as $zone => $count) {
            $spells = $overlay->when->spells(WallClock::in($zone), $nowMs, $nowMs + self::AHEAD_MS);
            $first = $spells[0] ?? null;
            if ($first !== null && $first->fromMs <= $nowMs) {
                $now += $count;
                $until = max($until ?? 0, $first->toMs);
            } elseif ($first !== null) {
                $next = min($next ?? PHP_INT_MAX, $first->fromMs);
            }
        }
        $goesOn = $until !== null && $until >= $nowMs + self::AHEAD_MS;

        return [
            'id' => $overlay->id,
            'kind' => $overlay->kind,
            'displays' => array_sum($zones),
            'zones' => array_map(static fn (string|int $zone, int $count): array => ['timezone' => (string) $zone, 'displays' => $count], array_keys($zones), array_values($zones)),
            'now' => $now,
            'until' => $until === null || $goesOn ? null : (string) Instant::ofMs($until),
            'next' => $next === null ? null : (string) Instant::ofMs($next),
            'is_over' => $zones !== [] && $now === 0 && $next === null,
            'has_no_end' => $overlay->when->hasNoEnd(),
        ];
    }
}
