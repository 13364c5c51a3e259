<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\QueryBuilder;
use UpperPane\App\Account\Reach;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/**
 * Things of a kind, as far as whoever asks reaches them.
 *
 * @template T of Thing
 */
abstract readonly class Reached
{
    public function __construct(protected EntityManagerInterface $entities, protected Reach $reach)
    {
    }

    /** @return class-string<T> */
    abstract protected static function entity(): string;

    /** @return 'display'|'place'|'design'|'media' */
    abstract protected static function kind(): string;

    /** What somebody is told who names one that is not there: `is "X", no ...`. */
    abstract protected static function unknown(): string;

    /** @return ?T null where there is none, or none within reach */
    public function find(string $id): ?object
    {
        return $this->isWithin($id) ? $this->entities->find(static::entity(), $id) : null;
    }

    /** @return T */
    public function one(string $id): object
    {
        return $this->find($id) ?? throw Problem::notFound('This ' . static::kind());
    }

    /**
     * The same in a transaction, which may be done again with all read anew.
     *
     * @param T $thing
     * @return T
     */
    public function same(object $thing): object
    {
        return $this->one($thing->about()->id);
    }

    /** @return T as it stands now; nobody else changes it until the transaction ends */
    public function locked(string $id): object
    {
        $thing = $this->isWithin($id) ? $this->entities->find(static::entity(), $id, LockMode::PESSIMISTIC_WRITE) : null;
        $thing === null ?: $this->entities->refresh($thing);

        return $thing ?? throw Problem::notFound('This ' . static::kind());
    }

    /** @return T that a document or a request names by its id */
    public function named(Node $id): object
    {
        return $this->find($id->id()) ?? throw $id->refused(Reason::RefUnknown, sprintf('is "%s", %s.', $id->id(), static::unknown()));
    }

    /**
     * @param list<string> $ids
     * @return list<T> those of them that are there
     */
    public function those(array $ids): array
    {
        return $ids === [] ? [] : $this->asked($this->within('x')->andWhere('x.id IN (:ids)')->setParameter('ids', $ids));
    }

    public function add(Thing $thing): void
    {
        $this->entities->persist($thing);
    }

    protected function within(string $alias): QueryBuilder
    {
        return $this->entities->createQueryBuilder()->select($alias)->from(static::entity(), $alias)->where($this->reach->condition(static::kind(), "$alias.id"));
    }

    /** @return list<T> */
    protected function asked(QueryBuilder $query): array
    {
        /** @var list<T> $found */
        $found = $query->getQuery()->getResult();

        return $found;
    }

    private function isWithin(string $id): bool
    {
        $condition = $this->reach->condition(static::kind(), 'x.id');

        return $condition === Reach::ALL || $this->within('x')->andWhere('x.id = :id')->setParameter('id', $id)->getQuery()->getOneOrNullResult() !== null;
    }
}
