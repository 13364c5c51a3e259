<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Account\Who;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Layout\Division\Recipe;

/** Divisions that the team keeps: kept under a name, and removed. */
final readonly class KeptDivisions
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Transaction $transaction,
        private Record $record,
        private Who $who,
        private ClockInterface $clock,
    ) {
    }

    /** @return list<KeptDivision> in the order of their names */
    public function all(): array
    {
        return $this->entities->getRepository(KeptDivision::class)->findBy([], ['name' => 'ASC', 'id' => 'ASC']);
    }

    public function keep(string $name, Recipe $recipe): KeptDivision
    {
        return $this->transaction->of(function () use ($name, $recipe): KeptDivision {
            if ($this->entities->getRepository(KeptDivision::class)->findOneBy(['name' => $name]) !== null) {
                throw new Problem(409, 'division.exists', sprintf('A division "%s" is kept already. Give this one another name, or remove that one first.', $name));
            }
            $kept = new KeptDivision(strtolower((string) new Ulid()), $name, $recipe->toArray(), $this->clock->now(), $this->who->login());
            $this->entities->persist($kept);
            $this->record->note(Did::Made, $kept->about());

            return $kept;
        });
    }

    public function remove(string $id): void
    {
        $this->transaction->of(function () use ($id): void {
            $kept = $this->entities->find(KeptDivision::class, $id) ?? throw Problem::notFound('This division');
            $this->record->note(Did::Deleted, $kept->about());
            $this->entities->remove($kept);
        });
    }
}
