<?php

declare(strict_types=1);

namespace UpperPane\App\Text;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Http\Problem;
use UpperPane\App\Http\Upload;
use UpperPane\App\Media\Publisher;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Document\FaceRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Text\FaceFile;
use UpperPane\Core\Text\FaceIdentity;

/** Type faces: those of the house, and those that are brought in. */
#[Route('/api/faces')]
final readonly class FaceController
{
    private const MOST_BYTES = 30_000_000;

    public function __construct(
        private HouseFaces $faces,
        private EntityManagerInterface $entities,
        private Connection $connection,
        private Publisher $publisher,
        private ClockInterface $clock,
        private Security $security,
    ) {
    }

    #[Route('', methods: ['GET'])]
    public function list(): JsonResponse
    {
        return new JsonResponse(['faces' => $this->faces->all()]);
    }

    #[Route('', methods: ['POST'])]
    public function bringIn(Request $request): JsonResponse
    {
        $upload = Upload::of($request);
        [$file, $name] = [$upload->file, $upload->name];
        if ($file->getSize() > self::MOST_BYTES) {
            $megabytes = intdiv((int) $file->getSize(), 1_000_000);
            throw FaceRefused::because(Reason::FaceRefused, sprintf('"%s" has %d MB; a face has at most %d.', $name, $megabytes, intdiv(self::MOST_BYTES, 1_000_000)), '');
        }
        $bytes = $file->getContent();
        try {
            $identity = FaceIdentity::fromBytes($bytes);
        } catch (FaceRefused $e) {
            throw $e->in(sprintf('"%s" is not taken. ', $name), '');
        }
        foreach ($this->faces->all() as $face) {
            if ($face['family'] === $identity->family && $face['weight'] === $identity->weight) {
                throw new Problem(409, 'face.exists', sprintf('%s %d is there already. Take that one away first, if this is to stand in its place.', $identity->family, $identity->weight));
            }
        }
        [$path, $sha256] = $this->publisher->file($file->getPathname(), 'ttf');
        $face = new BroughtFace(
            strtolower((string) new Ulid()),
            $identity->family,
            $identity->weight,
            $path,
            $sha256,
            strlen($bytes),
            FaceFile::fromBytes($bytes)->capShare ?? Legibility::CAP_SHARE,
            $this->clock->now(),
            $this->security->getUser()?->getUserIdentifier(),
        );
        $this->entities->persist($face);
        $this->entities->flush();

        return new JsonResponse($face->toArray() + ['variable' => $identity->isVariable], 201);
    }

    #[Route('/{id}', methods: ['DELETE'])]
    public function remove(string $id): JsonResponse
    {
        $face = $this->entities->find(BroughtFace::class, $id) ?? throw Problem::notFound('This face');
        $others = array_filter($this->faces->all(), static fn (array $other): bool => $other['family'] === $face->family && ($other['id'] ?? null) !== $face->id);
        $users = $others !== [] ? [] : $this->connection->fetchFirstColumn(
            'SELECT name FROM design WHERE JSON_SEARCH(document, "one", ?, NULL, "$**.family") IS NOT NULL ORDER BY name LIMIT 10',
            [addcslashes($face->family, '%_\\')],
        );
        if ($users !== []) {
            $names = array_map(static fn (mixed $name): string => is_string($name) ? "\"$name\"" : '', $users);
            throw new Problem(409, 'face.used', sprintf('%s is the face of texts in %s. Set those in another one first.', $face->family, implode(', ', $names)));
        }
        $this->entities->remove($face);
        $this->entities->flush();

        return new JsonResponse(null, 204);
    }
}
