<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Transaction;

/** Codes that new players show until somebody types them at the desk. */
final readonly class Pairings
{
    public function __construct(private EntityManagerInterface $entities, private Transaction $transaction, private ClockInterface $clock)
    {
    }

    /** A code for a player that nobody knows yet; those that ended a day ago go. */
    public function begin(): Pairing
    {
        return $this->transaction->of(function (): Pairing {
            $now = $this->clock->now();
            $this->entities->createQuery('DELETE FROM ' . Pairing::class . ' p WHERE p.endsAt < :old')->execute(['old' => $now->modify('-1 day')]);
            $pairing = new Pairing(bin2hex(random_bytes(24)), Pairing::newCode(), $now->modify('+' . Pairing::MINUTES . ' minutes'));
            $this->entities->persist($pairing);

            return $pairing;
        });
    }

    public function one(string $claim): Pairing
    {
        return $this->entities->find(Pairing::class, $claim) ?? throw Problem::notFound('This code');
    }

    public function ofCode(string $code): ?Pairing
    {
        return $this->entities->getRepository(Pairing::class)->findOneBy(['code' => $code]);
    }
}
