<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\RateLimiter\RateLimiterFactory;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Http\Problem;

/** What a new player may ask before anybody knows it. */
final readonly class PairingController
{
    public function __construct(private EntityManagerInterface $entities, private ClockInterface $clock, private RateLimiterFactory $pairing)
    {
    }

    #[Route('/api/pairing', methods: ['POST'])]
    public function begin(Request $request): JsonResponse
    {
        if (!$this->pairing->create('new|' . $request->getClientIp())->consume()->isAccepted()) {
            throw new Problem(429, 'pairing.throttled', 'Too many new players from this address. This page tries again in a minute.');
        }
        $now = $this->clock->now();
        $this->entities->createQuery('DELETE FROM ' . Pairing::class . ' p WHERE p.endsAt < :old')->execute(['old' => $now->modify('-1 day')]);
        $pairing = new Pairing(bin2hex(random_bytes(24)), Pairing::newCode(), $now->modify('+' . Pairing::MINUTES . ' minutes'));
        $this->entities->persist($pairing);
        $this->entities->flush();

        return new JsonResponse(['claim' => $pairing->claim, 'code' => $pairing->code, 'ends_at' => $pairing->endsAt->format('Y-m-d\TH:i:s\Z')], 201);
    }

    #[Route('/api/pairing/{claim}', methods: ['GET'])]
    public function ask(string $claim): JsonResponse
    {
        $pairing = $this->entities->find(Pairing::class, $claim) ?? throw Problem::notFound('This code');

        return new JsonResponse([
            'address' => $pairing->player !== null && $pairing->player->revokedAt === null ? $pairing->player->address() : null,
            'ended' => $pairing->player === null && $pairing->endsAt < $this->clock->now(),
        ]);
    }
}
