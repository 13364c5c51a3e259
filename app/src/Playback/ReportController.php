<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Units\Instant;

/** What players say of themselves; the secret of their address is their pass. */
final readonly class ReportController
{
    public function __construct(private EntityManagerInterface $entities, private ClockInterface $clock)
    {
    }

    #[Route('/api/play/{secret}/report', methods: ['POST'])]
    public function report(string $secret, Request $request): JsonResponse
    {
        $player = $this->entities->getRepository(Player::class)->findOneBy(['secret' => $secret]);
        if ($player === null || $player->revokedAt !== null) {
            throw Problem::notFound('This player');
        }
        $body = Body::of($request)->object('release', 'since', 'trouble');
        $release = $body->field('release');
        $player->calledAt = $this->clock->now();
        $player->playsSha256 = $release->value === null ? null : $release->text(64, 64);
        $since = $body->optional('since');
        $player->playsSince = $since === null || $since->value === null
            ? null
            : (new \DateTimeImmutable())->setTimestamp(intdiv(Instant::parse($since->text(), '/since')->ms, 1000))->setTimezone(new \DateTimeZone('UTC'));
        $trouble = $body->optional('trouble');
        $player->trouble = $trouble === null || $trouble->value === null ? null : mb_strimwidth($trouble->text(0, 2000), 0, 300, '...');
        $this->entities->flush();

        return new JsonResponse(null, 204);
    }
}
