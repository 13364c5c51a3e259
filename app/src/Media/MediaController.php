<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use Doctrine\ORM\EntityManagerInterface;
use League\Flysystem\FilesystemOperator;
use Psr\Clock\ClockInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\DependencyInjection\Attribute\Target;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Http\Problem;
use UpperPane\App\Http\Upload;
use UpperPane\App\Storage\Deleting;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Media\Swatches;

final readonly class MediaController
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Transaction $transaction,
        private MessageBusInterface $jobs,
        private ClockInterface $clock,
        private Security $security,
        private Deleting $deleting,
        #[Target('incoming')]
        private FilesystemOperator $incoming,
    ) {
    }

    #[Route('/api/media', methods: ['GET'])]
    public function list(): JsonResponse
    {
        $assets = $this->entities->getRepository(MediaAsset::class)->findBy([], ['broughtInAt' => 'DESC', 'id' => 'DESC']);

        return new JsonResponse([
            'media' => array_map(static fn (MediaAsset $asset): array => $asset->toArray(), $assets),
            'findings' => array_values(array_filter(array_map(static fn (MediaAsset $asset): ?array => $asset->finding()?->toArray(), $assets))),
        ]);
    }

    #[Route('/api/media/{id}', methods: ['GET'])]
    public function show(string $id): JsonResponse
    {
        return new JsonResponse($this->asset($id)->toArray());
    }

    /** The colour that most of the edge of a picture has, for the ground of the box that it is put into. */
    #[Route('/api/media/{id}/edge', methods: ['GET'])]
    public function edge(string $id, Swatches $swatches): JsonResponse
    {
        $asset = $this->asset($id);
        $media = $asset->media();
        $edge = $media === null ? null : $swatches->of($media)?->edge();
        if ($edge === null) {
            throw new Problem(409, 'edge.unknown', sprintf('"%s" has no colour at its edge: it is see-through there, or not looked at yet.', $asset->name));
        }

        return new JsonResponse(['color' => $edge['color']->hex, 'share' => round($edge['share'], 3)]);
    }

    #[Route('/api/media', methods: ['POST'])]
    public function bringIn(Request $request): JsonResponse
    {
        $upload = Upload::of($request);
        $asset = new MediaAsset(
            strtolower((string) new Ulid()),
            $upload->name,
            (int) $upload->file->getSize(),
            $this->clock->now(),
            $this->security->getUser()?->getUserIdentifier(),
        );
        $stream = fopen($upload->file->getPathname(), 'r') ?: throw new \RuntimeException('The upload cannot be read.');
        $isNoted = false;
        try {
            $this->incoming->writeStream($asset->id, $stream);
            $this->transaction->of(function () use ($asset): void {
                $this->entities->persist($asset);
                $this->jobs->dispatch(new ProbeMedia($asset->id));
            });
            $isNoted = true;
        } finally {
            $isNoted ?: $this->incoming->delete($asset->id);
        }

        return new JsonResponse($asset->toArray(), 202);
    }

    /** Looks again into a media that could not be looked into. */
    #[Route('/api/media/{id}/again', methods: ['POST'])]
    public function again(string $id, ProbeMediaHandler $probe): JsonResponse
    {
        $asset = $this->asset($id);
        if ($asset->state !== MediaAsset::FAILED) {
            throw new Problem(409, 'media.not-failed', sprintf('"%s" is %s; there is nothing to try again.', $asset->name, $asset->state));
        }
        $this->transaction->of(fn () => $probe->again(new ProbeMedia($id)));

        return new JsonResponse($asset->toArray(), 202);
    }

    #[Route('/api/media/{id}', methods: ['DELETE'])]
    public function delete(string $id): JsonResponse
    {
        $asset = $this->asset($id);
        $this->deleting->of('media', $asset->id, $asset->name, 'media_asset', $this->security->getUser()?->getUserIdentifier());

        return new JsonResponse(null, 204);
    }

    private function asset(string $id): MediaAsset
    {
        return $this->entities->find(MediaAsset::class, $id) ?? throw Problem::notFound('This media');
    }
}
