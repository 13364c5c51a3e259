<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Media\MediaAsset;

/** First shown: where and when something saved is next seen, or why it never is. */
final readonly class FirstShownController
{
    public function __construct(private EntityManagerInterface $entities, private FirstShownFinder $sightings)
    {
    }

    #[Route('/api/{plural}/{id}/first-shown', methods: ['GET'], requirements: ['plural' => 'layouts|playlists|schedules'])]
    public function design(string $plural, string $id): JsonResponse
    {
        $kind = DesignKind::ofPlural($plural);
        $design = $this->entities->find(Design::class, $id);

        return $design !== null && $design->kind === $kind ? new JsonResponse($this->sightings->of($kind->value, $id)) : throw Problem::notFound("This $kind->value");
    }

    #[Route('/api/media/{id}/first-shown', methods: ['GET'])]
    public function media(string $id): JsonResponse
    {
        return $this->entities->find(MediaAsset::class, $id) === null ? throw Problem::notFound('This media') : new JsonResponse($this->sightings->of('media', $id));
    }
}
