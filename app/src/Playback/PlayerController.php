<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Display\DisplaysChanged;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Display\Feed;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** Players as the designer and operator see them. */
final readonly class PlayerController
{
    public function __construct(private EntityManagerInterface $entities, private Transaction $transaction, private Pointers $pointers, private ClockInterface $clock)
    {
    }

    #[Route('/api/players', methods: ['GET'])]
    public function list(): JsonResponse
    {
        $players = $this->entities->getRepository(Player::class)->findBy([], ['boundAt' => 'ASC']);

        return new JsonResponse([
            'now' => $this->clock->now()->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z'),
            'players' => array_map(static fn (Player $player): array => $player->toArray(), $players),
        ]);
    }

    /** Binds the player that shows this code to a display. */
    #[Route('/api/players', methods: ['POST'])]
    public function bind(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('code', 'display', 'name', 'part');
        $code = strtoupper((string) preg_replace('/[\s-]+/', '', $body->field('code')->text(1, 20)));
        $display = $this->entities->find(SurveyedDisplay::class, $body->field('display')->id()) ?? throw Problem::notFound('This display');
        $pairing = $this->entities->getRepository(Pairing::class)->findOneBy(['code' => $code]);
        if ($pairing === null) {
            throw new Problem(422, 'pairing.wrong', sprintf('No player shows the code %s. Read it again from its screen.', $code), '/code');
        }
        if ($pairing->player !== null) {
            throw new Problem(422, 'pairing.used', sprintf('The code %s is used: its player is bound to %s.', $code, $pairing->player->display->display()->name), '/code');
        }
        if ($pairing->endsAt < $this->clock->now()) {
            throw new Problem(422, 'pairing.ended', sprintf('The code %s is older than %d minutes. The player shows a new one by now.', $code, Pairing::MINUTES), '/code');
        }
        $name = $body->optional('name')?->name(120) ?? 'Player of ' . $display->display()->name;
        $player = new Player(strtolower((string) new Ulid()), $name, $display, Player::newSecret(), $this->clock->now());
        $player->part = $this->part($display, $body->optional('part'));
        $this->transaction->of(function () use ($pairing, $player, $display): void {
            $pairing->player = $player;
            $this->entities->persist($player);
            $this->pointers->due(new DisplaysChanged([$display->id]));
        });

        return new JsonResponse($player->toArray(), 201);
    }

    /** Which surveyed player of the display it is: the one named, else the first that nobody plays yet, else the first. */
    private function part(SurveyedDisplay $display, ?Node $asked): ?string
    {
        $parts = array_values(array_unique(array_filter(array_map(static fn (Feed $feed): ?string => $feed->player, Feed::of($display->display())))));
        if ($asked !== null && $asked->value !== null) {
            return in_array($asked->id(), $parts, true)
                ? $asked->id()
                : throw $asked->refused(Reason::RefUnknown, sprintf('is "%s"; the players of this display are %s.', $asked->id(), implode(', ', $parts)));
        }
        $taken = array_map(static fn (Player $player): ?string => $player->part, $this->entities->getRepository(Player::class)->findBy(['display' => $display, 'revokedAt' => null]));

        return array_values(array_diff($parts, $taken))[0] ?? $parts[0] ?? null;
    }

    /** Leads to the page that it plays on, without telling its address to whoever sees the desk. */
    #[Route('/api/players/{id}/open', methods: ['GET'])]
    public function open(string $id, Request $request): RedirectResponse
    {
        $player = $this->entities->find(Player::class, $id);
        if ($player === null || $player->revokedAt !== null) {
            throw Problem::notFound('This player');
        }
        $output = $request->query->getInt('output');

        return new RedirectResponse($player->address() . ($output > 0 ? "?output=$output" : ''));
    }

    /** Takes a player's address back: it stops, and the address works no more. */
    #[Route('/api/players/{id}', methods: ['DELETE'])]
    public function revoke(string $id): JsonResponse
    {
        $player = $this->entities->find(Player::class, $id) ?? throw Problem::notFound('This player');
        $this->transaction->of(function () use ($player): void {
            $player->revokedAt ??= $this->clock->now();
            $player->pointerDue = true;
            $this->pointers->due(new DisplaysChanged([$player->display->id]));
        });

        return new JsonResponse($player->toArray());
    }
}
