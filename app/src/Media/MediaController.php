<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Http\Upload;
use UpperPane\App\Storage\Deleting;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Media\Swatches;

final readonly class MediaController
{
    public function __construct(private MediaAssets $media)
    {
    }

    #[Route('/api/media', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function list(): JsonResponse
    {
        $assets = $this->media->all();

        return new JsonResponse([
            'media' => array_map(static fn (MediaAsset $asset): array => $asset->toArray(), $assets),
            'findings' => array_values(array_filter(array_map(static fn (MediaAsset $asset): ?array => $asset->finding()?->toArray(), $assets))),
        ]);
    }

    #[Route('/api/media/{id}', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function show(string $id): JsonResponse
    {
        return new JsonResponse($this->media->one($id)->toArray());
    }

    /** The colour that most of the edge of a picture has, for the ground of the box that it is put into. */
    #[Route('/api/media/{id}/edge', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function edge(string $id, Swatches $swatches): JsonResponse
    {
        $asset = $this->media->one($id);
        $media = $asset->media();
        $edge = $media === null ? null : $swatches->of($media)?->edge();
        if ($edge === null) {
            throw new Problem(409, 'edge.unknown', sprintf('"%s" has no colour at its edge: it is see-through there, or not looked at yet.', $asset->name));
        }

        return new JsonResponse(['color' => $edge['color']->hex, 'share' => round($edge['share'], 3)]);
    }

    #[Route('/api/media', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function bringIn(Request $request, BringInMedia $bringIn): JsonResponse
    {
        return new JsonResponse($bringIn->of(Upload::of($request))->toArray(), 202);
    }

    #[Route('/api/media/{id}/again', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function again(string $id, LookAgain $again): JsonResponse
    {
        return new JsonResponse($again->of($id)->toArray(), 202);
    }

    /** A part of a picture as a picture of its own. */
    #[Route('/api/media/{id}/cut', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function cut(string $id, Request $request, CutPicture $cut): JsonResponse
    {
        return new JsonResponse($cut->of($this->media->one($id), Body::of($request)->object('x', 'y', 'width', 'height'))->toArray(), 201);
    }

    /** What that would mean in the box that it is to fill. */
    #[Route('/api/media/{id}/cut/look', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function lookAtCut(string $id, Request $request, CutPicture $cut): JsonResponse
    {
        $body = Body::of($request)->object('part', 'box');

        return new JsonResponse($cut->look($this->media->one($id), $body->field('part'), Size::fromNode($body->field('box')))->toArray());
    }

    #[Route('/api/media/{id}', methods: ['DELETE'])]
    #[Needs(Right::Design)]
    public function delete(string $id, Deleting $delete): JsonResponse
    {
        $delete->of($this->media->one($id));

        return new JsonResponse(null, 204);
    }
}
