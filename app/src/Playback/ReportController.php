<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\DBAL\LockMode;
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
        $body = Body::of($request)->object('release', 'since', 'trouble', 'output', 'build', 'every_s');
        $build = $body->optional('build')?->text(1, 64);
        $every = $body->optional('every_s')?->int(1, 3600, 's');
        $release = $body->field('release');
        $since = $body->optional('since');
        $trouble = $body->optional('trouble');
        $output = $body->optional('output');
        $plays = $release->value === null ? null : $release->text(64, 64);
        $playsSince = $since === null || $since->value === null
            ? null
            : (new \DateTimeImmutable())->setTimestamp(intdiv(Instant::parse($since->text(), '/since')->ms, 1000))->setTimezone(new \DateTimeZone('UTC'));
        $says = $trouble === null || $trouble->value === null ? null : mb_strimwidth($trouble->text(0, 2000), 0, 300, '...');
        // The outputs of a player report side by side: each adds its word to what the others said.
        $this->entities->wrapInTransaction(function () use ($player, $output, $plays, $playsSince, $says, $build, $every): void {
            $this->entities->refresh($player, LockMode::PESSIMISTIC_WRITE);
            $outputs = $player->outputs();
            // What its page can read decides what its pointer names.
            $player->pointerDue = $player->pointerDue || ($player->build === null) !== ($build === null);
            $player->build = $build;
            $player->reportEveryS = $every;
            $player->hear(
                $output === null || $output->value === null ? $outputs[0] ?? 1 : $output->int(1, 64),
                $outputs,
                $this->clock->now(),
                $plays,
                $playsSince,
                $says,
            );
        });

        return new JsonResponse(null, 204);
    }
}
