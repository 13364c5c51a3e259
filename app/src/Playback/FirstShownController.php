<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Media\MediaAssets;

/** First shown: where and when something saved is next seen, or why it never is. */
final readonly class FirstShownController
{
    public function __construct(private Designs $designs, private MediaAssets $media, private FirstShownFinder $sightings)
    {
    }

    #[Route('/api/{plural}/{id}/first-shown', methods: ['GET'], requirements: ['plural' => 'layouts|filled|playlists|schedules'])]
    #[Needs(Right::Look)]
    public function design(string $plural, string $id): JsonResponse
    {
        $kind = DesignKind::ofPlural($plural);
        $shown = match ($kind) {
            DesignKind::Layout, DesignKind::Filled, DesignKind::Playlist, DesignKind::Schedule => $kind->value,
            default => throw Problem::notFound('What this shows by itself'),
        };

        return new JsonResponse($this->sightings->of($shown, $this->designs->of($kind, $id)->id));
    }

    #[Route('/api/media/{id}/first-shown', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function media(string $id): JsonResponse
    {
        return new JsonResponse($this->sightings->of('media', $this->media->one($id)->id));
    }
}
