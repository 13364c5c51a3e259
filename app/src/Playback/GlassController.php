<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Http\Problem;

/** Pictures of what is on the glass: sent by the agent beside a player's browser, looked at in the desk. */
final readonly class GlassController
{
    private const MOST_OUTPUTS = 64;

    public function __construct(private GlassPictures $pictures, private Players $players)
    {
    }

    /** A JPEG as the body; `?output=` where the player has several, `age_ms` how long ago it was drawn. */
    #[Route('/api/play/{secret}/glass', methods: ['POST'])]
    #[Needs(null)]
    public function take(string $secret, Request $request): JsonResponse
    {
        $output = max(1, min(self::MOST_OUTPUTS, $request->query->getInt('output', 1)));
        $nextS = $this->pictures->take($secret, $output, $request->query->getInt('age_ms'), $request->getContent());

        return $nextS === null ? throw Problem::notFound('This player') : new JsonResponse(['next_s' => $nextS]);
    }

    #[Route('/api/displays/{id}/glass', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function list(string $id, Displays $displays): JsonResponse
    {
        return new JsonResponse(['glass' => $this->pictures->lookedAt($displays->one($id)->id)]);
    }

    #[Route('/api/players/{id}/glass/{output}', methods: ['GET'], requirements: ['output' => '\d{1,2}'])]
    #[Needs(Right::Look)]
    public function show(string $id, int $output): Response
    {
        return new Response($this->pictures->of($this->players->one($id), $output), 200, [
            'Content-Type' => 'image/jpeg',
            'Cache-Control' => 'private, max-age=86400, immutable',
        ]);
    }
}
