<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\RateLimiter\RateLimiterFactory;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Http\Problem;

/** What a new player may ask before anybody knows it. */
final readonly class PairingController
{
    public function __construct(private Pairings $pairings, private ClockInterface $clock, private RateLimiterFactory $pairing)
    {
    }

    #[Route('/api/pairing', methods: ['POST'])]
    #[Needs(null)]
    public function begin(Request $request): JsonResponse
    {
        if (!$this->pairing->create('new|' . $request->getClientIp())->consume()->isAccepted()) {
            throw new Problem(429, 'pairing.throttled', 'Too many new players from this address. This page tries again in a minute.');
        }
        $pairing = $this->pairings->begin();

        return new JsonResponse(['claim' => $pairing->claim, 'code' => $pairing->code, 'ends_at' => $pairing->endsAt->format('Y-m-d\TH:i:s\Z')], 201);
    }

    #[Route('/api/pairing/{claim}', methods: ['GET'])]
    #[Needs(null)]
    public function ask(string $claim): JsonResponse
    {
        $pairing = $this->pairings->one($claim);

        return new JsonResponse([
            'address' => $pairing->player !== null && $pairing->player->revokedAt === null ? $pairing->player->address() : null,
            'ended' => $pairing->player === null && $pairing->endsAt < $this->clock->now(),
        ]);
    }
}
