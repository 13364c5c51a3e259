<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;

/** Players as the designer and operator see them. */
final readonly class PlayerController
{
    public function __construct(private Players $players, private ClockInterface $clock)
    {
    }

    /** With their addresses, which are their passes. */
    #[Route('/api/players', methods: ['GET'])]
    #[Needs(Right::Survey)]
    public function list(): JsonResponse
    {
        return new JsonResponse([
            'now' => $this->clock->now()->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z'),
            'players' => array_map(static fn (Player $player): array => $player->toArray(), $this->players->all()),
        ]);
    }

    /** Binds the player that shows this code to a display. */
    #[Route('/api/players', methods: ['POST'])]
    #[Needs(Right::Survey)]
    public function bind(Request $request, Displays $displays, BindPlayer $bind): JsonResponse
    {
        $body = Body::of($request)->object('code', 'display', 'name', 'part');
        $code = $body->field('code')->text(1, 20);
        $display = $displays->one($body->field('display')->id());

        return new JsonResponse($bind->of($code, $display, $body->optional('name')?->name(120), $body->given('part'))->toArray(), 201);
    }

    /** Leads to the page that it plays on, without telling its address to whoever sees the desk. */
    #[Route('/api/players/{id}/open', methods: ['GET'])]
    #[Needs(Right::Survey)]
    public function open(string $id, Request $request): RedirectResponse
    {
        $player = $this->players->one($id);
        if ($player->revokedAt !== null) {
            throw Problem::notFound('This player');
        }
        $output = $request->query->getInt('output');

        return new RedirectResponse($player->address() . ($output > 0 ? "?output=$output" : ''));
    }

    #[Route('/api/players/{id}', methods: ['DELETE'])]
    #[Needs(Right::Survey)]
    public function revoke(string $id, RevokePlayer $revoke): JsonResponse
    {
        return new JsonResponse($revoke->of($id)->toArray());
    }
}
