<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\ORM\EntityManagerInterface;
use UpperPane\App\Account\Reach;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;

/** Devices that play, on displays within reach of whoever asks. */
final readonly class Players
{
    public function __construct(private EntityManagerInterface $entities, private Reach $reach)
    {
    }

    /** @return list<Player> the one that was bound first first */
    public function all(): array
    {
        /** @var list<Player> $players */
        $players = $this->entities->createQueryBuilder()->select('p')->from(Player::class, 'p')->join('p.display', 'd')
            ->where($this->reach->condition('display', 'd.id'))->orderBy('p.boundAt')->addOrderBy('p.id')->getQuery()->getResult();

        return $players;
    }

    public function one(string $id): Player
    {
        $player = $this->entities->createQueryBuilder()->select('p')->from(Player::class, 'p')->join('p.display', 'd')
            ->where('p.id = :id')->andWhere($this->reach->condition('display', 'd.id'))->setParameter('id', $id)->getQuery()->getOneOrNullResult();

        return $player instanceof Player ? $player : throw Problem::notFound('This player');
    }

    /** @return list<Player> those that play on a display */
    public function on(SurveyedDisplay $display): array
    {
        return $this->entities->getRepository(Player::class)->findBy(['display' => $display, 'revokedAt' => null]);
    }

    public function add(Player $player): void
    {
        $this->entities->persist($player);
    }
}
