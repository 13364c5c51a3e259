<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Http\Body;

/** What sensors say before a display, and that somebody wants to learn it. */
final readonly class HearsayController
{
    private const LONGEST_MIN = 60;

    public function __construct(private Displays $displays, private Hearsay $hearsay)
    {
    }

    #[Route('/api/displays/{id}/heard', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function heard(string $id): JsonResponse
    {
        return new JsonResponse($this->hearsay->of($this->displays->one($id)));
    }

    #[Route('/api/displays/{id}/heard', methods: ['POST'])]
    #[Needs(Right::Survey)]
    public function learn(string $id, Request $request): JsonResponse
    {
        $display = $this->displays->one($id);
        $this->hearsay->learn($display, Body::of($request)->object('minutes')->field('minutes')->int(0, self::LONGEST_MIN, 'min'));

        return new JsonResponse($this->hearsay->of($this->displays->one($id)));
    }
}
